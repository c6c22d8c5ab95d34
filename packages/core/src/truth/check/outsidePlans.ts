/** An address that lies in no plan of addresses. */
import type { Check, Finding } from './finding';
import { moveInto } from './repairs';

export const outsidePlans: Check = {
  rule: 'outside every plan',
  *find({ machines, networks, networkOf }): Generator<Finding> {
    if (networks.length === 0) return;
    for (const { machine, addresses } of machines)
      for (const { number, text } of addresses)
        if (!networkOf(number))
          yield {
            rule: this.rule,
            weight: 'look at',
            subjects: [machine.id],
            sentence: `${machine.name} has ${text}, which lies in no plan of addresses.`,
            evidence: networks.map(({ name, network, prefix }) => `${name}: ${network}/${prefix}`),
          };
  },
  repairs(view, { subjects: [id] }) {
    const known = view.byId.get(id!);
    return known ? view.networks.flatMap((network) => moveInto(view, known, network)) : [];
  },
};
