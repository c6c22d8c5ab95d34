/** Machines that must talk, by what they send and what their ports carry, and cannot. */
import { universesOf } from '../../network/flow';
import { addressesReach, canReach, isLoopback, networkOf } from '../../network/ip';
import type { Check, Finding } from './finding';
import { flowOf } from './flowView';
import { moveInto, networkFor } from './repairs';

export const reach: Check = {
  rule: 'cannot reach',
  *find(view): Generator<Finding> {
    const { carriers } = flowOf(view);
    for (const one of view.senders) {
      const sender = view.byId.get(one.id)!;
      if (sender.addresses.length === 0) continue;
      const told = new Set<string>();
      for (const universe of universesOf(one))
        for (const { known } of carriers.get(universe) ?? []) {
          const { machine: receiver, addresses } = known;
          if (receiver.id === sender.machine.id || told.has(receiver.id)) continue;
          told.add(receiver.id);
          // Most machines share one subnet with their sender: those need no longer look.
          const [a, b] = [sender.addresses[0]!, addresses[0]];
          if (!b) continue;
          if (a.number !== b.number && !isLoopback(a.number) && !isLoopback(b.number) && addressesReach(a, b)) continue;
          const answer = canReach(sender.machine, receiver, view.networks);
          if (answer.reaches) continue;
          yield {
            rule: this.rule,
            weight: 'must fix',
            subjects: [sender.machine.id, receiver.id],
            sentence: `${sender.machine.name} sends universe ${universe} to ${receiver.name}, and they cannot reach each other.`,
            evidence: [answer.sentence, `${a.text}/${a.prefix}`, `${b.text}/${b.prefix}`],
          };
        }
    }
  },
  repairs(view, { subjects }) {
    const [sender, receiver] = subjects.map((id) => view.byId.get(id));
    if (!sender?.addresses[0] || !receiver) return [];
    const at = sender.addresses[0];
    const network = networkFor(view, at.number);
    return network && networkOf(at.number, network.prefix) === networkOf(at.number, at.prefix)
      ? moveInto(view, receiver, network)
      : [];
  },
};
