/** What each input of a route brings: moved, counted, by its latest change, or in another's stead; and how a route is told. */
import type { Route } from '../../show/records';
import { formatWire } from '../../base/address';
import { NOBODY } from '../merge';
import { OWN_NAME } from '../stream';
import { RouteMixer, findRouteLoop, routeText, setRange, type Incoming, type RouteInput, type RoutePart } from '.';
import { input, route, sacn } from './testing/routes';

const levels = (first: number, changed?: readonly number[], count = 512): Incoming => {
  const changedAt = changed ? new Float64Array(512) : null;
  changed?.forEach((at, slot) => (changedAt![slot] = at));
  return { values: new Uint8Array(512).fill(first), count, changedAt };
};
const two = (merge: Route['merge'], over: Partial<RouteInput> = {}) =>
  new RouteMixer(route({ merge, inputs: [input(1), input(2, over)] }));
const at = (mixer: RouteMixer, slot: number) => [mixer.values[slot], mixer.owners[slot]];
const part = (first: number, last: number, over: Partial<RoutePart> = {}): RoutePart => ({
  ...{ first, last, by: 'hand', level: 128, from: null },
  ...over,
});

test('an input that is moved has a say in the slots that it comes to, and no others', () => {
  const mixer = new RouteMixer(route({ inputs: [input(1, { shift: 10 })] }));
  mixer.mix([levels(50, undefined, 20)], [], null);
  expect([9, 10, 29, 30].map((slot) => at(mixer, slot))).toEqual([
    [0, 0],
    [50, 0],
    [50, 0],
    [0, NOBODY],
  ]);
  const down = new RouteMixer(route({ inputs: [input(1, { shift: -10 })] }));
  down.mix([levels(50, undefined, 20)], [], null);
  expect([0, 9, 10].map((slot) => at(down, slot))).toEqual([
    [50, 0],
    [50, 0],
    [0, NOBODY],
  ]);
  down.mix([levels(50, undefined, 5)], [], null);
  expect(at(down, 0)).toEqual([0, NOBODY]);
});

describe('by the latest change', () => {
  test('a lower level that came later wins, and by the highest level it does not', () => {
    const [old, late] = [levels(200, [1000]), levels(5, [2000])];
    const ltp = two('ltp');
    ltp.mix([old, late], [], null);
    expect(at(ltp, 0)).toEqual([5, 1]);
    const htp = two('htp');
    htp.mix([old, late], [], null);
    expect(at(htp, 0)).toEqual([200, 0]);
  });

  test('an input that is moved brings its changes along', () => {
    const mixer = two('ltp', { shift: 2 });
    // The second changed in its first slot, which comes to the third.
    mixer.mix([levels(200, [1000, 1000, 1000, 1000]), levels(5, [2000, 0, 0, 0])], [], null);
    expect([0, 2, 3].map((slot) => at(mixer, slot))).toEqual([
      [200, 0],
      [5, 1],
      [200, 0],
    ]);
  });
});

test('by priority the input’s own counts; otherwise all inputs are even', () => {
  const inputs = [input(1, { priority: 90 }), input(2, { priority: 110 })];
  const levelsNow = [levels(200), levels(5)];
  const byPriority = new RouteMixer(route({ merge: 'priority', inputs }));
  byPriority.mix(levelsNow, [], null);
  expect(at(byPriority, 0)).toEqual([5, 1]);
  const htp = new RouteMixer(route({ merge: 'htp', inputs }));
  htp.mix(levelsNow, [], null);
  expect(at(htp, 0)).toEqual([200, 0]);
});

test('an input that is not heard has no say', () => {
  const mixer = two('htp');
  mixer.mix([levels(200), levels(5)], [], null);
  mixer.mix([undefined, levels(5)], [], null);
  expect(at(mixer, 0)).toEqual([5, 1]);
  mixer.mix([undefined, undefined], [], null);
  expect(at(mixer, 0)).toEqual([0, NOBODY]);
});

