/** A plan that a person got wrong: one field of one record says something else than what is there. */
import type { Lamp, Machine, ShowRecords, Universe } from '@taxiarch/core/show/records';
import { addressesOf, mainAddress, withMainAddress } from '@taxiarch/core/network/ip';
import { PORT_MERGES, PORT_USES } from '@taxiarch/core/show/records';
import { between, chosen, type Disturbance, type Random } from './ship';

interface Wrong {
  readonly sort: string;
  readonly says: string;
  readonly may: readonly string[];
  readonly records: ShowRecords;
}

const withOne = <K extends 'machine' | 'universe' | 'lamp'>(
  records: ShowRecords,
  kind: K,
  id: string,
  change: Partial<ShowRecords[K][number]>,
): ShowRecords => ({
  ...records,
  [kind]: (records[kind] as readonly { id: string }[]).map((one) => (one.id === id ? { ...one, ...change } : one)),
});

/** Machines that a universe goes through: what is wrong with it is seen there. */
const along = ({ machine }: ShowRecords, number: number): string[] =>
  machine
    .filter(
      ({ ports, sends, controller }) =>
        ports.some(({ use, universe }) => use !== 'off' && universe === number) ||
        sends?.lines.some(({ from, count }) => number >= from && number < from + count) ||
        (controller !== null &&
          number >= controller.firstUniverse &&
          number < controller.firstUniverse + controller.universes),
    )
    .map(({ id }) => id);

function wrongUniverse(next: Random, records: ShowRecords): Wrong {
  const one: Universe = chosen(next, records.universe);
  const change: Partial<Universe> =
    next() < 0.7 ? { wire: between(next, 1, 60) } : { protocol: one.protocol === 'sacn' ? 'artnet' : 'sacn' };
  return {
    sort: `plan: universe ${Object.keys(change).join()}`,
    says: `universe ${one.number} ${JSON.stringify(change)}`,
    may: [String(one.number), one.id, ...along(records, one.number)],
    records: withOne(records, 'universe', one.id, change),
  };
}

function wrongPort(next: Random, records: ShowRecords): Wrong {
  const machine: Machine = chosen(
    next,
    records.machine.filter(({ ports }) => ports.length > 0),
  );
  const port = chosen(next, machine.ports);
  const change = chosen<() => Partial<typeof port>>(next, [
    () => ({ universe: chosen(next, records.universe).number }),
    () => ({ use: chosen(next, PORT_USES) }),
    () => ({ merge: chosen(next, PORT_MERGES) }),
    () => ({ protocol: port.protocol === 'sacn' ? 'artnet' : 'sacn' }),
  ])();
  return {
    sort: `plan: port ${Object.keys(change).join()}`,
    says: `${machine.name} port ${port.number} ${JSON.stringify(change)}`,
    may: [machine.id, ...along(records, port.universe), ...(change.universe ? along(records, change.universe) : [])],
    records: withOne(records, 'machine', machine.id, {
      ports: machine.ports.map((one) => (one === port ? { ...one, ...change } : one)),
    }),
  };
}

function wrongAddress(next: Random, records: ShowRecords): Wrong {
  const machine: Machine = chosen(
    next,
    records.machine.filter((one) => mainAddress(one) !== ''),
  );
  const address = `127.0.0.${between(next, 110, 140)}`;
  return {
    sort: 'plan: address',
    says: `${machine.name} ${address}`,
    may: [machine.id],
    records: withOne(
      records,
      'machine',
      machine.id,
      withMainAddress(machine, address, addressesOf(machine)[0]!.prefix),
    ),
  };
}

function wrongLine(next: Random, records: ShowRecords): Wrong {
  const machine: Machine = chosen(
    next,
    records.machine.filter(({ sends }) => (sends?.lines.length ?? 0) > 0),
  );
  const lines = machine.sends!.lines;
  const which = between(next, 0, lines.length - 1);
  const line = lines[which]!;
  const change = next() < 0.5 ? { from: between(next, 1, 38) } : { count: between(next, 1, 12) };
  const all = [line.from, change.from ?? line.from].flatMap((from) =>
    Array.from({ length: Math.max(line.count, change.count ?? 0) }, (_, i) => from + i),
  );
  return {
    sort: `plan: line ${Object.keys(change).join()}`,
    says: `${machine.name} line ${which + 1} ${JSON.stringify(change)}`,
    may: [machine.id, ...all.flatMap((number) => along(records, number))],
    records: withOne(records, 'machine', machine.id, {
      sends: { ...machine.sends!, lines: lines.map((one, i) => (i === which ? { ...one, ...change } : one)) },
    }),
  };
}

function wrongLamp(next: Random, records: ShowRecords): Wrong {
  const one: Lamp = chosen(next, records.lamp);
  const change =
    next() < 0.6 ? { channel: between(next, 1, 480) } : { universe: chosen(next, records.universe).number };
  return {
    sort: `plan: lamp ${Object.keys(change).join()}`,
    says: `lamp ${one.number} ${JSON.stringify(change)}`,
    may: [one.id],
    records: withOne(records, 'lamp', one.id, change),
  };
}

export function planWrong(next: Random, records: ShowRecords): Disturbance {
  const {
    sort,
    says,
    may,
    records: wrong,
  } = chosen(next, [wrongUniverse, wrongPort, wrongAddress, wrongLine, wrongLamp])(next, records);
  return {
    sort,
    says,
    isMeantBy: ({ about }) => may.includes(about.id),
    harmless: false,
    begin: async (ship) => {
      const before = ship.records();
      await ship.plan(wrong);
      return () => ship.plan(before);
    },
  };
}
