/** A port that listens to one protocol while its universe travels by the other. */
import { protocolName } from '../../base/address';
import { changed } from '../../show/edit';
import type { Check, Finding } from './finding';
import { flowOf, withPort } from './flowView';

export const protocolDiffers: Check = {
  rule: 'protocols differ',
  *find(view): Generator<Finding> {
    const { carriers, inputs } = flowOf(view);
    for (const { number, protocol, id } of view.records.universe)
      for (const { known, port } of [...(carriers.get(number) ?? []), ...(inputs.get(number) ?? [])])
        if (port && port.protocol !== protocol)
          yield {
            rule: this.rule,
            weight: 'must fix',
            subjects: [known.machine.id, id],
            sentence: `${known.machine.name}, port ${port.number}, is set to ${protocolName(port.protocol)}; universe ${number} travels by ${protocolName(protocol)}.`,
            evidence: [],
            port: port.number,
          };
  },
  repairs(view, { subjects: [id, universeId], port: number = 0 }) {
    const known = view.byId.get(id!);
    const universe = view.records.universe.find((one) => one.id === universeId);
    if (!known || !universe) return [];
    const { machine } = known;
    const name = protocolName(universe.protocol);
    return [
      {
        label: `Set port ${number} to ${name}`,
        plan: {
          sentence: `Set port ${number} of ${machine.name} to ${name}`,
          changes: [changed('machine', machine, withPort(machine, number, { protocol: universe.protocol }))],
          lines: [
            {
              subject: `${machine.name}, port ${number}`,
              before: protocolName(universe.protocol === 'sacn' ? 'artnet' : 'sacn'),
              after: name,
            },
          ],
        },
      },
    ];
  },
};
