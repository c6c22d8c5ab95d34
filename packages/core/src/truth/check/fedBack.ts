/**
 * An input that puts on the network what others send there already, and ports let out: if its cable
 * comes from one of these, the universe feeds itself. Routes between are followed, however many.
 */
import { wireKey } from '../../base/address';
import { universesByWire } from '../../network/flow';
import { changed } from '../../show/edit';
import type { Check, Finding, KnownMachine, NetworkView } from './finding';
import { flowOf, withPort } from './flowView';

/** Show universes that routes make of each, by one step. */
function stepsOf({ records }: NetworkView): ReadonlyMap<number, readonly number[]> {
  const planned = universesByWire(records.universe);
  const steps = new Map<number, number[]>();
  for (const { inputs, out } of records.route)
    for (const { wire } of inputs) {
      const [from, to] = [planned.get(wireKey(wire)), planned.get(wireKey(out))];
      if (from && to) steps.set(from.number, [...(steps.get(from.number) ?? []), to.number]);
    }
  return steps;
}

/** A universe, and all that routes make of it through any number of steps. */
function reachedFrom(universe: number, steps: ReadonlyMap<number, readonly number[]>): ReadonlySet<number> {
  const reached = new Set([universe]);
  for (const one of reached) for (const to of steps.get(one) ?? []) reached.add(to);
  return reached;
}

/** Who else puts a universe on the network than the machine whose input it is. */
function others(universe: number, { machine, addresses }: KnownMachine, view: NetworkView): string[] {
  const own = new Set(addresses.map(({ text }) => text));
  return (flowOf(view).senders.get(universe) ?? [])
    .filter(({ sender }) => sender.machine !== machine && !sender.addresses.some((address) => own.has(address)))
    .map(({ sender }) => sender.name);
}

export const fedBack: Check = {
  rule: 'fed back',
  *find(view): Generator<Finding> {
    const { inputs, carriers } = flowOf(view);
    const steps = stepsOf(view);
    for (const [universe, there] of inputs)
      for (const { known, port } of there) {
        const [sender] = others(universe, known, view);
        if (!port || sender === undefined) continue;
        // What comes by a plug of this computer is on no network but by routes.
        const local = known.machine.line !== null;
        const reached = [...reachedFrom(universe, steps)].filter((one) => !local || one !== universe);
        const outlet = reached.flatMap((one) => carriers.get(one) ?? [])[0];
        if (!outlet) continue;
        yield {
          rule: this.rule,
          weight: 'look at',
          subjects: [known.machine.id, outlet.known.machine.id],
          sentence: `${known.machine.name}, port ${port.number}, ${local ? `takes in universe ${universe}, which a route sends on and` : `puts universe ${universe} on the network, which`} ${sender} sends too. If its cable comes from ${outlet.known.machine.name}${outlet.port ? `, port ${outlet.port.number}` : ''}, it feeds itself.`,
          evidence: [],
          port: port.number,
        };
      }
  },
  repairs(view, { subjects: [id], port: number = 0 }) {
    const known = view.byId.get(id!);
    if (!known) return [];
    const { machine } = known;
    return [
      {
        label: 'Switch the input off',
        plan: {
          sentence: `Switched off the input of ${machine.name}, port ${number}`,
          changes: [changed('machine', machine, withPort(machine, number, { use: 'off' }))],
          lines: [{ subject: `${machine.name}, port ${number}`, before: 'in', after: 'off' }],
        },
      },
    ];
  },
};
