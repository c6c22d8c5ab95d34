/** What may never stand in a show, whatever edit would bring it about. */
import { nightFerry } from '../../whole/demo';
import { MODELS } from '../../rig/library';
import { type Change, refuseChanges, type ShowMaps } from '.';
import {
  type AnyRecord,
  type Kind,
  KINDS,
  type Machine,
  PLAIN_INPUT,
  PLAIN_MACHINE,
  PLAIN_ROUTE,
  type Route,
} from '../records';

const ferry = nightFerry();
const maps = Object.fromEntries(
  KINDS.map((kind) => [kind, new Map((ferry[kind] as readonly AnyRecord[]).map((one) => [one.id, one]))]),
) as unknown as ShowMaps;

const put = (kind: Kind, after: AnyRecord): Change => ({ kind, id: after.id, before: null, after });
const gone = (kind: Kind, id: string): Change => ({ kind, id, before: null, after: null });
const refused = (...changes: Change[]) => refuseChanges(maps, changes);

const [lamp] = ferry.lamp;
const typeOfLamp = ferry.type.find(({ id }) => id === lamp!.typeId)!;
const sender = ferry.machine.find(({ id }) => id === ferry.link[0]!.senderId)!;
const driven = ferry.run.find(({ machineId }) => machineId !== null)!;
const machine = (over: Partial<Machine>): Machine => ({
  ...PLAIN_MACHINE,
  id: 'm-new',
  rev: 0,
  name: 'Spare box',
  kind: 'node',
  ...over,
});
const route = (id: string, from: number, out: number): Route => ({
  ...PLAIN_ROUTE,
  id,
  rev: 0,
  name: id,
  order: 0,
  inputs: [{ ...PLAIN_INPUT, wire: { protocol: 'sacn', number: from } }],
  out: { protocol: 'sacn', number: out },
});
const control = { id: 'c', rev: 0, name: '9/1', wire: { protocol: 'sacn' as const, number: 9 }, channel: 1 };

test('the demo show stands, and so does an edit that changes nothing', () => {
  expect(refused()).toBeUndefined();
  for (const kind of KINDS)
    expect(refused(...(ferry[kind] as readonly AnyRecord[]).map((one) => put(kind, one)))).toBeUndefined();
});

test('nothing is written while it is asked: the maps stay as they were', () => {
  const before = new Map(maps.universe);
  refused(put('universe', { ...ferry.universe[0]!, number: 2 }), gone('universe', ferry.universe[1]!.id));
  expect(maps.universe).toEqual(before);
});

describe('what others stand on cannot go', () => {
  test.each<[string, Change, RegExp]>([
    ['a type', gone('type', typeOfLamp.id), /^Lamp \d+ needs its fixture type/],
    ['a place with lamps', gone('place', lamp!.placeId!), /stands in a place that is not in the show\.$/],
    [
      'a model',
      gone('model', ferry.machine.find(({ modelId }) => modelId !== null)!.modelId!),
      /^The model of .+ cannot be removed/,
    ],
    [
      'a controller with runs',
      gone('machine', driven.machineId!),
      /^The controller that drives run \d+ .+ cannot be removed/,
    ],
    ['a linked sender', gone('machine', ferry.link[0]!.senderId), /^The link .+ needs its sender/],
    [
      'what a linked sender sends',
      put('machine', { ...sender, sends: null }),
      /^The link .+ needs its sender, and what it sends/,
    ],
    ['a linked visualiser', gone('machine', ferry.link[0]!.visualiserId), /^The link .+ needs its visualiser/],
  ])('%s', (_, change, why) => expect(refused(change)).toMatch(why));

  test('together with what stands on it, it can', () => {
    const links = ferry.link.filter(({ senderId }) => senderId === ferry.link[0]!.senderId);
    expect(
      refused(gone('machine', ferry.link[0]!.senderId), ...links.map(({ id }) => gone('link', id))),
    ).toBeUndefined();
  });
});

describe('what points to nothing is refused', () => {
  test.each<[string, Change, string]>([
    [
      'a lamp in a mode that its type lacks',
      put('lamp', { ...lamp!, mode: 'Nonesuch' }),
      `${typeOfLamp.maker} ${typeOfLamp.name} has no mode “Nonesuch”, which lamp ${lamp!.number} uses.`,
    ],
    [
      'a lamp in no place',
      put('lamp', { ...lamp!, placeId: 'nowhere' }),
      `Lamp ${lamp!.number} stands in a place that is not in the show.`,
    ],
    [
      'a machine in no place',
      put('machine', machine({ placeId: 'nowhere' })),
      'Spare box stands in a place that is not in the show.',
    ],
    [
      'a machine of a model that did not come along',
      put('machine', machine({ modelId: 'model-of-nobody' })),
      'The model of Spare box cannot be removed or be missing.',
    ],
    [
      'a run in no place',
      put('run', { ...driven, placeId: 'nowhere' }),
      `Run ${driven.number} stands in a place that is not in the show.`,
    ],
    [
      'a control of a route that is not there',
      put('control', { ...control, does: 'switch', threshold: 128, target: { kind: 'route', id: 'none' } }),
      'The control 9/1 needs its route: take the control out first.',
    ],
  ])('%s', (_, change, why) => expect(refused(change)).toBe(why));

  test('a machine and the model that it brings may come in one edit, in either order', () => {
    const model = { ...MODELS[0]!, id: 'model-brought' };
    const both = [put('machine', machine({ modelId: model.id })), put('model', model)];
    expect(refused(...both)).toBeUndefined();
    expect(refused(...both.reverse())).toBeUndefined();
  });
});

