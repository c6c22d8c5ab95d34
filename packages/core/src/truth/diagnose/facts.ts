/** What is observed as single facts, so that what a cause predicts can be held against what there is. */
import { fromWireKey, wireKey } from '../../base/address';
import { portKey, type Observed, type World } from '../simulate';
import type { Near } from './near';

/** What each fact is called, and what it is; one that is not there is `none`. */
export type Facts = ReadonlyMap<string, string>;
export const NONE = 'none';

/** Weights: what stands for much else counts more. */
const WEIGHTS: readonly (readonly [RegExp, number])[] = [
  [/^node \S+$/, 4],
  [/^port \S+ \d+ (wire|use|protocol)$/, 3],
  [/ (lit|right|light|on|sends|cable|link)$/, 3],
  [/^lamp \S+ (says|set|mode)$/, 3],
  [/^visualiser \S+$/, 3],
  [/^stream \S+ \d+ (levels|waits|slots|twin)$/, 2],
  [/ gets /, 0.5],
  [/ lists /, 0.5],
];

export const weightOf = (fact: string): number => WEIGHTS.find(([pattern]) => pattern.test(fact))?.[1] ?? 1;

/** Senders and strangers on wires near the path, nodes on it; `planned` is the plan's whole world. */
export function factsOf(observed: Observed, near: Near, planned: World): Facts {
  const facts = new Map<string, string>();
  streamFacts(facts, observed, near, planned);
  nodeFacts(facts, observed, near, planned);
  visualiserFacts(facts, observed, near);
  lampFacts(facts, observed, near);
  return facts;
}

type Into = Map<string, string>;

/** What of a sender or node its plan does not say: nothing can differ in it. */
const unplanned = (text: string | undefined): boolean => text === undefined || text === '';

function streamFacts(facts: Into, observed: Observed, near: Near, planned: World): void {
  const senders = new Map(planned.senders.map((one) => [one.id, one]));
  const protocols = new Set<string>();
  for (const one of observed.streams) {
    const { protocol } = fromWireKey(one.key);
    protocols.add(protocol);
    const mine = near.senders.has(one.sender);
    const its = senders.get(one.sender);
    const plan = its?.streams.find(({ wire }) => wireKey(wire) === one.key);
    // Of strangers only those count that are heard where the path runs.
    if (mine ? plan && near.keys && !near.keys.get(one.sender)?.has(one.key) : plan || !near.wires.has(one.key))
      continue;
    const name = `stream ${one.sender} ${one.key}`;
    facts.set(name, 'heard');
    if (protocol === 'sacn') facts.set(`${name} priority`, String(one.priority));
    if (one.pace !== 'even') facts.set(`${name} pace`, one.pace);
    if (one.waits) facts.set(`${name} waits`, 'yes');
    if (!one.levels) facts.set(`${name} levels`, 'no');
    // Who sends as many slots as lamps need sends enough.
    if (one.slots < (plan?.needs ?? 0)) facts.set(`${name} slots`, String(one.slots));
    if (one.twin) facts.set(`${name} twin`, 'yes');
    if (its && !unplanned(its.address)) facts.set(`${name} from`, one.address);
  }
  for (const protocol of protocols) if (near.hears?.has(protocol) ?? true) facts.set(`hears ${protocol}`, 'yes');
}

