/** A universe that is sent, and neither has lamps nor leaves by any port. */
import { withUniverse } from '../flow';
import { changed } from '../patch';
import type { Check, Finding } from './finding';
import { flowOf } from './flowView';

export const noReceiver: Check = {
  rule: 'no receiver',
  *find(view): Generator<Finding> {
    const { senders, carriers, load } = flowOf(view);
    for (const [universe, there] of senders)
      if (!carriers.has(universe) && !load.has(universe))
        for (const { source } of there)
          yield {
            rule: this.rule,
            weight: 'look at',
            subjects: [source.id],
            sentence: `${source.name} is planned to send universe ${universe}, which has no lamps and leaves by no port.`,
            evidence: [],
            universe,
          };
  },
  repairs(view, { subjects: [id], universe = 0 }) {
    const source = view.records.source.find((one) => one.id === id);
    if (!source) return [];
    return [
      {
        label: `Have ${source.name} send it no more`,
        plan: {
          sentence: `Took universe ${universe} from ${source.name}`,
          changes: [
            changed(
              'source',
              source,
              withUniverse(source, universe, () => null),
            ),
          ],
          lines: [{ subject: `${source.name}, universe ${universe}`, before: 'sends it', after: '' }],
        },
      },
    ];
  },
};
