/** What arrives beside the show: types kept apart, addresses that a file leaves out, fields that are left, and what is certain. */
import { nightFerry } from '../../whole/demo';
import { recordsAfter } from '../../show/edit';
import { LIBRARY } from '../../rig/library';
import { rigOf } from '../../rig/patch';
import type { FixtureType, Lamp, ShowRecords } from '../../show/records';
import { compareRig, type Incoming, type IncomingLamp, planImport, settleTypes } from '.';

const ferry = nightFerry();
const spot = ferry.type.find(({ name }) => name === 'Spot 16')!;
let ids = 0;
const newId = () => `made-${(ids += 1)}`;
const arriving = (lamp: Lamp, over: Partial<IncomingLamp> = {}): IncomingLamp => ({
  ...{ number: lamp.number, name: lamp.name, typeId: lamp.typeId, mode: lamp.mode },
  ...over,
});
const incomingOf = (lamps: readonly IncomingLamp[], types: readonly FixtureType[] = ferry.type): Incoming => ({
  ...{ types, lamps, notes: [], file: null },
});
function taken(records: ShowRecords, incoming: Incoming, leave: ReadonlySet<string> = new Set()): ShowRecords {
  const rig = rigOf(records);
  const rows = compareRig(rig, incoming).filter(({ state }) => state === 'added' || state === 'changed');
  return recordsAfter(records, planImport(rig, { incoming, rows, sentence: 'In', leave }, newId).changes);
}
const lampOf = (records: ShowRecords, number: number) => records.lamp.find((one) => one.number === number)!;

test('a type under the id of another one in the show is a type of its own, and its lamps are of it', () => {
  const other: FixtureType = { ...spot, name: 'Spot 17', modes: spot.modes.slice(0, 1) };
  const lamp = arriving(ferry.lamp[0]!, { number: 990, typeId: other.id, mode: other.modes[0]!.name });
  const after = taken(ferry, incomingOf([lamp], [other]));
  const its = after.type.find(({ id }) => id === lampOf(after, 990).typeId)!;
  expect([its.name, after.type.find(({ id }) => id === spot.id)]).toEqual(['Spot 17', spot]);
});

test('a block of which a file says nothing stays where it is', () => {
  const wall = LIBRARY.find(({ name }) => name === 'Hull Panel')!;
  const mode = 'Control and 16 pixels apart';
  const lamp: Lamp = {
    ...ferry.lamp[0]!,
    ...{ typeId: wall.id, mode, universe: 60, channel: 1, blocks: [{ universe: 61, channel: 200 }] },
  };
  const show = { ...ferry, type: [...ferry.type.filter(({ id }) => id !== wall.id), wall], lamp: [lamp] };
  const said = arriving(lamp, { name: 'Bell', addresses: [{ universe: 60, channel: 5 }] });
  const after = taken(show, incomingOf([said], show.type));
  expect(after.lamp[0]).toMatchObject({ name: 'Bell', channel: 5, blocks: [{ universe: 61, channel: 200 }] });
});

test('fields that are left stay as they are, a mode with its type', () => {
  const [lantern] = ferry.type;
  const one = lampOf(ferry, 101);
  const said = arriving(one, {
    ...{ name: 'Bell', typeId: lantern!.id, mode: lantern!.modes[0]!.name, place: 'Elsewhere', unit: '7', x: 9 },
    addresses: [{ universe: 60, channel: 1 }],
  });
  const after = taken(ferry, incomingOf([said]), new Set(['type', 'place', 'unit number', 'x', 'address']));
  expect(lampOf(after, 101)).toEqual({ ...one, name: 'Bell', rev: expect.any(Number) as number });
  expect(after.place).toEqual(ferry.place);
});

test('a type that is certain by its name and modes is told; one that is only named alike waits', () => {
  const named = (name: string, mode: string): FixtureType => ({
    ...{ ...spot, id: `lost ${name}`, maker: 'Baleen', name, unknown: true },
    modes: [{ name: mode, channels: [] }],
  });
  const [sure, alike] = [named('spot 16', 'BASIC'), named('Spot', 'Basic')];
  const lamps = [sure, alike].map((type, i) =>
    arriving(ferry.lamp[i]!, { typeId: type.id, mode: type.modes[0]!.name }),
  );
  const { incoming, unknown } = settleTypes(incomingOf(lamps, [sure, alike]), ferry.type, {});
  expect(incoming.lamps.map(({ typeId, mode }) => [typeId, mode])).toEqual([
    [spot.id, 'Basic'],
    [alike.id, 'Basic'],
  ]);
  expect(incoming.notes).toEqual([
    '“Baleen spot 16” is taken to be the one that is here, which has its name and modes.',
  ]);
  expect(unknown).toMatchObject([{ name: 'Baleen Spot', lamps: 1, settled: false, typeId: '' }]);
  expect(unknown[0]!.like).toContain(spot.id);
});

test('a lamp that was renamed and renumbered, of one type at one address, is one row', () => {
  const { lamp: lamps } = ferry;
  const old = lamps[5]!;
  const incoming = lamps.map((lamp) =>
    arriving(lamp, {
      ...(lamp === old && { name: 'Renamed', number: 9001 }),
      addresses: [{ universe: lamp.universe, channel: lamp.channel }],
    }),
  );
  const rows = compareRig(rigOf(ferry), incomingOf(incoming)).filter(({ state }) => state !== 'same');
  expect(rows.map(({ state, fields }) => [state, fields.map(({ field }) => field)])).toEqual([
    ['changed', ['number', 'name']],
  ]);
});
