/** Somebody who sends under a name of the show; and whose lamps it reaches. */
import { formatWire } from '../../base/address';
import {
  addSender,
  observe,
  plainStream,
  plannedWorld,
  withNode,
  withSender,
  withStreams,
  type World,
} from '../simulate';
import { standing } from './standing';
import { asReports } from './testing/asReports';
import { ferry, patchOf, PRESENT } from './testing/scenes';
import { why } from './why';

const patch = patchOf(ferry);
const planned = plannedWorld(ferry, patch, [], PRESENT);
const bridge = planned.senders.find(({ id }) => id === 'machine-bridge')!;
const SIX = { protocol: 'sacn', number: 6 } as const;
const lampsOf = (universe: number) => new Set(patch.universe(universe).map(({ patched }) => patched.lamp.id)).size;

const standingIn = (change: (world: World) => World, told = (one: ReturnType<typeof observe>) => one) =>
  standing({ records: ferry, patch, ...asReports(told(observe(change(planned))), ferry) }, () => 0);

/** Another device sends universe 6 under the Bridge desk's name; `priority` beside the Bridge desk's 100. */
const impostor = (priority: number) => (world: World) =>
  addSender(world, {
    ...{ id: '127.0.0.98', name: bridge.name, address: '127.0.0.98' },
    streams: [plainStream(SIX, { priority })],
  });
const underItsName = (one: ReturnType<typeof observe>) => ({
  ...one,
  streams: one.streams.map((stream) =>
    stream.sender === '127.0.0.98' ? { ...stream, borrows: { id: bridge.id, cid: false } } : stream,
  ),
});

test('whoever uses the name of a sender that is there itself is named by where it is, and the sender is not blamed', () => {
  const { troubles } = standingIn(impostor(150), underItsName);
  expect(troubles.map(({ cause }) => cause)).toEqual(['third-source']);
  expect(troubles[0]!.says).toBe('Another device at 127.0.0.98 uses the name of Bridge desk and sends sACN 6.');
});

test('a stranger that controls a port changes its lamps, though they have light as before', () => {
  expect(standingIn(impostor(150), underItsName).troubles[0]).toMatchObject({ universes: [6], lamps: lampsOf(6) });
  // Below the priority of those who are planned it controls nothing.
  expect(standingIn(impostor(50), underItsName).troubles[0]).toMatchObject({ universes: [], lamps: 0 });
});

test('a stranger that sends short packets changes the lamps that these reach', () => {
  const short = (world: World) =>
    addSender(world, {
      ...{ id: '127.0.0.98', name: 'x', address: '127.0.0.98' },
      streams: [plainStream(SIX, { priority: 150, slots: 40 })],
    });
  const reached = patch.universe(6).filter(({ channel }) => channel <= 40);
  expect(reached.length).toBeLessThan(patch.universe(6).length);
  expect(standingIn(short).troubles[0]).toMatchObject({
    cause: 'third-source',
    lamps: new Set(reached.map(({ patched }) => patched.lamp.id)).size,
  });
});

test('a port that merges where one sender is planned has another that is not received here', () => {
  const boiler = planned.nodes.find(({ id }) => id === 'machine-boiler')!;
  const { protocol, wire } = boiler.ports.find(({ use, protocol: by }) => use === 'out' && by === 'artnet')!;
  const unicast = (world: World) =>
    addSender(world, {
      ...{ id: '127.0.0.98', name: 'x', address: '127.0.0.98' },
      streams: [plainStream({ protocol, number: wire }, { travels: { to: [boiler.address] } })],
    });
  const { troubles } = standingIn(unicast);
  expect(troubles.map(({ cause }) => cause)).toEqual(['unheard-source']);
  expect(troubles[0]!.lamps).toBeGreaterThan(0);
  expect(troubles[0]!.says).toMatch(/^Another device sends .* by unicast\. It is not received here\.$/);
});

