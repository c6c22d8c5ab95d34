/** Two senders of one universe at one priority, or a backup that is not below the main one. */
import { changed } from '../patch';
import { priorityOf, rangeText } from '../flow';
import type { Source } from '../show';
import { machineOfSource, type Check, type Finding } from './finding';
import { flowOf, type Sender } from './flowView';

const STEP = 10;

const isBackup = ({ known }: Sender): boolean => known?.machine.kind === 'backup console';

/** A sender with each line that is not clearly below `high` lowered under it; undefined if there is no room below. */
function below(low: Source, high: Source): Source | undefined {
  const ranges = low.ranges.map((range) => {
    let lowest = Infinity;
    for (let i = 0; i < range.count; i += 1) lowest = Math.min(lowest, priorityOf(high, range.from + i) || Infinity);
    return range.on && range.priority >= lowest ? { ...range, priority: lowest - STEP } : range;
  });
  return ranges.every(({ priority }) => priority >= 1) ? { ...low, ranges } : undefined;
}

/** The pair of senders that do not stand clearly one above the other, the one to be lowered second. */
function unclear(senders: readonly Sender[]): readonly [Sender, Sender] | undefined {
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
      const key = `${main.source.id} ${backup.source.id}`;
      if (told.has(key)) continue;
      told.add(key);
      yield {
        rule: this.rule,
        weight: 'must fix',
        subjects: [main.source.id, backup.source.id],
        universe,
        sentence: isBackup(backup)
          ? `${backup.source.name} is the backup and sends universe ${universe} at priority ${backup.priority}, not below the ${main.priority} of ${main.source.name}.`
          : `${main.source.name} and ${backup.source.name} both send universe ${universe} at priority ${main.priority}: their values mix.`,
        evidence: [],
      };
    }
  },
  repairs(view, { subjects, universe = 0 }) {
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
    return ways.flatMap(([high, low]) => {
      const lowered = below(low!, high!);
      if (!lowered) return [];
      const priority = priorityOf(lowered, universe);
      return [
        {
          label: `Lower ${low!.name} to ${priority}`,
          plan: {
            sentence: `Lowered ${low!.name} to priority ${priority}`,
            changes: [changed('source', low!, lowered)],
            lines: low!.ranges.flatMap((range, i) =>
              lowered.ranges[i] === range
                ? []
                : [
                    {
                      subject: `${low!.name}, universes ${rangeText(range)}, priority`,
                      before: String(range.priority),
                      after: String(lowered.ranges[i]!.priority),
                    },
                  ],
            ),
          },
        },
      ];
    });
  },
};
