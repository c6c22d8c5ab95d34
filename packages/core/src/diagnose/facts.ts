/** What is observed as single facts, so that what a cause predicts can be held against what there is. */
import { wireKey } from '../address';
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
  [/^visualiser \S+$/, 3],
  [/^stream \S+ \d+ (levels|waits|slots|twin)$/, 2],
  [/ gets /, 0.5],
  [/ lists /, 0.5],
];

export const weightOf = (fact: string): number => WEIGHTS.find(([pattern]) => pattern.test(fact))?.[1] ?? 1;

/** Senders and strangers on wires near the path, nodes on it, and what people answered. */
export function factsOf(observed: Observed, near: Near, planned: World): Facts {
  const facts = new Map<string, string>();
  const known = new Set(planned.senders.map(({ id }) => id));
  const keys = new Set(
    planned.senders
      .flatMap(({ streams }) => streams)
      .filter(({ universe }) => universe !== null && near.universes.includes(universe))
      .map(({ wire }) => wireKey(wire)),
  );
  for (const universe of near.universes)
    for (const { ports } of planned.nodes)
      for (const { use, wire, protocol } of ports)
        if (use === 'out' && keysOf(planned, universe).has(wireKey({ protocol, number: wire })))
          keys.add(wireKey({ protocol, number: wire }));
  const protocols = new Set<string>();
  for (const one of observed.streams) {
    protocols.add(one.key < 65_536 ? 'sacn' : 'artnet');
    const mine = near.senders.has(one.sender);
    // Of strangers only those count that are heard where the path runs.
    const meant = isPlanned(planned, one);
    if (mine ? meant && near.keys && !near.keys.get(one.sender)?.has(one.key) : meant || !keys.has(one.key)) continue;
    const name = `stream ${one.sender} ${one.key}`;
    facts.set(name, 'heard');
    facts.set(`${name} priority`, String(one.priority));
    if (one.pace !== 'even') facts.set(`${name} pace`, one.pace);
    if (one.waits) facts.set(`${name} waits`, 'yes');
    if (!one.levels) facts.set(`${name} levels`, 'no');
    if (one.slots < 512) facts.set(`${name} slots`, String(one.slots));
    if (one.twin) facts.set(`${name} twin`, 'yes');
    if (known.has(one.sender)) facts.set(`${name} from`, one.address);
  }
  for (const protocol of protocols) if (near.hears?.has(protocol) ?? true) facts.set(`hears ${protocol}`, 'yes');
  for (const one of observed.nodes) {
    if (near.hears?.has('nodes') ?? true) facts.set('hears nodes', 'yes');
    const plan = planned.nodes.find(({ id }) => id === one.id);
    if (!plan || !near.nodes.has(one.id)) continue;
    const name = `node ${one.id}`;
    facts.set(name, 'answers');
    facts.set(`${name} address`, one.address);
    // Of what the plan does not say nothing can differ.
    if (plan.firmware !== '') facts.set(`${name} firmware`, one.firmware);
    if (plan.failSafe !== '' && one.failSafe !== '') facts.set(`${name} failSafe`, one.failSafe);
    if (one.ports.some(({ use }) => use === 'in')) facts.set(`${name} priority`, String(one.priority));
    if (one.prefix !== null) facts.set(`${name} mask`, String(one.prefix));
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
      if (planned && near.settling?.has(wireKey({ protocol: planned.protocol, number: planned.wire }))) continue;
      facts.set(`${port} active`, active ? 'yes' : 'no');
      if (merging) facts.set(`${port} merging`, 'yes');
    }
  }
  for (const one of observed.visualisers) {
    if (!near.visualisers.has(one.id)) continue;
    const name = `visualiser ${one.id}`;
    facts.set(name, 'answers');
    facts.set(`${name} address`, one.address);
    // One beside shows that it counts from another number.
    for (const key of one.lists)
      if (keys.has(key) || keys.has(key - 1) || keys.has(key + 1)) facts.set(`${name} lists ${key}`, 'yes');
    for (const key of one.gets)
      if (keys.has(key) && isKept(near, key) && !near.settling?.has(key)) facts.set(`${name} gets ${key}`, 'yes');
  }
  return facts;
}

/** Whether somebody is planned to send what is heard, near the path or not. */
const isPlanned = (planned: World, { sender, key }: { readonly sender: string; readonly key: number }): boolean =>
  planned.senders.some(({ id, streams }) => id === sender && streams.some(({ wire }) => wireKey(wire) === key));

const isKept = ({ keys }: Near, key: number): boolean => !keys || [...keys.values()].some((kept) => kept.has(key));

const keysOf = (planned: World, universe: number): Set<number> =>
  new Set(
    planned.senders.flatMap(({ streams }) =>
      streams.filter((one) => one.universe === universe).map(({ wire }) => wireKey(wire)),
    ),
  );

/**
 * Facts of which nothing can be said here are left out of the plan's: what a device does not tell is no difference.
 * Answers of people are compared only where there are any.
 */
export function comparable(
  predicted: Facts,
  seen: Facts,
  answered: Observed['answers'],
  predictedAnswers: Observed['answers'],
) {
  const left = new Map(predicted);
  // A box that lists no ports at all says nothing of them.
  const telling = new Set([...seen.keys()].filter((key) => key.startsWith('port ')).map((key) => key.split(' ')[1]!));
  for (const key of predicted.keys()) {
    if (/^node \S+ (firmware|failSafe|mask|priority)$/.test(key) && (seen.get(key) ?? '') === '') left.delete(key);
    const [kind, id = ''] = key.split(' ');
    if (kind === 'port' && seen.has(`node ${id}`) && !telling.has(id)) left.delete(key);
  }
  for (const key of answered.keys()) {
    const says = predictedAnswers.get(key);
    if (says) left.set(`seen ${key}`, says);
  }
  return left;
}
