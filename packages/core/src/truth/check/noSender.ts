/** A universe with lamps or pixels that nobody is planned to send. */
import { countOf } from '../../show/edit';
import { addUniverse, changedLines } from '../../network/flow';
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
    return view.senders.map((sender) => {
      return {
        label: `Have ${sender.name} send it`,
        plan: {
          sentence: `Planned ${sender.name} to send universe ${universe}`,
          changes: [changedLines(sender, addUniverse(sender.lines, universe))],
          lines: [{ subject: `${sender.name}, universe ${universe}`, before: '', after: 'sends it' }],
        },
      };
    });
  },
};
