/** Repairs that several checks share. */
import { type EffectiveAddress, ipNumber, ipText, maskText, rangeFor, usable, withMainAddress } from '../../network/ip';
import { changed } from '../../show/edit';
import type { Machine, MachineInterface, Network } from '../../show/records';
import type { KnownMachine, NetworkView, Repair } from './finding';

/** The first address of a plan that nobody has, in the machine's own range if it has one. */
export function freeAddress(view: NetworkView, network: Network, machine: Machine): string | undefined {
  const base = ipNumber(network.network)!;
  const taken = new Set(view.machines.flatMap(({ addresses }) => addresses.map(({ number }) => number)));
  const range = rangeFor(network, machine);
  const whole = usable(base, network.prefix);
  const first = range ? ipNumber(range.first)! : whole.first;
  const last = range ? ipNumber(range.last)! : whole.last;
  for (let number = first; number <= last; number += 1) if (!taken.has(number)) return ipText(number);
  return undefined;
}

/** Gives a machine the next free address of a plan. */
export function moveInto(view: NetworkView, { machine, addresses }: KnownMachine, network: Network): Repair[] {
  const address = freeAddress(view, network, machine);
  if (address === undefined) return [];
  return [
    {
      label: `Give ${machine.name} ${address}`,
      plan: {
        sentence: `Gave ${machine.name} the address ${address}`,
        changes: [changed('machine', machine, withMainAddress(machine, address, network.prefix))],
        lines: [
          {
            subject: machine.name,
            before: addresses[0]?.text ?? 'none',
            after: `${address} / ${maskText(network.prefix)}`,
          },
        ],
      },
    },
  ];
}

/** The plan of addresses that an address lies in; the first of all if it lies in none. */
export const networkFor = (view: NetworkView, number: number): Network | undefined =>
  view.networkOf(number) ?? view.networks[0];

/** One address of a machine changed, or taken away (null). */
export function withAddress(
  machine: Machine,
  { iface, index }: EffectiveAddress,
  next: { address: string; prefix: number; way: 'fixed' } | null,
): Machine {
  return {
    ...machine,
    interfaces: machine.interfaces.map((one, i): MachineInterface => {
      if (i !== iface) return one;
      const addresses = [...one.addresses];
      if (next) addresses[index] = next;
      else addresses.splice(index, 1);
      return { ...one, addresses };
    }),
  };
}
