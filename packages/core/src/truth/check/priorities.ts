/** Two senders of one universe at one priority, or a backup that is not below the main one. */
import { changedLines, priorityOf, rangeText, type Sender } from '../../network/flow';
import type { SendLine } from '../../show/records';
import type { Check, Finding } from './finding';
import { flowOf, type SenderOf } from './flowView';

const STEP = 10;

const isBackup = ({ known }: SenderOf): boolean => known.machine.kind === 'backup console';

/** The lines of `low`, those not clearly below `high` lowered under it; undefined if there is no room below. */
function below(low: Sender, high: Sender): SendLine[] | undefined {
  const lines = low.lines.map((line) => {
    let lowest = Infinity;
    for (let i = 0; i < line.count; i += 1) lowest = Math.min(lowest, priorityOf(high, line.from + i) || Infinity);
    return line.on && line.priority >= lowest ? { ...line, priority: lowest - STEP } : line;
  });
  return lines.every(({ priority }) => priority >= 1) ? lines : undefined;
}

/** The pair of senders that do not stand clearly one above the other, the one to be lowered second. */
function unclear(senders: readonly SenderOf[]): readonly [SenderOf, SenderOf] | undefined {
  for (const [i, one] of senders.entries())
    for (const other of senders.slice(i + 1)) {
      const [main, backup] = isBackup(one) && !isBackup(other) ? [other, one] : [one, other];
      const wrong = isBackup(backup) ? backup.priority >= main.priority : backup.priority === main.priority;
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
      const [main, backup] = pair;
      const key = `${main.sender.id} ${backup.sender.id}`;
      if (told.has(key)) continue;
      told.add(key);
      yield {
        rule: this.rule,
        weight: 'must fix',
        subjects: [main.sender.id, backup.sender.id],
        universe,
        sentence: isBackup(backup)
          ? `${backup.sender.name} is the backup and sends universe ${universe} at priority ${backup.priority}, not below the ${main.priority} of ${main.sender.name}.`
          : `${main.sender.name} and ${backup.sender.name} both send universe ${universe} at priority ${main.priority}: their values mix.`,
        evidence: [],
      };
    }
  },
  repairs(view, { subjects, universe = 0 }) {
    const [main, backup] = subjects.map((id) => view.senders.find((one) => one.id === id));
    if (!main || !backup) return [];
    // A backup is what is lowered; of two equals either may be.
    const ways =
      backup.machine.kind === 'backup console'
        ? [[main, backup]]
        : [
            [main, backup],
            [backup, main],
          ];
    return ways.flatMap(([high, low]) => {
      const lowered = below(low!, high!);
      if (!lowered) return [];
      const priority = priorityOf({ lines: lowered }, universe);
      return [
        {
          label: `Lower ${low!.name} to ${priority}`,
          plan: {
            sentence: `Lowered ${low!.name} to priority ${priority}`,
            changes: [changedLines(low!, lowered)],
            lines: low!.lines.flatMap((line, i) =>
              lowered[i] === line
                ? []
                : [
                    {
                      subject: `${low!.name}, universes ${rangeText(line)}, priority`,
                      before: String(line.priority),
                      after: String(lowered[i]!.priority),
                    },
                  ],
            ),
          },
        },
      ];
    });
  },
};
