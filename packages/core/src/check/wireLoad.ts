/** What the planned senders come to on each machine's cable. */
import type { Protocol } from '../address';
import { sentTo } from '../flow';
import type { Machine } from '../show';
import { machineOfSource, type Check, type Finding, type NetworkView } from './finding';
import { flowOf } from './flowView';

/** Bytes of a full packet on the cable: protocol, slots, UDP 8, IP 20, Ethernet 18, preamble and gap 20. */
const PACKET_BYTES: Readonly<Record<Protocol, number>> = { sacn: 126 + 512 + 66, artnet: 18 + 512 + 66 };
const LINK_BITS = 100_000_000;
/** Above this share of a link's bits, packets begin to wait for one another. */
const SHARE = 0.7;

interface Load {
  packets: number;
  bits: number;
  readonly terms: Map<string, number>;
}

function add(loads: Map<Machine, Load>, machine: Machine, protocol: Protocol, rate: number, times: number): void {
  const load = loads.get(machine) ?? { packets: 0, bits: 0, terms: new Map() };
  loads.set(machine, load);
  load.packets += rate * times;
  load.bits += rate * times * PACKET_BYTES[protocol] * 8;
  const term = `${rate} Hz × ${PACKET_BYTES[protocol]} bytes × 8`;
  load.terms.set(term, (load.terms.get(term) ?? 0) + times);
}

interface Loads {
  /** By what a machine sends and takes in together */
  readonly machines: ReadonlyMap<Machine, Load>;
  /** sACN universes that travel by multicast */
  readonly groups: number;
}

const known = new WeakMap<NetworkView, Loads>();

/** Made once for each view, in time linear in lines, their universes and those that carry them. */
export function loadsOf(view: NetworkView): Loads {
  const there = known.get(view);
  if (there) return there;
  const machines = new Map<Machine, Load>();
  const groups = new Set<number>();
  const { carriers } = flowOf(view);
  const planned = new Map(view.records.universe.map((one) => [one.number, one]));
  for (const source of view.records.source) {
    const sender = machineOfSource(source, view)?.machine;
    for (const range of source.ranges)
      for (let i = 0; range.on && i < range.count; i += 1) {
        const sent = sentTo(range, range.from + i, planned.get(range.from + i));
        if (!sent) continue;
        const takers = new Set((carriers.get(range.from + i) ?? []).map((one) => one.known.machine));
        const multicast = sent.protocol === 'sacn' && range.delivery !== 'unicast';
        if (multicast) groups.add(sent.number);
        // Multicast and broadcast leave the sender once, unicast once for each that it goes to.
        const times =
          multicast || range.delivery === 'broadcast'
            ? 1
            : range.delivery === 'unicast'
              ? range.addresses.length
              : takers.size;
        if (sender) add(machines, sender, sent.protocol, range.rate, times);
        for (const taker of takers) add(machines, taker, sent.protocol, range.rate, 1);
      }
  }
  const loads = { machines, groups: groups.size };
  known.set(view, loads);
  return loads;
}

export const wireLoad: Check = {
  rule: 'load of a link',
  *find(view): Generator<Finding> {
    for (const [machine, { packets, bits, terms }] of loadsOf(view).machines)
      if (bits > LINK_BITS * SHARE)
        yield {
          rule: this.rule,
          weight: 'look at',
          subjects: [machine.id],
          sentence: `The link of ${machine.name} carries ${Math.round(bits / 1e6)} Mbit/s in ${Math.round(packets)} packets a second, more than ${Math.round((LINK_BITS * SHARE) / 1e6)} of its 100.`,
          evidence: [...terms].map(([term, times]) => `${times} × ${term}`),
        };
  },
  // Which universes go another way is for a person to say.
  repairs: () => [],
};
