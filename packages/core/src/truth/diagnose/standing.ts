/** How things stand: what stands against opening the doors, by how much light it costs; and at which height what is known. */
import { wireKey } from '../../base/address';
import { SURE_WORDS, sightingKey, type StandingReport, type Sureness, type Trouble } from '../known';
import type { Patch } from '../../rig/patch';
import type { ShowRecords, Subject } from '../../show/records';
import type { PortSource } from '../../network/port';
import { observe, portKey, sentBy, type PortNow, type Simulated, type World } from '../simulate';
import type { Fact, Facts, PortTrait } from './fact';
import { comparable, factsOf } from './facts';
import { isTooEarly } from './heard';
import { LIKELY, isTie, judge, saysOf, surenessOf, type Suspect } from './judge';
import { lampsAsked, lampTroubles } from './lampTroubles';
import { narrow } from './narrow';
import { groundOf, sceneOf, wholeScene, type Whole } from './scene';
import { sightingsNow } from './sightings';
import { factText } from './words';

/** Causes found one after the other until nothing is left unexplained, at most so many. */
const MOST_TROUBLES = 24;
/** No new one is looked for after so many milliseconds. */
const LONGEST_MS = 1200;
/** Facts without a cause that are told in words */
const MOST_TOLD = 20;

/** Where a person would ask Why? about a fact that differs. */
function subjectOf(fact: Fact, { records, entries }: Whole): Subject | undefined {
  switch (fact.kind) {
    case 'node':
    case 'visualiser':
    case 'receives':
      return { kind: 'machine', id: fact.id, part: '' };
    case 'port':
      return { kind: 'port', id: fact.id, part: String(fact.port) };
    case 'stream': {
      const universe = records.universe.find(({ protocol, wire }) => wireKey({ protocol, number: wire }) === fact.wire);
      if (universe) return { kind: 'universe', id: String(universe.number), part: '' };
      return entries.some(({ plan }) => plan?.id === fact.id) ? { kind: 'machine', id: fact.id, part: '' } : undefined;
    }
    default:
      return undefined;
  }
}

/** In which order facts are followed up: what stands for much first. */
const urgency = (fact: Fact): number => {
  if (fact.kind === 'node' && fact.trait === 'there') return 0;
  if (fact.kind === 'stream') return fact.trait === 'there' ? 1 : 2;
  return fact.kind === 'port' ? 2 : 3;
};

const isLit = (levels: Uint8Array | null | undefined): boolean => levels?.some((level) => level > 0) ?? false;

/** Slots (0–511) that leave a port at another level, or where somebody has a say whom nobody planned. */
function otherSlots(planned: PortNow, now: PortNow | undefined, meant: ReadonlySet<string>): Set<number> {
  const slots = new Set<number>();
  const strange = now?.port.sources.some((source) => !meant.has(sourceOf(source))) ?? false;
  planned.levels?.forEach((level, slot) => {
    const other = strange && now!.port.having(slot).some((source) => !meant.has(sourceOf(source)));
    if (other || now?.levels?.[slot] !== level) slots.add(slot);
  });
  return slots;
}

/** By what a port knows a source: its component id, or where it sends from. */
const sourceOf = ({ protocol, id, address }: Pick<PortSource, 'protocol' | 'id' | 'address'>): string =>
  protocol === 'sacn' ? id : address;

/** By wire key, who sends there what is meant for it: by another interface too, but not another universe. */
function meantOf(world: World, byKey: ReadonlyMap<number, number>): ReadonlyMap<number, ReadonlySet<string>> {
  const meant = new Map<number, Set<string>>();
  for (const sender of world.senders)
    for (const { wire, universe } of sentBy(world, sender)) {
      const key = wireKey(wire);
      if (universe === null || byKey.get(key) !== universe) continue;
      const source = sourceOf({ protocol: wire.protocol, id: sender.cid, address: sender.address });
      meant.set(key, (meant.get(key) ?? new Set()).add(source));
    }
  return meant;
}

