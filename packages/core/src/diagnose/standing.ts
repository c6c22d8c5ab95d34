/** How things stand: what stands against opening the doors, by how much light it costs; and at which height what is known. */
import { wireKey } from '../address';
import { seenOf, type StandingReport, type Trouble } from '../known';
import type { MachineEntry } from '../node';
import type { Patch } from '../patch';
import type { ShowRecords, Subject } from '../records';
import { observe, plannedWorld, portKey, type Simulated, type World } from '../simulate';
import type { Scene } from './cause';
import { NONE, comparable, factsOf, type Facts } from './facts';
import { observedNow, type DiagnosisHeard } from './heard';
import { judge, type Suspect } from './judge';
import { narrow } from './narrow';
import { nearOf, type Near } from './near';

/** Causes found one after the other until nothing is left unexplained, at most so many. */
const MOST_TROUBLES = 24;
/** No new one is looked for after so many milliseconds; what is left then is told as unexplained. */
const LONGEST_MS = 1200;
const CERTAIN = 0.9;
const LIKELY = 0.5;

interface Whole {
  readonly records: ShowRecords;
  readonly patch: Patch;
  readonly heard: DiagnosisHeard;
  readonly entries: readonly MachineEntry[];
}

/** Everything is near. */
function everywhere({ records }: Whole, world: World): Near {
  return {
    subject: { kind: 'universe', id: '', part: '' },
    universes: records.universe.map(({ number }) => number),
    senders: new Set(world.senders.map(({ id }) => id)),
    nodes: new Set(world.nodes.map(({ id }) => id)),
    visualisers: new Set(world.visualisers.map(({ id }) => id)),
    lamps: [],
    port: null,
  };
}

/** Where a person would ask Why? about a fact that differs. */
function subjectOf(fact: string, { records, entries }: Whole): Subject | undefined {
  const [kind, id = '', part = ''] = fact.split(' ');
  switch (kind) {
    case 'node':
      return { kind: 'machine', id, part: '' };
    case 'port':
      return { kind: 'port', id, part };
    case 'visualiser':
      return { kind: 'machine', id, part: '' };
    case 'stream': {
      const universe = records.universe.find(
        ({ protocol, wire }) => wireKey({ protocol, number: wire }) === Number(part),
      );
      if (universe) return { kind: 'universe', id: String(universe.number), part: '' };
      return entries.some(({ plan }) => plan?.id === id) ? { kind: 'machine', id, part: '' } : undefined;
    }
    default:
      return undefined;
  }
}

/** In which order facts are followed up: what stands for much first. */
const urgency = (fact: string): number => {
  const [kind, , , what] = fact.split(' ');
  if (kind === 'node' && what === undefined) return fact.split(' ').length === 2 ? 0 : 3;
  if (kind === 'stream') return what === undefined ? 1 : 2;
  return kind === 'port' ? 2 : 3;
};

/** Show universes of which some planned port puts out nothing, or another universe. */
function darkened(records: ShowRecords, planned: Simulated, now: Simulated, world: World, after: World): number[] {
  const byKey = new Map(
    records.universe.map(({ number, protocol, wire }) => [wireKey({ protocol, number: wire }), number]),
  );
  const lit = (levels: Uint8Array | null | undefined) => levels?.some((level) => level > 0) ?? false;
  const set = new Map(
    after.nodes.flatMap(({ id, ports }) =>
      ports.map(({ number, protocol, wire }) => [portKey(id, number), wireKey({ protocol, number: wire })] as const),
    ),
  );
  const dark = new Set<number>();
  for (const { id, ports } of world.nodes)
    for (const { number, use, protocol, wire } of ports) {
      const key = portKey(id, number);
      const universe = byKey.get(wireKey({ protocol, number: wire }));
      if (use !== 'out' || universe === undefined || !lit(planned.ports.get(key)?.levels)) continue;
      if (set.get(key) !== wireKey({ protocol, number: wire }) || !lit(now.ports.get(key)?.levels)) dark.add(universe);
    }
  return [...dark].sort((a, b) => a - b);
}

const lampsOn = (patch: Patch, universes: readonly number[]): number =>
  new Set(universes.flatMap((one) => patch.universe(one).map(({ patched }) => patched.lamp.id))).size;

function sceneNear(about: Subject, whole: Whole, world: World, seen: Scene['seen']): Scene {
  const near = { ...nearOf(about, whole.records, whole.patch), ...(seen.settling && { settling: seen.settling }) };
  const names = new Map(whole.records.machine.map(({ id, name }) => [id, name]));
  return { records: whole.records, near, world, whole: world, seen, nameOf: (id) => names.get(id) ?? id };
}

