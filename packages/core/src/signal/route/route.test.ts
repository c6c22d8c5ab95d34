import fc from 'fast-check';
import { nightFerry } from '../../whole/demo';
import { NOBODY } from '../merge';
import { rigOf } from '../../rig/patch';
import type { Control, Route } from '../../show/records';
import {
  BY_HAND,
  BY_PART,
  giveBackRange,
  type Incoming,
  partText,
  RouteMixer,
  type RoutePart,
  routeText,
  setRange,
  shift,
} from '.';
import { input, route, sacn } from './testing/routes';
import { planManyRoutes, reachOf, scalesOf } from '../../network/flow';

const incoming = (levels: Record<number, number>, count = 512): Incoming => {
  const values = new Uint8Array(512);
  for (const [slot, level] of Object.entries(levels)) values[Number(slot)] = level;
  return { values, count, changedAt: null };
};
const hand = (first: number, last: number, level: number): RoutePart => ({
  first,
  last,
  by: 'hand',
  level,
  from: null,
});
const from = (first: number, last: number, universe: number, channel: number): RoutePart => ({
  first,
  last,
  by: 'input',
  level: 0,
  from: { wire: sacn(universe), channel },
});

test('shifting and back is identity for what stays within 1–512', () =>
  fc.assert(
    fc.property(
      fc.uint8Array({ minLength: 512, maxLength: 512 }),
      fc.integer({ min: -511, max: 511 }),
      (levels, by) => {
        const there = new Uint8Array(512);
        const back = new Uint8Array(512);
        shift(Uint8Array.from(levels), by, there);
        shift(there, -by, back);
        for (let slot = 0; slot < 512; slot += 1)
          expect(back[slot]).toBe(slot + by >= 0 && slot + by < 512 ? levels[slot] : 0);
      },
    ),
    { numRuns: 40 },
  ));

test('one slot field has three owners at once: through, by hand, from another input', () => {
  const mixer = new RouteMixer(route({ parts: [hand(3, 4, 77), from(5, 6, 41, 10)] }));
  mixer.mix([incoming({ 0: 11, 2: 33, 4: 55 })], [undefined, incoming({ 9: 90, 10: 91 })], null);
  expect([...mixer.values.subarray(0, 6)]).toEqual([11, 0, 77, 77, 90, 91]);
  expect([...mixer.owners.subarray(0, 7)]).toEqual([0, 0, BY_HAND, BY_HAND, BY_PART + 1, BY_PART + 1, 0]);
});

test('a part whose input is not heard is dark and owned by nobody', () => {
  const mixer = new RouteMixer(route({ parts: [from(1, 2, 41, 1)] }));
  mixer.mix([incoming({ 0: 200, 1: 200, 2: 200 })], [undefined], null);
  expect([...mixer.values.subarray(0, 3)]).toEqual([0, 0, 200]);
  expect(mixer.owners[0]).toBe(NOBODY);
});

test('several inputs, each moved, are merged by level', () => {
  const mixer = new RouteMixer(route({ inputs: [input(1), input(2, { shift: 10 })] }));
  mixer.mix([incoming({ 0: 50, 10: 50 }), incoming({ 0: 60 })], [], null);
  expect([mixer.values[0], mixer.values[10]]).toEqual([50, 60]);
  expect([mixer.owners[0], mixer.owners[10]]).toEqual([0, 1]);
});

test('by priority the higher input has the slots that it sends', () => {
  const inputs = [input(1), input(2, { priority: 120 })];
  const mixer = new RouteMixer(route({ inputs, merge: 'priority' }));
  mixer.mix([incoming({ 0: 255, 30: 9 }), incoming({ 0: 1 }, 24)], [], null);
  expect([mixer.values[0], mixer.values[30]]).toEqual([1, 9]);
});

test('a backup lets one through at a time', () => {
  const mixer = new RouteMixer(route({ inputs: [input(1), input(2)], merge: 'backup', returns: 'by hand' }));
  const both = [incoming({ 0: 10 }), incoming({ 0: 200 })];
  mixer.mix(both, [], null);
  expect(mixer.values[0]).toBe(10);
  mixer.mix([undefined, both[1]], [], null);
  expect(mixer.values[0]).toBe(200);
  mixer.mix(both, [], null);
  expect(mixer.values[0]).toBe(200);
  mixer.giveBack(both);
  mixer.mix(both, [], null);
  expect(mixer.values[0]).toBe(10);
});

test('masters scale what passes through, and not what is held by hand', () => {
  const one = route({ master: 128, parts: [hand(2, 2, 200)] });
  const reach = [{ controlId: 'c', routeId: 'r', slots: [2] }];
  const mixer = new RouteMixer(one);
  mixer.mix([incoming({ 0: 200, 2: 200 })], [undefined], scalesOf(one, reach, new Map([['c', 0.5]])));
  expect([...mixer.values.subarray(0, 3)]).toEqual([100, 200, 50]);
  expect(scalesOf(route(), reach, new Map([['c', 1]]))).toBeNull();
});

