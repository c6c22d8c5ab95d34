/** The demo show with ten faults planted in it, as they are met in practice; each can be found and mended here. */
import type { AnyRecord, Kind, Lamp, Link, Machine, MachinePort, ShowRecords, Source } from '../show';
import { nightFerry } from './nightFerry';

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
