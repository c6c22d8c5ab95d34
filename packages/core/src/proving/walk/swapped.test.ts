/** Channels that do each other's work: what is a swap, what is none, and what is offered. */
import { nightFerry } from '../../whole/demo';
import { rigOf, type PatchedLamp } from '../../rig/patch';
import { PLAIN_MARK, type FixtureChannel, type FixtureMode, type Mark } from '../../show/records';
import { swapsOf } from '.';

const ferry = nightFerry();
const spot = rigOf(ferry)
  .patch.all()
  .find(({ lamp }) => lamp.number === 101)!;
const channel = (attribute: string, offsets: number[], over: Partial<FixtureChannel> = {}): FixtureChannel => ({
  ...{ attribute, offsets, default: 0, highlight: 255 },
  ...over,
});
const lampWith = (mode: FixtureMode, ...others: FixtureMode[]): PatchedLamp => ({
  ...spot,
  mode,
  type: { ...spot.type, maker: 'Tern', name: 'Spot', modes: [mode, ...others] },
  lamp: { ...spot.lamp, number: 7, name: 'Bow', mode: mode.name },
});
const mark = (over: Partial<Mark>): Mark => ({
  ...PLAIN_MARK,
  ...{ id: 'm', rev: 1, walkId: 'w', lampId: spot.lamp.id, result: 'failed', by: 'Mira', at: '1' },
  ...over,
});
const swapped = [mark({ channel: 1, did: 2 }), mark({ channel: 2, did: 1 })];
const mode: FixtureMode = {
  name: 'Wide',
  channels: [channel('ColorAdd_R', [1]), channel('ColorAdd_G', [2]), channel('Dimmer', [3])],
};
const found = (patched: PatchedLamp, marks = swapped, users = ferry.lamp.slice(0, 0)) => swapsOf(patched, marks, users);

test('two that did each other’s work are one swap, told once, with the type exchanged', () => {
  const [swap, ...more] = found(lampWith(mode));
  expect(more).toEqual([]);
  expect(swap).toMatchObject({
    lampId: spot.lamp.id,
    channels: [1, 2],
    sentence: 'Red and Green of 7 Bow are swapped.',
  });
  expect(swap!.repairs).toHaveLength(1);
  const [repair] = swap!.repairs;
  expect(repair!.sentence).toBe('Exchanged Red and Green in Tern Spot, Wide');
  expect(repair!.lines).toEqual([
    { subject: 'Tern Spot, Wide', before: 'Red before Green', after: 'Green before Red' },
  ]);
  const after = repair!.changes[0]!.after as PatchedLamp['type'];
  expect(after.modes[0]!.channels.map(({ attribute, offsets }) => [attribute, offsets])).toEqual([
    ['ColorAdd_R', [2]],
    ['ColorAdd_G', [1]],
    ['Dimmer', [3]],
  ]);
});

test('how many other lamps of the mode it is for is told; those of another mode, and the lamp itself, are not counted', () => {
  const patched = lampWith(mode);
  const user = (id: string, name = 'Wide') => ({ ...spot.lamp, id, mode: name });
  const after = (...users: ReturnType<typeof user>[]) => found(patched, swapped, users)[0]!.repairs[0]!.lines[0]!.after;
  expect(after(user(spot.lamp.id), user('b', 'Narrow'))).toBe('Green before Red');
  expect(after(user('b'))).toBe('Green before Red, for 1 other lamp too');
  expect(after(user('b'), user('c'))).toBe('Green before Red, for 2 other lamps too');
});

test.each<[string, Mark[]]>([
  ['one alone', [swapped[0]!]],
  [
    'one that did the other’s work while the other did a third’s',
    [mark({ channel: 1, did: 2 }), mark({ channel: 2, did: 3 })],
  ],
  ['one that was proved after all', [mark({ channel: 1, did: 2 }), mark({ channel: 2, did: 1, result: 'proved' })]],
  ['one that did nothing that is known', [mark({ channel: 1, did: 2 }), mark({ channel: 2, did: 0 })]],
  ['one that did its own', [mark({ channel: 1, did: 1 })]],
])('%s is no swap', (_, marks) => expect(found(lampWith(mode), marks)).toEqual([]));

test('two of different length, or in different blocks, are told and cannot be exchanged', () => {
  const wide: FixtureMode = { ...mode, channels: [channel('Pan', [1, 2]), channel('Tilt', [3])] };
  expect(found(lampWith(wide))).toEqual([
    { lampId: spot.lamp.id, channels: [1, 2], sentence: 'Pan and Tilt of 7 Bow are swapped.', repairs: [] },
  ]);
  const blocks: FixtureMode = { ...mode, channels: [channel('Pan', [1]), channel('Tilt', [1], { block: 2 })] };
  expect(found(lampWith(blocks))[0]!.repairs).toEqual([]);
  const same: FixtureMode = { ...mode, channels: [channel('Pan', [1], { block: 1 }), channel('Tilt', [2])] };
  expect(found(lampWith(same))[0]!.repairs).toHaveLength(1);
});

test('a mode in which they stand as was seen is offered first; one that only looks alike is not', () => {
  const seen: FixtureMode = {
    name: 'As seen',
    channels: [channel('ColorAdd_G', [1]), channel('ColorAdd_R', [2]), channel('Dimmer', [3])],
  };
  const other: FixtureMode = {
    name: 'Other',
    channels: [channel('ColorAdd_G', [1]), channel('ColorAdd_R', [2]), channel('Dimmer', [4])],
  };
  const cells: FixtureMode = { name: 'Cells', channels: seen.channels.map((one) => ({ ...one, cell: 2 })) };
  const { repairs } = found(lampWith(mode, other, seen, cells))[0]!;
  expect(repairs.map(({ sentence }) => sentence)).toEqual([
    'Put Bow into the mode As seen, in which Red and Green stand as was seen',
    'Exchanged Red and Green in Tern Spot, Wide',
  ]);
  expect(repairs[0]!.lines).toEqual([{ subject: '7 Bow', before: 'Wide', after: 'As seen' }]);
  expect(repairs[0]!.changes[0]).toMatchObject({ kind: 'lamp', id: spot.lamp.id, after: { mode: 'As seen' } });
});
