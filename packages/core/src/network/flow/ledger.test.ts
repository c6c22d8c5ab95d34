import type { StreamReport } from '../../signal/stream';
import { nightFerry } from '../../whole/demo';
import { matchMachines } from '../node';
import { rigOf } from '../../rig/patch';
import { PLAIN_INPUT, PLAIN_ROUTE, type Route } from '../../show/records';
import { alike, filterLedger, flowGraph, ledger, mergeText, reachesPort, type FlowHeard } from '.';

const ferry = nightFerry();
const { patch } = rigOf(ferry);
const entries = matchMachines(ferry, []);
const bridge = { name: 'Bridge desk', address: '127.0.0.21', own: false, lost: false } as StreamReport;
const route: Route = {
  ...PLAIN_ROUTE,
  id: 'over',
  rev: 1,
  name: 'Over',
  order: 1,
  inputs: [{ ...PLAIN_INPUT, wire: { protocol: 'sacn', number: 1 } }],
  out: { protocol: 'artnet', number: 12 },
};
const live = {
  universes: [{ key: 1, state: 'steady', streams: [bridge] }],
  routes: [{ id: 'over', running: true }],
} as unknown as FlowHeard;
const rows = ledger({ ...ferry, route: [route] }, patch, live, entries);
const row = (number: number) => rows.find(({ universe }) => universe.number === number)!;

test('a row for every universe of the show, with who carries it and whom it feeds', () => {
  expect(rows.map(({ universe }) => universe.number)).toEqual(
    ferry.universe.map(({ number }) => number).sort((a, b) => a - b),
  );
  const { senders, outlets, lamps, report, takenBy } = row(1);
  expect(senders.map(({ name, heard }) => [name, heard])).toEqual([['Bridge desk', true]]);
  expect(outlets).toHaveLength(2);
  expect(lamps).toBe(ferry.lamp.filter(({ universe }) => universe === 1).length);
  expect(report?.state).toBe('steady');
  expect(takenBy).toMatchObject([{ route: { name: 'Over' }, running: true }]);
  expect(row(13).madeBy).toMatchObject([{ route: { name: 'Over' } }]);
  expect(reachesPort(row(1))).toBe(false);
});

test('how it is merged is said of the universe and of ports that do otherwise', () => {
  expect(mergeText(row(9))).toBe('HTP');
  expect(mergeText(row(1))).toBe('HTP, at ports not merged');
});

describe('senders of one universe are compared', () => {
  const sent = (protocol: 'sacn' | 'artnet', ...senders: readonly [string, number, boolean?][]) =>
    mergeText({
      ...row(9),
      universe: { ...row(9).universe, protocol },
      senders: senders.map(([name, priority, slotPriority = false]) => ({
        name,
        sender: undefined,
        heard: true,
        unicast: false,
        own: false,
        address: '',
        priority: protocol === 'sacn' ? priority : null,
        slotPriority,
      })),
    });

  test('by level only among those of the highest priority', () => {
    expect(sent('sacn', ['A', 100], ['B', 100])).toBe('HTP of 2 senders');
    expect(sent('sacn', ['A', 100], ['B', 120])).toBe('B by priority 120');
    expect(sent('sacn', ['A', 120], ['B', 120], ['C', 90])).toBe('HTP of the 2 senders with priority 120');
    expect(sent('sacn', ['A', 100, true], ['B', 100])).toBe('by the priority of each slot, then HTP');
  });

  test('Art-Net has no priority', () => expect(sent('artnet', ['A', 100], ['B', 120])).toBe('HTP of 2 senders'));
});

test('a planned sender has the priority of its line until it is heard, and then the one heard', () => {
  expect(mergeText(row(6))).toBe('Bridge desk by priority 100');
  const loud = { ...bridge, name: 'Stern desk', address: '127.0.0.23', priority: 130, slotPriority: false };
  const heard = { universes: [{ key: 6, state: 'contested', streams: [loud] }], routes: [] } as unknown as FlowHeard;
  const [six] = filterLedger(ledger(ferry, patch, heard, entries), '6', patch, '');
  expect(mergeText(six!)).toBe('Stern desk by priority 130');
});

test.each([
  ['', 40],
  ['u3', 1],
  ['3', 1],
  ['u3', 1],
  ['1-4, 9', 5],
  ['60', 0],
  ['lamp 101', 1],
  ['boiler node', 4],
  ['bridge DESK', 12],
  ['nobody', 0],
])('asked for “%s”', (text, count) => expect(filterLedger(rows, text, patch, '')).toHaveLength(count));

test('held to a place, only universes with lamps there are left', () => {
  const place = ferry.place.find(({ name }) => name === 'Funnel')!;
  const funnel = filterLedger(rows, '', patch, place.id);
  expect(funnel.length).toBeGreaterThan(0);
  expect(funnel.length).toBeLessThan(rows.length);
  expect(funnel.every(({ placeIds }) => placeIds.has(place.id))).toBe(true);
});

test('the graph has each sender and machine once, and shows where something flows', () => {
  const { nodes, edges } = flowGraph(rows.map((one) => [one]));
  expect(nodes.filter(({ kind }) => kind === 'sender').map(({ label }) => label)).toEqual([
    'Bridge desk',
    'Stern desk',
    'Porthole',
    'Gangway panel',
    'Purser’s desk',
  ]);
  expect(new Set(nodes.map(({ id }) => id)).size).toBe(nodes.length);
  const ends = new Set(nodes.map(({ id }) => id));
  expect(edges.every(({ from, to }) => ends.has(from) && ends.has(to))).toBe(true);
  expect(edges.filter((edge) => edge.live).map(({ from, to }) => [from, to])).toEqual([
    ['s machine-bridge', 'u1'],
    ['r over', 'u13'],
    ['u1', 'r over'],
  ]);
  expect(edges.find(({ from, to }) => from === 'u9' && to === 'm machine-boiler')?.label).toBe('2');
});

test('universes that travel one way and stand alike are one node; one that stands otherwise is alone', () => {
  const groups = alike(rows);
  expect(groups.flat()).toHaveLength(rows.length);
  // Of the four that the boiler node carries, those by Art-Net and those by sACN, and those of two senders, differ.
  const numbers = groups.map((group) => group.map(({ universe }) => universe.number));
  expect(numbers).toContainEqual([3, 4, 5, 7, 8]);
  const { nodes, edges } = flowGraph(groups);
  expect(nodes.find(({ id }) => id === 'u3')).toMatchObject({
    label: '3-5, 7-8',
    below: '5 by sACN',
    universes: [3, 4, 5, 7, 8],
  });
  expect(edges.find(({ from, to }) => from === 'u3' && to === 'm machine-car-deck')?.label).toBe('2-6');
  const silent = rows.map((one) =>
    one.universe.number === 4 ? { ...one, report: { ...row(1).report!, state: 'silent' as const } } : one,
  );
  expect(alike(silent).map((group) => group.map(({ universe }) => universe.number))).toContainEqual([4]);
});