function nodeFacts(facts: Into, observed: Observed, near: Near, planned: World): void {
  for (const one of observed.nodes) {
    if (near.hears?.has('nodes') ?? true) facts.set('hears nodes', 'yes');
    const plan = planned.nodes.find(({ id }) => id === one.id);
    if (!plan || !near.nodes.has(one.id)) continue;
    const name = `node ${one.id}`;
    facts.set(name, 'answers');
    if (!unplanned(plan.address)) facts.set(`${name} address`, one.address);
    if (!unplanned(plan.firmware)) facts.set(`${name} firmware`, one.firmware);
    if (!unplanned(plan.failSafe) && one.failSafe !== '') facts.set(`${name} failSafe`, one.failSafe);
    if (one.ports.some(({ use }) => use === 'in')) facts.set(`${name} priority`, String(one.priority));
    if (one.prefix !== null && !unplanned(plan.address)) facts.set(`${name} mask`, String(one.prefix));
    if (one.doubled) facts.set(`${name} doubled`, 'yes');
    for (const { number, use, protocol, wire, merge, active, merging } of one.ports) {
      const port = `port ${one.id} ${number}`;
      if (near.ports && !near.ports.has(portKey(one.id, number))) continue;
      facts.set(`${port} use`, use);
      if (use === 'off') continue;
      facts.set(`${port} protocol`, protocol);
      facts.set(`${port} wire`, String(wire));
      if (use === 'out') facts.set(`${port} merge`, merge);
      const planned = plan.ports.find((one) => one.number === number);
      // What began or ended just now a box may not have noticed, or not have told.
      if (planned && near.settling.has(wireKey({ protocol: planned.protocol, number: planned.wire }))) continue;
      facts.set(`${port} active`, active ? 'yes' : 'no');
      if (merging) facts.set(`${port} merging`, 'yes');
    }
  }
}

function visualiserFacts(facts: Into, observed: Observed, near: Near): void {
  for (const one of observed.visualisers) {
    if (!near.visualisers.has(one.id)) continue;
    const name = `visualiser ${one.id}`;
    facts.set(name, 'answers');
    facts.set(`${name} address`, one.address);
    // One beside shows that it counts from another number.
    for (const key of one.lists)
      if ([key, key - 1, key + 1].some((beside) => near.wires.has(beside))) facts.set(`${name} lists ${key}`, 'yes');
    for (const key of one.gets)
      if (near.wires.has(key) && isKept(near, key) && !near.settling.has(key)) facts.set(`${name} gets ${key}`, 'yes');
  }
}

function lampFacts(facts: Into, { lamps }: Observed, near: Near): void {
  for (const { id, on, set, mode } of lamps) {
    if (!near.lamps.includes(id)) continue;
    facts.set(`lamp ${id} says`, 'yes');
    facts.set(`lamp ${id} on`, on);
    facts.set(`lamp ${id} set`, set);
    facts.set(`lamp ${id} mode`, mode);
  }
}

const isKept = ({ keys }: Near, key: number): boolean => !keys || [...keys.values()].some((kept) => kept.has(key));

/** Facts of the plan's world as they could be seen here: what a device does not tell, or a sender need not send, is no difference. */
export function comparable(predicted: Facts, seen: Facts, planned: World): Facts {
  const left = new Map(predicted);
  // A box that lists no ports at all says nothing of them.
  const telling = new Set([...seen.keys()].filter((key) => key.startsWith('port ')).map((key) => key.split(' ')[1]!));
  const idle = new Set(
    planned.senders.flatMap(({ id, streams }) =>
      streams.filter(({ idles }) => idles).map(({ wire }) => `stream ${id} ${wireKey(wire)}`),
    ),
  );
  for (const key of predicted.keys()) {
    const [kind, id = '', part = ''] = key.split(' ');
    const unsaid = /^node \S+ (firmware|failSafe|mask|priority)$/.test(key) && (seen.get(key) ?? '') === '';
    const silent = kind === 'port' && seen.has(`node ${id}`) && !telling.has(id);
    const stream = `stream ${id} ${part}`;
    const idling = kind === 'stream' && idle.has(stream) && !seen.has(stream);
    if (unsaid || silent || idling) left.delete(key);
  }
  return left;
}

/** Facts that stand otherwise in one than in the other. */
export const differing = (one: Facts, other: Facts): string[] =>
  [...new Set([...one.keys(), ...other.keys()])].filter((key) => (one.get(key) ?? NONE) !== (other.get(key) ?? NONE));
