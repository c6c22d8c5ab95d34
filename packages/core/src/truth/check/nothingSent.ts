/** A port whose universe nobody sends; and, where a neighbour is sent to no port, the bases that were mixed up. */
import { changed } from '../../show/edit';
import type { Check, Finding } from './finding';
import { flowOf, withPort } from './flowView';

export const nothingSent: Check = {
  rule: 'nothing sent to the port',
  *find(view): Generator<Finding> {
    const { senders, carriers, inputs, routed } = flowOf(view);
    for (const [universe, there] of carriers) {
      if (senders.has(universe) || inputs.has(universe) || routed.has(universe)) continue;
      for (const { known, port } of there) {
        if (!port) continue;
        const shift = [-1, 1].find((by) => senders.has(universe + by) && !carriers.has(universe + by));
        const what = `${known.machine.name}, port ${port.number}, carries universe ${universe}, which nobody sends`;
        yield {
          rule: this.rule,
          weight: 'must fix',
          subjects: [known.machine.id],
          sentence:
            shift === undefined
              ? `${what}.`
              : `${what}; universe ${universe + shift} is sent and reaches no port. One of them counts from ${shift < 0 ? '1 and the other from 0' : '0 and the other from 1'}: it is off by one.`,
          evidence: [],
          port: port.number,
          ...(shift !== undefined && { universe: universe + shift }),
        };
      }
    }
  },
  repairs(view, { subjects: [id], port: number = 0, universe: next }) {
    const known = view.byId.get(id!);
    if (!known) return [];
    const { machine } = known;
    const turn = (label: string, change: Parameters<typeof withPort>[2], after: string) => ({
      label,
      plan: {
        sentence: `${label}: ${machine.name}, port ${number}`,
        changes: [changed('machine', machine, withPort(machine, number, change))],
        lines: [{ subject: `${machine.name}, port ${number}`, before: 'carries what nobody sends', after }],
      },
    });
    return [
      ...(next === undefined ? [] : [turn(`Turn it to universe ${next}`, { universe: next }, `universe ${next}`)]),
      turn('Switch the port off', { use: 'off' }, 'off'),
    ];
  },
};
