/** The demo show with ten faults planted in it, as they are met in practice; each can be found and mended here. */
import type { AnyRecord, Kind, Lamp, Link, Machine, MachinePort, ShowRecords, Source } from '../show';
import { nightFerry } from './nightFerry';

/** Where each fault is found: in the patch, in the plan of the network, or by the doctor of a link. */
export interface PlantedFault {
  readonly what: string;
  readonly found: 'patch' | 'network' | 'doctor';
  /** Part of the sentence that tells of it */
  readonly says: RegExp;
}

export const PLANTED: readonly PlantedFault[] = [
  { what: 'Two lamps at one address', found: 'patch', says: /Lamp 101 and lamp 102 overlap/ },
  { what: 'A lamp that reaches past 512', found: 'patch', says: /Lamp 550 .* past channel 512/ },
  { what: 'One address twice', found: 'network', says: /127\.0\.0\.31/ },
  { what: 'A mask that disagrees', found: 'network', says: /Foredeck node has the mask 255\.255\.255\.0/ },
  { what: 'A merge that the model lacks', found: 'network', says: /Quay node, port 1/ },
  {
    what: 'Numbering off by one',
    found: 'network',
    says: /Bridge desk sends 9-12 from Art-Net 0\.0\.9 on.*off by one/,
  },
  { what: 'A backup that is not below the main console', found: 'network', says: /Stern desk is the backup/ },
  { what: 'A port set to the other protocol', found: 'network', says: /Saloon node, port 2, is set to Art-Net/ },
  { what: 'A sender faster than DMX', found: 'network', says: /Porthole sends 13-38 60 times a second/ },
  { what: 'A visualiser that counts from the other number', found: 'doctor', says: /off by 1/ },
];

type Changer<T> = (record: T) => T;

function change<K extends Kind>(
  records: ShowRecords,
  kind: K,
  id: string,
  how: Changer<ShowRecords[K][number]>,
): ShowRecords {
  return {
    ...records,
    [kind]: (records[kind] as readonly AnyRecord[]).map((one) =>
      one.id === id ? how(one as ShowRecords[K][number]) : one,
    ),
  };
}

const withAddress =
  (address: string, prefix: number): Changer<Machine> =>
  (machine) => ({
    ...machine,
    interfaces: machine.interfaces.map((one) => ({ ...one, addresses: [{ way: 'fixed', address, prefix }] })),
  });
const withPort =
  (number: number, over: Partial<MachinePort>): Changer<Machine> =>
  (machine) => ({
    ...machine,
    ports: machine.ports.map((port) => (port.number === number ? { ...port, ...over } : port)),
  });

/** Night Ferry on a bad night. */
export function badNight(): ShowRecords {
  const good = nightFerry();
  const first = good.lamp.find(({ number }) => number === 101)!;
  const last = good.lamp.filter(({ universe }) => universe === 8).sort((a, b) => b.channel - a.channel)[0]!;
  let records: ShowRecords = {
    ...good,
    show: good.show.map((one) => ({
      ...one,
      name: 'Night Ferry, bad night',
      about: `${one.about} Ten things are wrong in it on purpose.`,
    })),
  };
  const lamp = (id: string, how: Changer<Lamp>) => (records = change(records, 'lamp', id, how));
  const machine = (id: string, how: Changer<Machine>) => (records = change(records, 'machine', `machine-${id}`, how));
  const source = (id: string, how: Changer<Source>) => (records = change(records, 'source', `source-${id}`, how));
  lamp('lamp-102', (one) => ({ ...one, channel: first.channel }));
  lamp(last.id, (one) => ({ ...one, channel: 511 }));
  machine('boiler', withAddress('127.0.0.31', 8));
  machine('foredeck', withAddress('127.0.0.35', 24));
  machine('quay', withPort(1, { merge: 'ltp' }));
  machine('saloon', withPort(2, { protocol: 'artnet' }));
  source('bridge', (one) => ({
    ...one,
    ranges: one.ranges.map((range) => (range.from === 9 ? { ...range, to: { protocol: 'artnet', number: 9 } } : range)),
  }));
  source('stern', (one) => ({ ...one, ranges: one.ranges.map((range) => ({ ...range, priority: 100 })) }));
  source('porthole', (one) => ({ ...one, ranges: one.ranges.map((range) => ({ ...range, rate: 60 })) }));
  return change(records, 'link', 'link-porthole', (link: Link): Link => ({ ...link, receiverBase: 0 }));
}