test('a control reaches its route, all routes into its universe, or the intensities of its group in them', () => {
  const ferry = nightFerry();
  const { patch } = rigOf(ferry);
  const group = ferry.lamp.find(({ groups, universe }) => groups.length > 0 && universe === 1)!.groups[0]!;
  const routes = [route({ out: sacn(1) }), route({ id: 'other', out: sacn(500) })];
  const reach = (target: Control['target']) =>
    reachOf(
      {
        ...ferry,
        route: routes,
        control: [{ id: 'c', rev: 1, name: '', wire: sacn(41), channel: 1, does: 'master', threshold: 1, target }],
      },
      patch,
    );
  expect(reach({ kind: 'route', id: 'other' })).toEqual([{ controlId: 'c', routeId: 'other', slots: null }]);
  expect(reach({ kind: 'universe', number: 1 })).toEqual([{ controlId: 'c', routeId: 'r', slots: null }]);
  const [found, ...more] = reach({ kind: 'group', name: group });
  expect(more).toEqual([]);
  expect(found!.routeId).toBe('r');
  for (const slot of found!.slots!)
    expect(patch.at({ universe: 1, channel: slot + 1 }).map(({ channel }) => channel?.attribute)).toContain('Dimmer');
  expect(reach({ kind: 'group', name: 'nobody’s' })).toEqual([]);
});

describe('ranges set and given back', () => {
  const parts = [hand(1, 100, 50), from(200, 299, 41, 1)];
  test('what reaches over is cut, and what comes from an input goes on from its own channel', () => {
    expect(giveBackRange(parts, 90, 249)).toEqual([hand(1, 89, 50), from(250, 299, 41, 51)]);
    expect(giveBackRange(parts, 40, 60)).toEqual([hand(1, 39, 50), hand(61, 100, 50), parts[1]]);
    expect(giveBackRange(parts, 1, 512)).toEqual([]);
  });
  test('no slot ever lies in two parts', () =>
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 1, max: 512 }), fc.nat(60), fc.boolean()), { maxLength: 30 }),
        (asked) => {
          let set: RoutePart[] = [];
          for (const [first, length, byHand] of asked) {
            const last = Math.min(512, first + length);
            set = byHand ? setRange(set, hand(first, last, 1)) : giveBackRange(set, first, last);
            const slots = set.flatMap((part) =>
              Array.from({ length: part.last - part.first + 1 }, (_, i) => part.first + i),
            );
            expect(new Set(slots).size).toBe(slots.length);
            const within = slots.filter((slot) => slot >= first && slot <= last);
            expect(within.length).toBe(byHand ? last - first + 1 : 0);
          }
        },
      ),
    ));
});

test('a route says what it does', () => {
  const text = (wire: { number: number }) => `sACN ${wire.number}`;
  expect(
    routeText(route({ inputs: [input(1), input(2, { sender: 'Desk', shift: 5 })], parts: [hand(1, 2, 9)] }), text),
  ).toBe('sACN 1 and sACN 2 of Desk moved by +5, merged HTP → sACN 9; 1-2 held at 9');
  expect(partText(from(3, 3, 41, 7), text)).toBe('3 from sACN 41, channel 7');
});

describe('many routes in one act', () => {
  const ferry = nightFerry();
  const plan = (universes: number[], number: number, routes: Route[] = []) =>
    planManyRoutes({ ...ferry, route: routes }, { universes, to: sacn(number), over: {} }, () => `id ${Math.random()}`);

  test('each universe goes to the next number, whatever its own protocol', () => {
    const made = plan([9, 10, 1], 201);
    expect(made.ok && made.value.changes.map(({ after }) => after)).toMatchObject([
      { inputs: [{ wire: { protocol: 'artnet', number: 8 } }], out: sacn(201) },
      { inputs: [{ wire: { protocol: 'artnet', number: 9 } }], out: sacn(202) },
      { inputs: [{ wire: sacn(1) }], out: sacn(203) },
    ]);
  });

  test.each([
    [[], 1, [], /at least one/],
    [[500], 1, [], /not in the show/],
    [[1, 2], 63_999, [], /beyond what the protocol/],
    [[1], 9, [route()], /The route Over sends sACN 9 already/],
    [[1, 2], 1, [], /would feed themselves: sACN 1 → sACN 1/],
  ])('%j to sACN %i is refused', (universes, to, routes, why) =>
    expect(plan(universes, to, routes)).toMatchObject({ ok: false, why: expect.stringMatching(why) as string }),
  );
});
