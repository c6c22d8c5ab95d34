/** What the planned senders come to on each machine's cable, with the arithmetic. */
import type { Protocol } from '../../base/address';
import { sentTo } from '../../network/flow';
import { type Machine, PLAIN_SPEED, type ShowRecords } from '../../show/records';
import { type Check, type Finding, type NetworkView, viewOf } from './finding';
import { flowOf } from './flowView';

/** Bytes of a full packet on the cable: protocol, slots, UDP 8, IP 20, Ethernet 18, preamble and gap 20. */
const PACKET_BYTES: Readonly<Record<Protocol, number>> = { sacn: 126 + 512 + 66, artnet: 18 + 512 + 66 };
/** Above this share of a link's bits, packets begin to wait for one another. */
const SHARE = 0.7;

/** What a machine sends and what it takes in, together. */
interface Load {
  /** A second */
  packets: number;
  /** A second */
  bits: number;
  /** How often each product is in the sum */
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
  for (const sender of view.senders) {
    for (const line of sender.lines)
      for (let i = 0; line.on && i < line.count; i += 1) {
        const sent = sentTo(line, line.from + i, planned.get(line.from + i));
        if (!sent) continue;
        const takers = new Set((carriers.get(line.from + i) ?? []).map((one) => one.known.machine));
        const multicast = sent.protocol === 'sacn' && line.delivery !== 'unicast';
        if (multicast) groups.add(sent.number);
        // Multicast and broadcast leave the sender once, unicast once for each that it goes to.
        const times =
          multicast || line.delivery === 'broadcast'
            ? 1
            : line.delivery === 'unicast'
              ? line.addresses.length
              : takers.size;
        add(machines, sender.machine, sent.protocol, line.rate, times);
        for (const taker of takers) add(machines, taker, sent.protocol, line.rate, 1);
      }
  }
  const loads = { machines, groups: groups.size };
  known.set(view, loads);
  return loads;
}

const inMegabits = (bits: number): string => (bits / 1e6).toFixed(bits < 1e7 ? 1 : 0);
const termsText = ({ terms }: Load): string[] => [...terms].map(([term, times]) => `${times} × ${term}`);
const speedOf = (view: NetworkView, { id }: Machine): number => view.byId.get(id)?.model?.speed ?? PLAIN_SPEED;

/** What the plan puts on one machine's link; undefined for one that neither sends nor takes anything. */
export function linkLoad(records: ShowRecords, machine: Machine): { sum: string; terms: string[] } | undefined {
  const view = viewOf(records);
  const known = view.byId.get(machine.id);
  const load = known && loadsOf(view).machines.get(known.machine);
  if (!load) return undefined;
  const { packets, bits } = load;
  return {
    sum: `${Math.round(packets)} packets a second, ${inMegabits(bits)} of ${speedOf(view, machine)} Mbit/s`,
    terms: termsText(load),
  };
}

export const wireLoad: Check = {
  rule: 'load of a link',
  *find(view): Generator<Finding> {
    for (const [machine, load] of loadsOf(view).machines) {
      const { packets, bits } = load;
      const speed = speedOf(view, machine);
      if (bits > speed * 1e6 * SHARE)
        yield {
          rule: this.rule,
          weight: 'look at',
          subjects: [machine.id],
          sentence: `The link of ${machine.name} carries ${inMegabits(bits)} Mbit/s in ${Math.round(packets)} packets a second, more than ${Math.round(speed * SHARE)} of its ${speed}.`,
          evidence: termsText(load),
        };
    }
  },
  // Which universes go another way is for a person to say.
  repairs: () => [],
};
