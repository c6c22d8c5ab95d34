/** The first and the last address of a subnet, which no machine may have. */
import { lastOf, networkOf } from '../../network/ip';
import type { Check, Finding } from './finding';
import { moveInto, networkFor } from './repairs';

export const reserved: Check = {
  rule: 'network or broadcast address',
  *find({ machines }): Generator<Finding> {
    for (const { machine, addresses } of machines)
      for (const { number, text, prefix } of addresses) {
        if (prefix > 30) continue;
        const network = number === networkOf(number, prefix);
        if (network || number === lastOf(number, prefix))
          yield {
            rule: this.rule,
            weight: 'must fix',
            subjects: [machine.id],
            sentence: network
              ? `${machine.name} has ${text}, which is the name of its whole network and no machine’s address.`
              : `${machine.name} has ${text}, which calls everybody in its network and is no machine’s address.`,
            evidence: [],
          };
      }
  },
  repairs(view, { subjects: [id] }) {
    const known = view.byId.get(id!);
    const network = known?.addresses[0] && networkFor(view, known.addresses[0].number);
    return known && network ? moveInto(view, known, network) : [];
  },
};
