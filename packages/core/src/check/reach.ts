/** Machines that must talk, by what they send and what their ports carry, and cannot. */
import { universesOf } from '../flow';
import { addressesReach, canReach, isLoopback, networkOf } from '../ip';
import type { Machine } from '../show';
import { machineOfSource, type Check, type Finding, type KnownMachine } from './finding';
import { moveInto, networkFor } from './repairs';

/** Machines whose outputs carry each show universe. */
function receivers(machines: readonly KnownMachine[]): Map<number, Machine[]> {
  const by = new Map<number, Machine[]>();
  for (const { machine } of machines) {
    const universes = new Set(machine.ports.filter(({ use }) => use === 'out').map(({ universe }) => universe));
    const limits = machine.controller;
    if (limits) for (let i = 0; i < limits.universes; i += 1) universes.add(limits.firstUniverse + i);
    for (const universe of universes) {
      const there = by.get(universe);
      if (there) there.push(machine);
      else by.set(universe, [machine]);
    }
  }
  return by;
}

export const reach: Check = {
  rule: 'cannot reach',
  *find(view): Generator<Finding> {
    const carried = receivers(view.machines);
    for (const source of view.records.source) {
      const sender = machineOfSource(source, view);
      if (!sender || sender.addresses.length === 0) continue;
      const told = new Set<string>();
      for (const universe of universesOf(source))
        for (const receiver of carried.get(universe) ?? []) {
          if (receiver.id === sender.machine.id || told.has(receiver.id)) continue;
          told.add(receiver.id);
          const known = view.byId.get(receiver.id)!;
          // Most machines share one subnet with their sender: those need no longer look.
          const [a, b] = [sender.addresses[0]!, known.addresses[0]];
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
