/** Lamps on a universe that is sent and leaves the network at no port. */
import { changed, countOf } from '../../show/edit';
import type { Check, Finding } from './finding';
import { flowOf, withPort } from './flowView';

/** Free ports that are offered at most */
const MOST_OFFERED = 4;

export const noPort: Check = {
  rule: 'no port',
  *find(view): Generator<Finding> {
    const { carriers, load } = flowOf(view);
    const byNumber = new Map(view.records.universe.map((one) => [one.number, one]));
    for (const [universe, lamps] of load)
      if (!carriers.has(universe))
        yield {
          rule: this.rule,
          weight: 'look at',
          subjects: byNumber.has(universe) ? [byNumber.get(universe)!.id] : [],
          sentence: `Universe ${universe} has ${countOf(lamps, 'lamp or run', 'lamps and runs')}, and no port is planned to carry it.`,
          evidence: [],
          universe,
        };
  },
  repairs(view, { universe = 0 }) {
    const protocol = view.records.universe.find(({ number }) => number === universe)?.protocol;
    return view.machines
      .flatMap(({ machine, model }) =>
        machine.ports
          .filter(({ use }) => use === 'off' && model?.directions.includes('out'))
          .filter(() => protocol !== undefined && model!.protocols.includes(protocol))
          .map((port) => ({
            label: `Use port ${port.number} of ${machine.name}`,
            plan: {
              sentence: `Put universe ${universe} on port ${port.number} of ${machine.name}`,
              changes: [
                changed(
                  'machine',
                  machine,
                  withPort(machine, port.number, { use: 'out', universe, protocol: protocol! }),
                ),
              ],
              lines: [
                { subject: `${machine.name}, port ${port.number}`, before: 'off', after: `universe ${universe}` },
              ],
            },
          })),
      )
      .slice(0, MOST_OFFERED);
  },
};