/** By show universe, slots (0–511) that leave some planned port otherwise than planned. */
function changedSlots(
  records: ShowRecords,
  planned: Simulated,
  now: Simulated,
  world: World,
  after: World,
): ReadonlyMap<number, ReadonlySet<number>> {
  const byKey = new Map(
    records.universe.map(({ number, protocol, wire }) => [wireKey({ protocol, number: wire }), number]),
  );
  const set = new Map(
    after.nodes.flatMap(({ id, ports }) =>
      ports.map(({ number, protocol, wire }) => [portKey(id, number), wireKey({ protocol, number: wire })] as const),
    ),
  );
  const meant = meantOf(after, byKey);
  const changed = new Map<number, Set<number>>();
  for (const { id, ports } of world.nodes)
    for (const { number, use, protocol, wire } of ports) {
      const key = portKey(id, number);
      const its = wireKey({ protocol, number: wire });
      const universe = byKey.get(its);
      const plan = planned.ports.get(key);
      if (use !== 'out' || universe === undefined || !plan || !isLit(plan.levels)) continue;
      const there = set.get(key) === its ? now.ports.get(key) : undefined;
      for (const slot of otherSlots(plan, there, meant.get(its) ?? new Set()))
        changed.set(universe, (changed.get(universe) ?? new Set()).add(slot));
    }
  return changed;
}

/** Lamps that have one of these slots. */
const lampsOn = (patch: Patch, changed: ReadonlyMap<number, ReadonlySet<number>>): number =>
  new Set(
    [...changed].flatMap(([universe, slots]) =>
      patch
        .universe(universe)
        .filter(({ channel, length }) =>
          Array.from({ length }, (_, i) => channel - 1 + i).some((one) => slots.has(one)),
        )
        .map(({ patched }) => patched.lamp.id),
    ),
  ).size;

/** Causes one after the other, each with what it leaves. */
interface Found {
  readonly troubles: Trouble[];
  /** Facts that none of them explains */
  readonly left: readonly Fact[];
  /** Nothing more is to be found by looking on. */
  readonly done: boolean;
}

export function standing(whole: Whole, clock: () => number): StandingReport {
  const began = clock();
  const ground = groundOf(whole);
  const world = ground.world([]);
  const { near, seen, names } = wholeScene(ground, world);
  const now = factsOf(seen, near, world);
  const planned = observe(world);
  const told = (observed: Simulated): Facts => comparable(factsOf(observed, near, world), now, world);
  const plan = told(planned);
  const heights = heightsOf(whole, plan, now, portsLit(planned, world));
  const early = isTooEarly(whole.heard);

  /** Follows up what differs until it is explained, or time is over. */
  const find = (): Found => {
    let left = now.differing(plan);
    let changed = world;
    const troubles: Trouble[] = [];
    const named = new Set<string>();
    const visited = new Set<string>();
    while (left.length > 0 && troubles.length < MOST_TROUBLES) {
      if (clock() - began > LONGEST_MS) return { troubles, left, done: false };
      const about = nextSubject(left, whole, visited);
      if (!about) break;
      const { suspects: all, together, other } = judge(narrow(sceneOf(ground, about, world)));
      if (other) continue;
      const leftBy = ({ deviation }: Suspect) => now.differing(told(observe(deviation.change(changed))));
      const suspects = together.length > 0 ? all : apart(all, (one) => leftBy(one).length);
      for (const one of together.length > 0 ? together : suspects.slice(0, 1)) {
        if (named.has(one.deviation.says)) continue;
        const after = one.deviation.change(changed);
        const rest = leftBy(one);
        // It has to explain something that is still open; else it is a guess at what another cause did.
        if (rest.length >= left.length) continue;
        changed = after;
        left = rest;
        named.add(one.deviation.says);
        const says = together.length > 0 ? one.deviation.says : saysOf(suspects);
        troubles.push(troubleOf(one, says, surenessOf(suspects, together), about, whole, world, planned));
      }
    }
    return { troubles, left, done: true };
  };

  const { troubles, left, done } = early ? { troubles: [], left: [], done: true } : find();
  if (whole.roll) troubles.push(...lampTroubles(whole.roll, whole.patch, whole.heard.at));
  troubles.sort((a, b) => b.lamps - a.lamps || b.universes.length - a.universes.length);
  return {
    verdict: early
      ? 'Taxiarch has just begun to listen: what is missing may still come.'
      : verdictOf(troubles, left.length, heights),
    troubles,
    unexplained: left.slice(0, MOST_TOLD).map((fact) => `${factText(fact, now.get(fact), names)}.`),
    more: Math.max(0, left.length - MOST_TOLD),
    looked: done,
    ...heights,
    asked: lampsAsked(whole.roll),
    took: clock() - began,
  };
}

/** Two that fit one path alike: where one of them explains more of all that differs, it stands alone. */
function apart(suspects: readonly Suspect[], leaves: (one: Suspect) => number): readonly Suspect[] {
  if (!isTie(suspects)) return suspects;
  const [first, second] = [suspects[0]!, suspects[1]!];
  const [one, other] = [leaves(first), leaves(second)];
  if (one === other) return suspects;
  // What speaks for it lies beyond the path that was asked about.
  return [{ ...(one < other ? first : second), share: LIKELY }];
}

