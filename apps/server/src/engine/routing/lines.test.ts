/** Routes as the plan changes under them: what goes on, what ends where it went, and when nothing is sent. */
import { decodeSacn, type SacnData } from '@taxiarch/core/protocol/sacn';
import { type Route, PLAIN_INPUT, PLAIN_ROUTE } from '@taxiarch/core/show/records';
import { SharedLevels } from '../../bridge/shared';
import { Router } from './router';

const CID = new Uint8Array(16).fill(4);
const byHand = { first: 1, last: 1, by: 'hand' as const, level: 9, from: null };

function begin(hot = true) {
  const sent: SacnData[] = [];
  const router = new Router(CID, new SharedLevels(), {
    sacn: (bytes, universe) => {
      const read = decodeSacn(bytes);
      if (!read.ok || read.value.kind !== 'data') throw new Error('no data');
      expect(read.value.universe).toBe(universe);
      sent.push({ ...read.value, slots: read.value.slots.slice() });
    },
    artnet: () => undefined,
    artnetListeners: () => [],
    broadcastAddress: () => undefined,
    universe: () => undefined,
    timeoutOf: () => 2500,
    isHot: () => hot,
  });
  let rev = 0;
  const plan = (...routes: Partial<Route>[]) =>
    router.setPlan({
      routes: routes.map((over): Route => ({
        ...PLAIN_ROUTE,
        ...{ id: 'a', rev: (rev += 1), name: 'a', order: 0, out: { protocol: 'sacn', number: 11 }, parts: [byHand] },
        ...{ inputs: [1, 2].map((number) => ({ ...PLAIN_INPUT, wire: { protocol: 'sacn' as const, number } })) },
        ...over,
      })),
      ...{ controls: [], reach: [] },
    });
  /** What leaves at a time: universe, whether it ends the stream, the first level. */
  const at = (now: number) => {
    sent.length = 0;
    router.tick(now);
    return said();
  };
  const said = () => sent.splice(0).map(({ universe, terminated, slots }) => [universe, terminated, slots[0]]);
  return { router, sent, plan, at, said };
}
const ended = (universe: number) => Array.from({ length: 3 }, () => [universe, true, 0]);

test('a route that is moved ends where it went, and goes on where it goes now', () => {
  const { router, plan, at, said } = begin();
  plan({});
  router.run(['a'], true, 'Mara', 1);
  expect(at(1000)).toEqual([[11, false, 9]]);
  plan({ out: { protocol: 'sacn', number: 12 } });
  expect(said()).toEqual(ended(11));
  expect(at(1100)).toEqual([[12, false, 9]]);
  expect(router.sacnUniverses).toContain(12);
  expect(router.sacnUniverses).not.toContain(11);
});

test('one that is changed but not moved goes on without an end, numbered on, by the same person', () => {
  const { router, sent, plan } = begin();
  plan({});
  router.run(['a'], true, 'Mara', 1);
  router.tick(1000);
  plan({ parts: [{ ...byHand, level: 77 }], priority: 120 });
  router.tick(1100);
  expect(sent.map(({ sequence, terminated, priority, slots }) => [sequence, terminated, priority, slots[0]])).toEqual([
    [1, false, PLAIN_ROUTE.priority, 9],
    [2, false, 120, 77],
  ]);
});

test('one that is moved or taken out while it does not run ends nothing', () => {
  const { router, plan, said } = begin();
  plan({});
  plan({ out: { protocol: 'sacn', number: 12 } });
  plan();
  expect(said()).toEqual([]);
  expect(router.run(['a'], true, 'Mara', 1)).toBe('This route is not in the show.');
});

test('one that is taken out ends, and so do all when it is safe again', () => {
  const { router, plan, at, said } = begin();
  plan({}, { id: 'b', out: { protocol: 'sacn', number: 13 } });
  router.run(['a', 'b'], true, 'Mara', 1);
  expect(at(1000)).toEqual([
    [11, false, 9],
    [13, false, 9],
  ]);
  plan({});
  expect(said()).toEqual(ended(13));
  router.stopAll();
  expect(said()).toEqual(ended(11));
  expect(at(5000)).toEqual([]);
});

test('switched off it ends once; switched off again it says nothing', () => {
  const { router, plan, at, said } = begin();
  plan({});
  router.run(['a'], true, 'Mara', 1);
  at(1000);
  router.run(['a'], false, 'Mara', 2);
  router.run(['a'], false, 'Mara', 3);
  expect(said()).toEqual(ended(11));
  router.stopAll();
  plan({ out: { protocol: 'sacn', number: 12 } });
  plan();
  expect(said()).toEqual([]);
});

test('when all its inputs are silent and nothing is held by hand it ends once, and waits', () => {
  const { router, plan, at, said } = begin();
  plan({});
  router.run(['a'], true, 'Mara', 1);
  at(1000);
  plan({ parts: [] });
  expect(at(2000)).toEqual(ended(11));
  expect([at(3000), at(4000)]).toEqual([[], []]);
  plan({});
  expect(at(5000)).toEqual([[11, false, 9]]);
  expect(said()).toEqual([]);
});

test('what does not change is sent again every 900 ms, and not before', () => {
  const { router, plan, at } = begin();
  plan({});
  router.run(['a'], true, 'Mara', 1);
  expect([at(1000).length, at(1899).length, at(1900).length, at(2000).length]).toEqual([1, 0, 1, 0]);
});

test('safe, none is switched on', () => {
  const { router, plan, at } = begin(false);
  plan({});
  expect(router.run(['a'], true, 'Mara', 1)).toBe('Taxiarch is safe and sends nothing. Make it hot first.');
  expect(at(1000)).toEqual([]);
});
