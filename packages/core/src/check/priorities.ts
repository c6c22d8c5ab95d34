/** Two senders of one universe at one priority, or a backup that is not below the main one. */
import { changed } from '../patch';
import type { Source } from '../show';
import { machineOfSource, type Check, type Finding } from './finding';
import { flowOf, type Sender } from './flowView';

const STEP = 10;

const isBackup = ({ known }: Sender): boolean => known?.machine.kind === 'backup console';

/** The pair of senders that do not stand clearly one above the other, the one to be lowered second. */
function unclear(senders: readonly Sender[]): readonly [Sender, Sender] | undefined {
  for (const [i, one] of senders.entries())
    for (const other of senders.slice(i + 1)) {
      const [main, backup] = isBackup(one) && !isBackup(other) ? [other, one] : [one, other];
      const wrong = isBackup(backup)
        ? backup.source.priority >= main.source.priority
        : backup.source.priority === main.source.priority;
      if (wrong) return [main, backup];
    }
  return undefined;
}

export const priorities: Check = {
  rule: 'priorities',
  *find(view): Generator<Finding> {
    const told = new Set<string>();
    for (const [universe, senders] of flowOf(view).senders) {
      const pair = senders.length > 1 ? unclear(senders) : undefined;
      if (!pair) continue;
      const [main, backup] = pair.map(({ source }) => source) as [Source, Source];
      const key = `${main.id} ${backup.id}`;
      if (told.has(key)) continue;
      told.add(key);
      yield {
        rule: this.rule,
        weight: 'must fix',
        subjects: [main.id, backup.id],
        sentence: isBackup(pair[1])
          ? `${backup.name} is the backup and sends universe ${universe} at priority ${backup.priority}, not below the ${main.priority} of ${main.name}.`
          : `${main.name} and ${backup.name} both send universe ${universe} at priority ${main.priority}: their values mix.`,
        evidence: [],
      };
    }
  },
  repairs(view, { subjects }) {
    const [main, backup] = subjects.map((id) => view.records.source.find((one) => one.id === id));
    if (!main || !backup) return [];
    // A backup is what is lowered; of two equals either may be.
    const ways =
      machineOfSource(backup, view)?.machine.kind === 'backup console'
        ? [[main, backup]]
        : [
            [main, backup],
            [backup, main],
          ];
    return ways.flatMap(([above, below]) => {
      const priority = above!.priority - STEP;
      if (priority < 1) return [];
      return [
        {
          label: `Lower ${below!.name} to ${priority}`,
          plan: {
            sentence: `Lowered ${below!.name} to priority ${priority}`,
            changes: [changed('source', below!, { ...below!, priority })],
            lines: [{ subject: `${below!.name}, priority`, before: String(below!.priority), after: String(priority) }],
          },
        },
      ];
    });
  },
};
