/**
 * Never more than is known: whatever is wrong and whatever is not told, no state word is better than its evidence.
 * Worlds with up to three causes in them, of which parts are not observed, are told as a running Taxiarch would be told.
 */
import { formatWire, wireKey } from '../../base/address';
import { random } from '../fault';
import { sightingKey, type WhyReport } from '../known';
import type { ShowRecords, Sighting, Subject } from '../../show/records';
import { observe, plannedWorld, type Observed, type World } from '../simulate';
import { CAUSES } from './causes';
import { standing } from './standing';
import { AT, asReports } from './testing/asReports';
import { ferry, patchOf } from './testing/scenes';
import { groundOf, wholeScene, type Whole } from './scene';
import { why } from './why';

const patch = patchOf(ferry);
const PRESENT = {
  here: {
    addresses: ['127.0.0.1'],
    lists: new Set(ferry.universe.filter(({ protocol }) => protocol === 'artnet').map(({ wire }) => wire)),
  },
  polled: true,
  own: [],
};
const world = plannedWorld(ferry, patch, [], PRESENT);
const whole = (observed: Observed, records = ferry): Whole => ({ records, patch, ...asReports(observed, records) });

/** Whole scenes to find causes in: as planned, so that all that could be is offered. */
const deviations = (() => {
  const ground = groundOf(whole(observe(world)));
  const scene = wholeScene(ground, ground.world([]));
  return CAUSES.flatMap(({ find }) => [...find(scene)]);
})();

interface Told {
  readonly seed: number;
  readonly observed: Observed;
  readonly records: ShowRecords;
}

/** A world in which something is wrong, with gaps in what is told of it. */
function told(seed: number): Told {
  const next = random(seed);
  const pick = <T>(all: readonly T[]): T => all[Math.floor(next() * all.length)]!;
  let changed: World = world;
  for (let i = Math.floor(next() * 4); i > 0; i -= 1) changed = pick(deviations).change(changed);
  const full = observe(changed);
  const gaps = next() * 0.3;
  const some = <T>(all: readonly T[]): T[] => all.filter(() => next() > gaps);
  const observed = {
    ...full,
    streams: some(full.streams),
    nodes: some(full.nodes),
    visualisers: some(full.visualisers),
  };
  const lamps = Array.from({ length: 20 }, () => pick(ferry.lamp));
  const sighting = [...new Map(lamps.map((lamp) => [lamp.id, lamp])).values()].map(({ id }, i): Sighting => ({
    id: `seen-${i}`,
    // Some were seen before what is on their path was edited last.
    rev: next() > 0.3 ? 10 : -1,
    about: { kind: 'lamp', id, part: '' },
    question: 'lit',
    answer: next() > 0.2 ? 'yes' : 'no',
    by: 'Ivo',
    at: new Date(AT - 60_000).toISOString(),
  }));
  return { seed, observed, records: { ...ferry, sighting } };
}

const SEEDS = Array.from({ length: 4 }, (_, i) => i + 1);
const worlds = SEEDS.map(told);

/** Something of every kind, other ones in every world. */
function subjects({ seed }: Told): Subject[] {
  const next = random(seed + 1000);
  const of = <T>(all: readonly T[]): T => all[Math.floor(next() * all.length)]!;
  const lamp = of(ferry.lamp);
  const node = of(ferry.machine.filter(({ ports }) => ports.some(({ use }) => use === 'out')));
  const output = of(node.ports.filter(({ use }) => use === 'out'));
  return [
    { kind: 'lamp', id: lamp.id, part: '' },
    { kind: 'slot', id: String(lamp.universe), part: String(lamp.channel) },
    { kind: 'universe', id: String(of(ferry.universe).number), part: '' },
    { kind: 'port', id: node.id, part: String(output.number) },
    { kind: 'machine', id: of(ferry.machine).id, part: '' },
    { kind: 'interface', id: of(ferry.machine).id, part: '' },
    { kind: 'link', id: of(ferry.link).id, part: '' },
  ];
}

type Step = WhyReport['path'][number];

