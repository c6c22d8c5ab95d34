/** The demo show with ten faults planted in it, as they are met in practice; each can be found and mended here. */
import type { AnyRecord, Kind, Lamp, Link, Machine, MachinePort, SendLine, ShowRecords } from '../../show/records';
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
  const lines = (id: string, how: Changer<SendLine>) =>
    machine(id, (one) => ({ ...one, sends: one.sends && { ...one.sends, lines: one.sends.lines.map(how) } }));
  lamp('lamp-102', (one) => ({ ...one, channel: first.channel }));
  lamp(last.id, (one) => ({ ...one, channel: 511 }));
  machine('boiler', withAddress('127.0.0.31', 8));
  machine('foredeck', withAddress('127.0.0.35', 24));
  machine('quay', withPort(1, { merge: 'ltp' }));
  machine('saloon', withPort(2, { protocol: 'artnet' }));
  lines('bridge', (line) => (line.from === 9 ? { ...line, to: { protocol: 'artnet', number: 9 } } : line));
  lines('stern', (line) => ({ ...line, priority: 100 }));
  lines('porthole', (line) => ({ ...line, rate: 60 }));
  return change(records, 'link', 'link-porthole', (link: Link): Link => ({ ...link, receiverBase: 0 }));
}
