/** Loopback planned for a machine that others must reach. */
import { added, changed } from '../../show/edit';
import { ipNumber, ipText, isLoopback, isStandIn, maskNumber } from '../../network/ip';
import type { Network } from '../../show/records';
import type { Check, Finding, NetworkView, Repair } from './finding';
import { moveInto } from './repairs';

/** The address plan for simulated devices on one computer (RFC 6890: 127.0.0.0/8 is loopback). */
const LOOPBACK_PLAN: Network = {
  id: 'network-loopback',
  rev: 0,
  name: 'Stand-ins on this computer',
  network: '127.0.0.0',
  prefix: 8,
  dhcp: false,
  standIn: true,
  ranges: [],
};

/** An id that no address plan has yet. */
function freeId(networks: readonly Network[], wanted: string): string {
  let id = wanted;
  for (let n = 2; networks.some((one) => one.id === id); n += 1) id = `${wanted}-${n}`;
  return id;
}

/** Keeps every loopback address of the show for simulated devices: one edit cures all such findings. */
function keepForStandIns({ machines, networks }: NetworkView): Repair {
  const there = networks.find(({ network }) => isLoopback(ipNumber(network) ?? 0));
  const plan = there ? { ...there, standIn: true } : { ...LOOPBACK_PLAN, id: freeId(networks, LOOPBACK_PLAN.id) };
  const names = machines
    .filter(({ addresses }) => addresses.some(({ number }) => isLoopback(number)))
    .map(({ machine }) => machine.name);
  return {
    label: 'Keep 127.0.0.0/8 for stand-ins on this computer',
    plan: {
      sentence: there ? `Kept the address plan ${plan.name} for stand-ins` : `Added the address plan ${plan.name}`,
      changes: [there ? changed('network', there, plan) : added('network', plan)],
      lines: [
        {
          subject: plan.name,
          before: there ? 'for real devices' : 'no address plan',
          after: `${plan.network}/${plan.prefix}, for stand-ins: ${names.join(', ')}`,
        },
      ],
    },
  };
}

/** The subnet that the other machines of the show use, as an address plan; undefined without any. */
function subnetInUse({ machines, networks }: NetworkView): Network | undefined {
  for (const { addresses } of machines)
    for (const { number, prefix } of addresses) {
      if (isLoopback(number) || prefix > 30) continue;
      const network = ipText((number & maskNumber(prefix)) >>> 0);
      return {
        ...LOOPBACK_PLAN,
        id: freeId(networks, 'network-lighting'),
        name: 'Lighting network',
        network,
        prefix,
        standIn: false,
      };
    }
  return undefined;
}

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
            sentence: `${machine.name} has the loopback address ${text}. Other machines can’t reach it.`,
            evidence: [],
          };
  },
  repairs(view, { subjects: [id] }) {
    const known = view.byId.get(id!);
    if (!known) return [];
    const keep = view.machines.every(({ addresses }) => addresses.every(({ number }) => isLoopback(number)))
      ? [keepForStandIns(view)]
      : [];
    const planned = view.networks.find(({ standIn, network }) => !standIn && !isLoopback(ipNumber(network) ?? 0));
    if (planned) return [...keep, ...moveInto(view, known, planned)];
    const used = subnetInUse(view);
    if (!used) return keep;
    return moveInto(view, known, used).map(({ label, plan }) => ({
      label: `${label} in ${used.network}/${used.prefix}`,
      plan: { ...plan, changes: [added('network', used), ...plan.changes] },
    }));
  },
};