describe('what there can be only one of', () => {
  test('one show', () =>
    expect(refused(put('show', { ...ferry.show[0]!, id: 'other' }))).toBe(
      'There is one show in a show file; this would make two.',
    ));

  test('a number of a universe, and its place on the wire', () => {
    const [first, second] = ferry.universe;
    expect(refused(put('universe', { ...first!, id: 'again', wire: 900 }))).toBe(
      `Universe ${first!.number} is in the show already.`,
    );
    expect(refused(put('universe', { ...second!, wire: first!.wire, protocol: first!.protocol }))).toBe(
      `Universes ${first!.number} and ${second!.number} would both travel as the same wire universe.`,
    );
    expect(
      refused(put('universe', { ...first!, number: second!.number, wire: 901 }), gone('universe', second!.id)),
    ).toBeUndefined();
  });

  test('a route to each universe, and none that feeds itself', () => {
    expect(refused(put('route', route('r1', 700, 710)))).toBeUndefined();
    expect(refused(put('route', route('r1', 700, 710)), put('route', route('r2', 701, 710)))).toMatch(
      /^The routes r1 and r2 would both send .+: make one route of them/,
    );
    expect(refused(put('route', route('r1', 700, 710)), put('route', route('r2', 710, 700)))).toMatch(
      /^These routes would feed themselves: /,
    );
  });
});

describe('what stays as long as something needs it', () => {
  const withRecords = (more: Partial<Record<Kind, readonly AnyRecord[]>>, ...changes: Change[]) =>
    refuseChanges(
      {
        ...maps,
        ...Object.fromEntries(
          Object.entries(more).map(([kind, all]) => [
            kind,
            new Map([...maps[kind as Kind], ...all.map((one) => [one.id, one] as const)]),
          ]),
        ),
      },
      changes,
    );

  test('half an address is none, in a block as well', () => {
    const half = `Lamp ${lamp!.number} has half an address: universe and channel belong together, and 0/0 is none.`;
    expect(refused(put('lamp', { ...lamp!, universe: 0 }))).toBe(half);
    expect(refused(put('lamp', { ...lamp!, channel: 0 }))).toBe(half);
    expect(refused(put('lamp', { ...lamp!, blocks: [{ universe: 4, channel: 0 }] }))).toBe(half);
    expect(refused(put('lamp', { ...lamp!, universe: 0, channel: 0 }))).toBeUndefined();
  });

  test('a route that an adapter sends; what an adapter names must be there', () => {
    const adapter = (routeId: string | null) => machine({ kind: 'USB adapter', line: { at: '', slots: 512, routeId } });
    const why = 'The adapter Spare box sends what a route makes: give it something else to send first.';
    expect(refused(put('machine', adapter('nowhere')))).toBe(why);
    expect(refused(put('machine', adapter(null)))).toBeUndefined();
    const there = { route: [route('r1', 700, 710)], machine: [adapter('r1')] };
    expect(withRecords(there, gone('route', 'r1'))).toBe(why);
    expect(withRecords(there, put('route', route('r1', 701, 710)))).toBeUndefined();
  });

  test('a route that a control moves; a control of something else needs none', () => {
    const moves = { ...control, does: 'switch' as const, threshold: 128, target: { kind: 'route' as const, id: 'r1' } };
    expect(withRecords({ route: [route('r1', 700, 710)], control: [moves as AnyRecord] }, gone('route', 'r1'))).toBe(
      'The control 9/1 needs its route: take the control out first.',
    );
    expect(
      refused(put('control', { ...moves, target: { kind: 'picture', id: '' } } as unknown as AnyRecord)),
    ).toBeUndefined();
  });

  test('a walk in which something was marked', () => {
    const walk = { id: 'w', rev: 1, name: 'Walk' } as unknown as AnyRecord;
    const mark = { id: 'm', rev: 1, walkId: 'w' } as unknown as AnyRecord;
    const why = 'A walk in which something was marked stays: its marks stand in it.';
    expect(withRecords({ walk: [walk], mark: [mark] }, gone('walk', 'w'))).toBe(why);
    expect(refused(put('mark', mark))).toBe(why);
    expect(withRecords({ walk: [walk] }, gone('walk', 'w'))).toBeUndefined();
    expect(withRecords({ walk: [walk], mark: [mark] }, gone('walk', 'w'), gone('mark', 'm'))).toBeUndefined();
  });

  test('a record of proof that is signed, unless another show takes the place of all', () => {
    const proof = { id: 'p', rev: 1 } as unknown as AnyRecord;
    const why = 'A signed record of proof cannot be changed. Sign a later one, which says what differs.';
    expect(withRecords({ proof: [proof] }, gone('proof', 'p'))).toBe(why);
    expect(withRecords({ proof: [proof] }, put('proof', proof))).toBe(why);
    expect(refused(put('proof', proof))).toBeUndefined();
    expect(withRecords({ proof: [proof] }, put('place', ferry.place[0]!))).toBeUndefined();
    expect(withRecords({ proof: [proof] }, put('show', ferry.show[0]!), gone('proof', 'p'))).toBeUndefined();
  });
});
