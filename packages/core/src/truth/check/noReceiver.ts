/** A universe that is sent, and neither has lamps nor leaves by any port. */
import { changedLines, withUniverse } from '../../network/flow';
import type { Check, Finding } from './finding';
import { flowOf } from './flowView';

export const noReceiver: Check = {
  rule: 'no receiver',
  *find(view): Generator<Finding> {
    const { senders, carriers, load } = flowOf(view);
    for (const [universe, there] of senders)
      if (!carriers.has(universe) && !load.has(universe))
        for (const { sender } of there)
          yield {
            rule: this.rule,
            weight: 'look at',
            subjects: [sender.id],
            sentence: `${sender.name} is planned to send universe ${universe}, which has no lamps and leaves by no port.`,
            evidence: [],
            universe,
          };
  },
  repairs(view, { subjects: [id], universe = 0 }) {
    const sender = view.senders.find((one) => one.id === id);
    if (!sender) return [];
    return [
      {
        label: `Have ${sender.name} send it no more`,
        plan: {
          sentence: `Took universe ${universe} from ${sender.name}`,
          changes: [
            changedLines(
              sender,
              withUniverse(sender.lines, universe, () => null),
            ),
          ],
          lines: [{ subject: `${sender.name}, universe ${universe}`, before: 'sends it', after: '' }],
        },
      },
    ];
  },
};
