/** Two interfaces of one machine in one subnet: it cannot tell which of them to send by. */
import { networkOf } from '../../network/ip';
import { changed } from '../../show/edit';
import type { Check, Finding } from './finding';
import { withAddress } from './repairs';

export const twoInOneSubnet: Check = {
  rule: 'two interfaces in one subnet',
  *find({ machines }): Generator<Finding> {
    for (const { machine, addresses } of machines) {
      const seen = new Map<number, number>();
      for (const { number, prefix, iface } of addresses) {
        const network = networkOf(number, prefix);
        const other = seen.get(network);
        if (other === undefined) seen.set(network, iface);
        else if (other !== iface) {
          const name = (i: number) => machine.interfaces[i]!.name || `interface ${i + 1}`;
          yield {
            rule: this.rule,
            weight: 'look at',
            subjects: [machine.id],
            sentence: `${machine.name} is in one subnet by ${name(other)} and by ${name(iface)}: it may send by the wrong one.`,
            evidence: addresses.map(({ text, prefix: length }) => `${text}/${length}`),
          };
        }
      }
    }
  },
  repairs(view, { subjects: [id] }) {
    const known = view.byId.get(id!);
    if (!known) return [];
    const { machine, addresses } = known;
    return addresses
      .filter(({ iface }) => iface > 0)
      .map((at) => ({
        label: `Take ${at.text} away from ${machine.interfaces[at.iface]!.name || `interface ${at.iface + 1}`}`,
        plan: {
          sentence: `Took ${at.text} away from ${machine.name}`,
          changes: [changed('machine', machine, withAddress(machine, at, null))],
          lines: [{ subject: machine.name, before: at.text, after: '' }],
        },
      }));
  },
};