/** The most urgent thing that differs and was not looked at yet; what is looked at is noted. */
function nextSubject(left: readonly Fact[], whole: Whole, visited: Set<string>): Subject | undefined {
  for (const fact of [...left].sort((a, b) => urgency(a) - urgency(b))) {
    const about = subjectOf(fact, whole);
    const key = about && `${about.kind} ${about.id} ${about.part}`;
    if (key === undefined || visited.has(key)) continue;
    visited.add(key);
    return about;
  }
  return undefined;
}

function troubleOf(
  { deviation, cause }: Suspect,
  says: string,
  sure: Sureness,
  ask: Subject,
  { records, patch }: Whole,
  world: World,
  planned: Simulated,
): Trouble {
  const after = deviation.change(world);
  const changed = changedSlots(records, planned, observe(after), world, after);
  return {
    about: deviation.about,
    ask,
    cause,
    says,
    sure,
    lamps: lampsOn(patch, changed),
    universes: [...changed.keys()].sort((a, b) => a - b),
    repair: deviation.repair.says,
    act: deviation.repair.act,
  };
}

interface Output {
  readonly id: string;
  readonly port: number;
}

/** Outputs from which something leaves as all is planned. */
const portsLit = (planned: Simulated, world: World): Output[] =>
  world.nodes.flatMap(({ id, ports }) =>
    ports
      .filter(({ use, number }) => use === 'out' && isLit(planned.ports.get(portKey(id, number))?.levels))
      .map(({ number }) => ({ id, port: number })),
  );

type Heights = Pick<StandingReport, 'wire' | 'ports' | 'lamps'>;

/** How a port is set; whether signal passes is another matter. */
const SET: readonly PortTrait[] = ['use', 'protocol', 'wire'];

/** How many of all are known to be well, at each height. */
function heightsOf({ records, patch }: Whole, plan: Facts, now: Facts, outputs: readonly Output[]): Heights {
  const keys = new Set([...plan.of('stream')].map(({ wire }) => wire));
  const unwell = new Set(plan.differing(now).flatMap((fact) => (fact.kind === 'stream' ? [fact.wire] : [])));
  const saying = outputs.filter((output) => {
    const fact = (trait: PortTrait): Fact => ({ kind: 'port', ...output, trait });
    const asPlanned = SET.every((trait) => now.get(fact(trait)) === plan.get(fact(trait)));
    return asPlanned && now.get(fact('active')) === 'yes';
  });
  const lamps = patch.all().filter(({ run }) => run === undefined);
  const sightings = sightingsNow(records, patch);
  const lit = lamps.flatMap(({ lamp: { id } }) => {
    const seen = sightings.get(sightingKey({ kind: 'lamp', id, part: '' }, 'lit'));
    return seen?.answer === 'yes' ? [seen] : [];
  });
  const old = lit.filter(({ changed }) => changed.length > 0).length;
  return {
    wire: { of: keys.size, known: [...keys].filter((key) => !unwell.has(key)).length, old: 0 },
    ports: { of: outputs.length, known: saying.length, old: 0 },
    lamps: { of: lamps.length, known: lit.length - old, old },
  };
}

function verdictOf(troubles: readonly Trouble[], unexplained: number, { wire, ports, lamps }: Heights): string {
  const [worst] = troubles;
  if (worst) {
    const lamps = `${worst.lamps} ${worst.lamps === 1 ? 'lamp' : 'lamps'}`;
    const dark = worst.lamps > 0 ? `: ${lamps} without light, or with another` : '';
    const more = troubles.length > 1 ? ` And ${troubles.length - 1} more.` : '';
    return `Not yet. ${SURE_WORDS[worst.sure]}${worst.says.replace(/\.$/, '')}${dark}.${more}`;
  }
  if (unexplained > 0) return 'Not yet. Something differs from the plan that no known cause explains.';
  if (wire.of === 0 && ports.of === 0) return 'Nothing is planned yet that could be heard or leave a port.';
  if (lamps.known < lamps.of)
    return `Nothing stands against it that can be heard or is said; ${lamps.of - lamps.known} of ${lamps.of} lamps nobody has seen${lamps.old > 0 ? ' since something changed' : ''}.`;
  return 'Yes: all is as planned, on the wire, at the ports and at the lamps.';
}