test('a backup goes on until a person gives back to the first that is heard', () => {
  const mixer = new RouteMixer(route({ merge: 'backup', returns: 'by hand', inputs: [input(1), input(2)] }));
  mixer.mix([levels(1), levels(2)], [], null);
  expect(at(mixer, 0)).toEqual([1, 0]);
  mixer.mix([undefined, levels(2)], [], null);
  mixer.mix([levels(1), levels(2)], [], null);
  expect(at(mixer, 0)).toEqual([2, 1]);
  mixer.giveBack([undefined, levels(2)]);
  mixer.mix([levels(1), levels(2)], [], null);
  expect(at(mixer, 0)).toEqual([2, 1]);
  mixer.giveBack([levels(1), levels(2)]);
  mixer.mix([levels(1), levels(2)], [], null);
  expect(at(mixer, 0)).toEqual([1, 0]);
  mixer.mix([undefined, undefined], [], null);
  expect(at(mixer, 0)).toEqual([0, NOBODY]);
});

test('parts stand in the order of their slots, and those that a new one covers are cut', () => {
  const parts = setRange(setRange([part(10, 12)], part(1, 3)), part(3, 10, { level: 5 }));
  expect(parts.map(({ first, last, level }) => [first, last, level])).toEqual([
    [1, 2, 128],
    [3, 10, 5],
    [11, 12, 128],
  ]);
  expect(setRange([part(1, 3)], part(1, 3, { level: 9 }))).toEqual([part(1, 3, { level: 9 })]);
});

describe('a route in a sentence', () => {
  const says = (over: Partial<Route>) => routeText(route(over), formatWire);
  test.each<readonly [string, Partial<Route>]>([
    ['sACN 1 → sACN 9', {}],
    ['sACN 1 of Bridge desk moved by +3 → sACN 9', { inputs: [input(1, { sender: 'Bridge desk', shift: 3 })] }],
    ['sACN 1 moved by -3 → sACN 9', { inputs: [input(1, { shift: -3 })] }],
    ['sACN 1 and sACN 2, merged HTP → sACN 9', { inputs: [input(1), input(2)], merge: 'htp' }],
    ['sACN 1 and sACN 2, merged LTP → sACN 9', { inputs: [input(1), input(2)], merge: 'ltp' }],
    ['sACN 1 and sACN 2, merged by priority → sACN 9', { inputs: [input(1), input(2)], merge: 'priority' }],
    ['sACN 1, else sACN 2 → sACN 9', { inputs: [input(1), input(2)], merge: 'backup' }],
    [
      'sACN 1 → sACN 9; 7 held at 128, 8-9 from sACN 4, channel 2',
      { parts: [part(7, 7), part(8, 9, { by: 'input', from: { wire: sacn(4), channel: 2 } })] },
    ],
  ])('%s', (sentence, over) => expect(says(over)).toBe(sentence));
});

test('a loop is told from where it begins; ways that end are left, and our own name is a loop too', () => {
  const from = (number: number, to: number, over: Partial<RouteInput> = {}) =>
    route({ inputs: [input(number, over)], out: sacn(to) });
  // 8 leads into the loop and is no part of it; 2 leads to a dead end first.
  const routes = [from(7, 8), from(8, 1), from(1, 2), from(2, 50), from(2, 3), from(3, 1)];
  expect(findRouteLoop(routes)).toBe('sACN 1 → sACN 2 → sACN 3 → sACN 1');
  expect(findRouteLoop([from(5, 5, { sender: OWN_NAME })])).toBe('sACN 5 → sACN 5');
  expect(findRouteLoop([from(1, 2), from(1, 3), from(2, 4), from(3, 4)])).toBeUndefined();
  expect(findRouteLoop([{ ...from(1, 2), parts: [part(1, 2)] }])).toBeUndefined();
});
