/** Who is who: what a match rests on, and what is no match at all. */
import { nightFerry } from '../../whole/demo';
import { rigOf } from '../../rig/patch';
import { pair } from './match';
import type { RollNow, RollPort, SeenLamp } from './seen';
import { rollOf } from './roll';

const records = nightFerry();
const { patch } = rigOf(records);
const lampOf = (number: number) => patch.all().find(({ lamp }) => lamp.number === number)!;

/** As it would answer if it were as planned. */
function answering(number: number, over: Partial<SeenLamp> = {}): SeenLamp {
  const { lamp, type, mode, footprint } = lampOf(number);
  return {
    ...{ uid: `7ff1:${String(number).padStart(8, '0')}`, address: '127.0.0.29', portAddress: 0, says: 'all' },
    ...{ startAddress: lamp.channel, slots: footprint, mode: 1, modes: [{ name: mode.name, slots: footprint }] },
    ...{ label: '', maker: type.maker, model: type.name, firmware: '', sensors: [], hours: null, lightHours: null },
    ...{ strikes: null, switchedOn: null, errors: [], parameters: [], at: 1 },
    ...over,
  };
}

test('one whose UID is another lamp’s is nobody else, wherever it stands', () => {
  const seen = answering(102, { uid: '7ff1:00000009' });
  const other = { ...lampOf(101), lamp: { ...lampOf(101).lamp, uid: '7ff1:00000009' } };
  const whoIs = (lamps: Parameters<typeof pair>[0], all = [seen]) =>
    [...pair(lamps, all, () => true).matches].map(([patched, { confidence }]) => [patched.lamp.number, confidence]);
  expect(whoIs([lampOf(102)])).toEqual([[102, 'sure']]);
  expect(whoIs([other, lampOf(102)])).toEqual([[101, 'known']]);
  // Two with one UID, on two ports: the second is not taken for the lamp at whose address it stands.
  expect(whoIs([other, lampOf(102)], [seen, { ...seen, portAddress: 5 }])).toEqual([[101, 'known']]);
});

describe('a universe that two ports carry', () => {
  const ports = records.machine
    .filter(({ kind }) => kind === 'node')
    .flatMap((machine) => machine.ports.map((port) => ({ machine, port })));
  const [one, two] = ports.slice(0, 2) as [(typeof ports)[number], (typeof ports)[number]];
  const rollPort = ({ machine, port }: typeof one, portAddress: number): RollPort => ({
    ...{ machineId: machine.id, name: machine.name, number: port.number, address: machine.id, portAddress },
    ...{ state: 'asked', found: 0, asked: 0, lost: 0, used: 0, at: 1 },
  });
  /** Lamps of universe 1, all on two ports that carry it; so many answer on each, and one does not. */
  const state = (onOne: number, onTwo: number) => {
    const shared = {
      ...records,
      machine: records.machine.map((machine) => ({
        ...machine,
        ports: machine.ports.map((port) =>
          [one, two].some((its) => its.machine.id === machine.id && its.port.number === port.number)
            ? { ...port, use: 'out' as const, protocol: 'sacn' as const, universe: 1 }
            : { ...port, use: 'off' as const },
        ),
      })),
    };
    const some = patch.all().filter(({ lamp, type }) => lamp.universe === 1 && type.answers === 'yes');
    const place = some[0]!.lamp.placeId;
    const all = some.filter(({ lamp }) => lamp.placeId === place).slice(0, onOne + onTwo + 1);
    const [silent, ...answered] = all.map(({ lamp }) => lamp.number);
    const at = (i: number) => (i < onOne ? rollPort(one, 1) : rollPort(two, 2));
    const seen = answered.map((number, i) =>
      answering(number, { address: at(i).address, portAddress: at(i).portAddress }),
    );
    const now = {
      progress: {
        running: false,
        done: 0,
        more: 0,
        of: 0,
        ports: 2,
        ofPorts: 2,
        began: 1,
        ended: 2,
        cancelled: false,
        why: '',
      },
      ...{ seen, ports: [rollPort(one, 1), rollPort(two, 2)], leftAlone: [] },
    } as RollNow;
    return rollOf(shared, patch, now).rows.find(({ number }) => number === silent)!;
  };

  test('where three times as many neighbours answer on one port, the silent one is looked for there', () => {
    expect(state(3, 1)).toMatchObject({ state: 'missing', port: expect.stringContaining(`port ${one.port.number}`) });
  });

  test('where less than that do, both are named', () => {
    expect(state(2, 1).port).toBe('');
  });
});