/** Whether what was told really says that a step is well; by its own look at what was observed, not by the diagnosis. */
function isProven({ about, kind, planned }: Step, { observed, records }: Told): boolean {
  const node = observed.nodes.find(({ id }) => id === about.id);
  const port = node?.ports.find(({ number }) => String(number) === about.part);
  switch (kind) {
    case 'lamp': {
      const seen = records.sighting.find((one) => sightingKey(one.about, 'lit') === sightingKey(about, 'lit'));
      return seen?.answer === 'yes' && seen.rev > 0;
    }
    case 'slot': {
      const universe = records.universe.find(({ number }) => String(number) === about.id)!;
      const key = wireKey({ protocol: universe.protocol, number: universe.wire });
      const streams = observed.streams.filter((one) => one.key === key && one.levels);
      return streams.length > 0 && streams.every(({ slots }) => slots >= Number(about.part));
    }
    case 'port':
      return (
        port?.use === 'out' &&
        port.active &&
        planned === formatWire({ protocol: port.protocol as 'sacn', number: port.wire })
      );
    case 'merge':
      return port !== undefined && port.active;
    case 'sender':
      return observed.streams.some(({ sender, levels, waits }) => sender === about.part && levels && !waits);
    case 'interface':
      return observed.streams.some(({ sender }) => sender === about.id);
    case 'visualiser': {
      const its = observed.visualisers.find(({ id }) => id === about.id);
      return its !== undefined && its.gets.length > 0;
    }
    default:
      return false;
  }
}

test('a step is fine only if it was heard, said or seen; as planned is said only where every step is fine', () => {
  let fine = 0;
  let planned = 0;
  for (const one of worlds)
    for (const about of subjects(one)) {
      const { sure, path, suspects } = why(about, whole(one.observed, one.records), () => 0);
      for (const step of path) {
        if (step.state !== 'fine') continue;
        fine += 1;
        expect(['heard', 'said', 'seen']).toContain(step.known);
        expect(step.evidence).not.toEqual([]);
        if (!isProven(step, one)) throw new Error(`seed ${one.seed}: ${JSON.stringify(step)}`);
      }
      if (sure !== 'as planned') continue;
      planned += 1;
      const open = path.filter(({ state }) => state !== 'fine');
      if (open.length > 0) throw new Error(`seed ${one.seed}, ${JSON.stringify(about)}: ${JSON.stringify(open[0])}`);
      expect(suspects).toEqual([]);
    }
  expect([fine > 20, planned > 0]).toEqual([true, true]);
});

test('of what nothing is planned nothing is proven', () => {
  const nothing = why({ kind: 'universe', id: '900', part: '' }, whole(observe(world)), () => 0);
  expect(nothing).toMatchObject({ path: [], sure: 'not known' });
});

test('a way that breaks by what is worked out is not called as planned', () => {
  // Two more on universe 9 than its port has places for, one of them planned to nobody’s loss.
  const others = ['127.0.0.201', '127.0.0.202'].map((address) => ({
    ...observe(world).streams.find(({ key, sender }) => sender === 'machine-bridge' && key > 65_535)!,
    sender: `own-${address}`,
    address,
  }));
  const seen = observe(world);
  const told = why(
    { kind: 'port', id: 'machine-boiler', part: '2' },
    whole({ ...seen, streams: [...seen.streams, ...others] }),
    () => 0,
  );
  expect(told.sure).not.toBe('as planned');
  expect(told.path.find(({ kind }) => kind === 'merge')).toMatchObject({ state: 'broken', known: 'worked out' });
});

test('no count is higher than what was heard, said or seen; what is missing stands against it', () => {
  const keys = new Set(world.senders.flatMap(({ streams }) => streams.map(({ wire }) => wireKey(wire))));
  for (const one of worlds.slice(0, 1)) {
    const report = standing(whole(one.observed, one.records), () => 0);
    const { wire, ports, lamps, verdict, troubles, unexplained } = report;
    const heard = one.observed.streams.filter(({ key, levels }) => keys.has(key) && levels).map(({ key }) => key);
    expect(wire.known).toBeLessThanOrEqual(new Set(heard).size);
    const saying = one.observed.nodes.flatMap(({ ports: all }) =>
      all.filter(({ use, active }) => use === 'out' && active).map(({ number }) => number),
    );
    expect(ports.known).toBeLessThanOrEqual(saying.length);
    const seen = one.records.sighting.filter(({ answer, rev }) => answer === 'yes' && rev > 0);
    expect(lamps.known).toBeLessThanOrEqual(seen.length);
    // 420 lamps hang in the show, and at most twenty were looked at.
    expect(verdict.startsWith('Yes')).toBe(false);
    const answering = new Set(one.observed.nodes.map(({ id }) => id));
    const missing = world.nodes.some(({ id, tells }) => tells && !answering.has(id));
    if (missing) expect(troubles.length + unexplained.length).toBeGreaterThan(0);
  }
});
