/** A universe with lamps or pixels that nobody is planned to send. */
import { addUniverse } from '../flow';
import { changed, countOf } from '../patch';
import type { Check, Finding } from './finding';
import { flowOf } from './flowView';

export const noSender: Check = {
  rule: 'no sender',
  *find(view): Generator<Finding> {
    const { senders, load, inputs, routed } = flowOf(view);
    for (const [universe, lamps] of load)
      if (!senders.has(universe) && !inputs.has(universe) && !routed.has(universe))
        yield {
          rule: this.rule,
          weight: 'must fix',
          subjects: view.records.universe.filter(({ number }) => number === universe).map(({ id }) => id),
          sentence: `Universe ${universe} has ${countOf(lamps, 'lamp or run', 'lamps and runs')}, and nobody is planned to send it.`,
          evidence: [],
          universe,
        };
  },
  repairs(view, { universe = 0 }) {
    return view.records.source.map((source) => {
      return {
        label: `Have ${source.name} send it`,
        plan: {
          sentence: `Planned ${source.name} to send universe ${universe}`,
          changes: [changed('source', source, addUniverse(source, universe))],
          lines: [{ subject: `${source.name}, universe ${universe}`, before: '', after: 'sends it' }],
        },
      };
    });
  },
};
