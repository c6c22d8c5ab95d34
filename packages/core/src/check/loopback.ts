/** Loopback planned for a machine that others must reach. */
import { isLoopback, isStandIn } from '../ip';
import type { Check, Finding } from './finding';
import { moveInto } from './repairs';

export const loopback: Check = {
  rule: 'loopback between machines',
  *find({ machines, networks }): Generator<Finding> {
    for (const { machine, addresses } of machines)
      for (const { number, text } of addresses)
        if (isLoopback(number) && !isStandIn(number, networks))
          yield {
            rule: this.rule,
            weight: 'must fix',
            subjects: [machine.id],
            sentence: `${machine.name} has ${text}. That is loopback: what is sent there never leaves the sender’s own machine.`,
            evidence: [],
          };
  },
  repairs(view, { subjects: [id] }) {
    const known = view.byId.get(id!);
    const network = view.networks.find(({ standIn }) => !standIn);
    return known && network ? moveInto(view, known, network) : [];
  },
};