test('a busy computer is one cause, and blames nobody else', () => {
  const { troubles } = standingIn((world) =>
    ['machine-bridge', 'machine-stern', 'machine-porthole', 'machine-gangway'].reduce(
      (all, id, i) => withStreams(all, id, () => (i % 2 === 0 ? { slow: true } : { ragged: true })),
      world,
    ),
  );
  expect(troubles.map(({ cause }) => cause)).toEqual(['here-ragged']);
});

test('where a planned backup takes over, the lamps are as planned', () => {
  const both = bridge.streams.filter(({ wire }) =>
    planned.senders.some(
      ({ id, streams }) => id === 'machine-stern' && streams.some((one) => formatWire(one.wire) === formatWire(wire)),
    ),
  );
  expect(both.length).toBeGreaterThan(0);
  const { troubles } = standingIn((world) => withSender(world, bridge.id, () => ({ on: false })));
  const [off] = troubles;
  expect(off!.cause).toBe('output-off');
  for (const { universe, wire } of both) if (wire.protocol === 'sacn') expect(off!.universes).not.toContain(universe);
});

test('slots that their sender gives up change their lamps, and no others', () => {
  const { troubles } = standingIn((world) =>
    withStreams(world, 'machine-gangway', () => ({ effect: 'some', offers: [{ from: 1, to: 2 }] })),
  );
  const key = planned.senders.find(({ id }) => id === 'machine-gangway')!.streams[0]!;
  const without = patch.universe(key.universe!).filter(({ channel, length }) => channel + length - 1 > 2);
  expect(without.length).toBeGreaterThan(0);
  expect(without.length).toBeLessThan(patch.universe(key.universe!).length);
  expect(troubles[0]).toMatchObject({
    cause: 'controls-nothing',
    lamps: new Set(without.map(({ patched }) => patched.lamp.id)).size,
  });
});

test('a sender that sends by another interface leaves its lamps as they are; one that sends another universe does not', () => {
  const [moved] = standingIn((world) => withSender(world, bridge.id, () => ({ address: '127.0.0.121' }))).troubles;
  expect(moved).toMatchObject({ cause: 'other-interface', lamps: 0, universes: [] });
  const [shifted] = standingIn((world) =>
    withStreams(world, bridge.id, ({ wire }) =>
      wire.protocol === 'artnet' ? { wire: { ...wire, number: wire.number + 1 } } : {},
    ),
  ).troubles;
  expect(shifted!.cause).toBe('base-differs');
  const its = bridge.streams.flatMap(({ wire, universe }) => (wire.protocol === 'artnet' ? [universe!] : []));
  // The last of them comes to the port of whoever sends the next.
  expect(shifted!.universes).toEqual([...its, its[its.length - 1]! + 1]);
});

test('a sender that controls nothing leaves its lamps without light, and is at no height as planned', () => {
  const { troubles, wire } = standingIn((world) =>
    withStreams(world, 'machine-gangway', () => ({ effect: 'nothing' })),
  );
  expect(troubles[0]).toMatchObject({ cause: 'controls-nothing' });
  expect(troubles[0]!.lamps).toBeGreaterThan(0);
  expect(wire.known).toBeLessThan(wire.of);
});

test('a stranger that sends other start codes alone raises no alarm', () => {
  const text = (world: World) =>
    addSender(world, {
      ...{ id: '127.0.0.98', name: 'x', address: '127.0.0.98' },
      streams: [plainStream(SIX, { startCode: 0x17 })],
    });
  expect(standingIn(text).troubles).toEqual([]);
});

test('what comes in at the inputs of a node that moved is its own, and the desk behind it sends', () => {
  const saloon = planned.nodes.find(({ ports }) => ports.some(({ use }) => use === 'in'))!;
  const moved = observe(withNode(planned, saloon.id, () => ({ address: '127.0.0.135' })));
  const reports = asReports(moved, ferry);
  // Its streams go under the name of the node, not of the desk.
  const universes = reports.heard.universes.map((one) => ({
    ...one,
    streams: one.streams.map((stream) =>
      stream.address === '127.0.0.135' ? { ...stream, name: saloon.name } : stream,
    ),
  }));
  const { troubles, unexplained } = standing(
    { records: ferry, patch, ...reports, heard: { ...reports.heard, universes } },
    () => 0,
  );
  expect(troubles.map(({ cause, about }) => [cause, about.id])).toEqual([['node-moved', saloon.id]]);
  expect(unexplained).toEqual([]);
});