export function standing(whole: Whole, clock: () => number): StandingReport {
  const began = clock();
  const { records, patch, heard, entries } = whole;
  const world = plannedWorld(records, patch, []);
  const seen = observedNow(records, heard, entries);
  const near = { ...everywhere(whole, world), ...(seen.settling && { settling: seen.settling }) };
  const now = factsOf(seen, near, world);
  const planned = observe(world);
  const told = (observed: Simulated): Facts =>
    comparable(factsOf(observed, near, world), now, new Map(), observed.answers);
  const differ = (facts: Facts): string[] =>
    [...new Set([...now.keys(), ...facts.keys()])].filter((key) => (now.get(key) ?? NONE) !== (facts.get(key) ?? NONE));
  const plan = told(planned);
  let left = differ(plan);
  let changed = world;
  const troubles: Trouble[] = [];
  const visited = new Set<string>();
  const unexplained: string[] = [];
  while (left.length > 0 && troubles.length < MOST_TROUBLES && clock() - began < LONGEST_MS) {
    const next = [...left]
      .sort((a, b) => urgency(a) - urgency(b))
      .map((fact) => ({ fact, about: subjectOf(fact, whole) }))
      .find(({ about, fact }) => !visited.has(about ? `${about.kind} ${about.id} ${about.part}` : fact));
    if (!next) break;
    const { about, fact } = next;
    visited.add(about ? `${about.kind} ${about.id} ${about.part}` : fact);
    if (!about) continue;
    const { suspects, together } = judge(narrow(sceneNear(about, whole, world, seen)));
    for (const one of together.length > 0 ? together : suspects.slice(0, 1)) {
      if (troubles.some((other) => other.says === one.deviation.says)) continue;
      const after = one.deviation.change(changed);
      const rest = differ(told(observe(after)));
      // It has to explain something that is still open; else it is a guess at what another cause did.
      if (rest.length >= left.length) continue;
      changed = after;
      left = rest;
      troubles.push(troubleOf(one, about, whole, world, planned));
    }
  }
  unexplained.push(...left.slice(0, 20));
  troubles.sort((a, b) => b.lamps - a.lamps || b.universes.length - a.universes.length);
  const heights = heightsOf(whole, plan, now);
  return {
    verdict: verdictOf(troubles, unexplained.length, heights),
    troubles,
    unexplained,
    ...heights,
    took: clock() - began,
  };
}

function troubleOf(
  suspect: Suspect,
  ask: Subject,
  { records, patch }: Whole,
  world: World,
  planned: Simulated,
): Trouble {
  const { deviation, share, cause } = suspect;
  const after = deviation.change(world);
  const universes = darkened(records, planned, observe(after), world, after);
  return {
    about: deviation.about,
    ask,
    cause,
    says: deviation.says,
    sure: share >= CERTAIN ? 'certain' : share >= LIKELY ? 'likely' : 'open',
    lamps: lampsOn(patch, universes),
    universes,
    repair: deviation.repair.says,
    act: deviation.repair.act,
  };
}

type Heights = Pick<StandingReport, 'wire' | 'ports' | 'lamps'>;

/** How many of all are known to be well, at each height. */
function heightsOf({ records, patch }: Whole, plan: Facts, now: Facts): Heights {
  const expected = [...plan.keys()].filter((key) => /^stream \S+ \d+$/.test(key));
  const keys = new Set(expected.map((key) => key.split(' ')[2]!));
  const wellHeard = [...keys].filter(
    (key) =>
      [...plan].every(([fact, value]) => {
        const [kind, , wire] = fact.split(' ');
        return kind !== 'stream' || wire !== key || now.get(fact) === value;
      }) &&
      [...now.keys()].every((fact) => {
        const [kind, , wire] = fact.split(' ');
        return kind !== 'stream' || wire !== key || plan.has(fact);
      }),
  );
  const outputs = [...plan.keys()].filter((key) => /^port \S+ \d+ active$/.test(key) && plan.get(key) === 'yes');
  const saying = outputs.filter((key) => {
    const port = key.slice(0, -' active'.length);
    return ['active', 'use', 'protocol', 'wire'].every(
      (what) => now.get(`${port} ${what}`) === plan.get(`${port} ${what}`),
    );
  });
  const lamps = patch.all().filter(({ run }) => run === undefined);
  const machines = new Map(records.machine.map((one) => [one.id, one]));
  const sightings = lamps.map(({ lamp }) => {
    const carries = records.machine.filter(({ ports }) =>
      ports.some((one) => one.use === 'out' && one.universe === lamp.universe),
    );
    const path = [{ name: lamp.name, rev: lamp.rev }, ...carries.map(({ id }) => machines.get(id)!)];
    return seenOf(records, { kind: 'lamp', id: lamp.id, part: '' }, 'lit', path);
  });
  const right = sightings.filter((seen) => seen?.answer === 'yes');
  return {
    wire: { of: keys.size, known: wellHeard.length, old: 0 },
    ports: { of: outputs.length, known: saying.length, old: 0 },
    lamps: {
      of: lamps.length,
      known: right.filter((seen) => seen!.changed.length === 0).length,
      old: right.filter((seen) => seen!.changed.length > 0).length,
    },
  };
}

/** What goes before a sentence that is not certain. */
const howSure = (sure: Trouble['sure']): string =>
  sure === 'certain' ? '' : sure === 'likely' ? 'Likely: ' : 'It may be: ';

function verdictOf(troubles: readonly Trouble[], unexplained: number, { wire, ports, lamps }: Heights): string {
  const [worst] = troubles;
  if (worst) {
    const lamps = `${worst.lamps} ${worst.lamps === 1 ? 'lamp' : 'lamps'}`;
    const dark = worst.lamps > 0 ? `: ${lamps} without light, or with another` : '';
    const more = troubles.length > 1 ? ` And ${troubles.length - 1} more.` : '';
    return `Not yet. ${howSure(worst.sure)}${worst.says.replace(/\.$/, '')}${dark}.${more}`;
  }
  if (unexplained > 0) return 'Not yet. Something differs from the plan that no known cause explains.';
  if (wire!.of === 0 && ports!.of === 0) return 'Nothing is planned yet that could be heard or leave a port.';
  if (lamps!.known < lamps!.of)
    return `Nothing stands against it that can be heard or is said; ${lamps!.of - lamps!.known} of ${lamps!.of} lamps nobody has seen${lamps!.old > 0 ? ' since something changed' : ''}.`;
  return 'Yes: all is as planned, on the wire, at the ports and at the lamps.';
}