test('Why? of a run of pixels is answered: it has no start address of its own that could be wrong', () => {
  const run = patch.all().find((one) => one.run !== undefined)!;
  const universe = run.lamp.universe;
  const dark = withSender(
    planned,
    planned.senders.find(({ streams }) => streams.some((one) => one.universe === universe))!.id,
    () => ({ on: false }),
  );
  const whole = { records: ferry, patch, ...asReports(observe(dark), ferry) };
  const { suspects, sure } = why({ kind: 'lamp', id: run.lamp.id, part: '' }, whole, () => 0);
  expect(sure).not.toBe('as planned');
  expect(suspects.map(({ cause }) => cause)).not.toContain('lamp-address');
});

describe('what no cause explains', () => {
  // Each stream of one desk has another priority: nothing that is wrong with a desk brings that.
  const odd = observe(planned);
  const streams = odd.streams.map((stream, i) =>
    stream.sender === bridge.id ? { ...stream, priority: stream.priority + 1 + i } : stream,
  );
  const whole = { records: ferry, patch, ...asReports({ ...odd, streams }, ferry) };

  test('is said to be not explained, with what is known of it', () => {
    const { sure, sentence } = why({ kind: 'universe', id: '6', part: '' }, whole, () => 0);
    expect(sure).toBe('not known');
    expect(sentence).toMatch(/^Universe 6 is not as planned\. Not explained yet\. What is known: .*: priority \d+/);
  });

  test('blames nobody on the first screen', () => {
    const { troubles, unexplained, verdict } = standing(whole, () => 0);
    expect(troubles).toEqual([]);
    expect(unexplained.length).toBeGreaterThan(0);
    expect(verdict).toContain('Something differs from the plan that no known cause explains');
  });
});

test('two causes that fit alike are both named on the first screen, and neither is likely', () => {
  const { troubles, verdict } = standingIn((world) => withNode(world, 'machine-boiler', () => ({ powered: false })));
  expect(troubles[0]).toMatchObject({ sure: 'open', about: { id: 'machine-boiler' } });
  expect(troubles[0]!.says).toMatch(/^The network cable of Boiler node .* Or: Boiler node /);
  expect(verdict).toContain('It may be: The network cable of Boiler node');
});

test('a sender that is received here and by none of its nodes is one cause, and blames none of them', () => {
  const porthole = planned.senders.find(({ id }) => id === 'machine-porthole')!;
  const here = ['127.0.0.1'];
  const { troubles } = standingIn((world) => ({
    ...withStreams(world, porthole.id, () => ({ travels: { to: here } })),
    here: { ...world.here, addresses: here },
  }));
  expect(troubles.map(({ about, cause, sure }) => [about.id, cause, sure])).toEqual([
    [porthole.id, 'unicast-elsewhere', 'likely'],
  ]);
});

test.each([
  ['a few packets are accepted of keeps its say', { rate1: 2, rate10: 2, discarded1: 35 }, lampsOf(6)],
  ['nothing is accepted of has none', { rate1: 0, rate10: 0.1, discarded1: 37 }, 0],
])('a stranger that %s', (_, counts, lamps) => {
  const reports = asReports(observe(impostor(150)(planned)), ferry);
  const universes = reports.heard.universes.map((one) => ({
    ...one,
    streams: one.streams.map((stream) =>
      stream.address === '127.0.0.98' ? { ...stream, ...counts, name: 'x' } : stream,
    ),
  }));
  const { troubles } = standing({ records: ferry, patch, ...reports, heard: { ...reports.heard, universes } }, () => 0);
  expect(Math.max(0, ...troubles.map((one) => one.lamps))).toBe(lamps);
});
