/** What is observed as single facts, so that what a cause predicts can be held against what there is. */
import { fromWireKey, wireKey, type Protocol } from '../../base/address';
import { portKey, type Observed, type ObservedPort, type World, type WorldNode } from '../simulate';
import { Facts, NONE, type Fact, type NodeTrait, type PortTrait, type StreamTrait } from './fact';
import type { Near } from './near';

/** Senders and strangers on wires near the path, nodes on it; `planned` is the plan's whole world. */
export function factsOf(observed: Observed, near: Near, planned: World): Facts {
  const facts = new Facts();
  streamFacts(facts, observed, near, planned);
  nodeFacts(facts, observed, near, planned);
  visualiserFacts(facts, observed, near);
  lampFacts(facts, observed, near);
  return facts;
}

/** What of a sender or node its plan does not say: nothing can differ in it. */
const unplanned = (text: string | undefined): boolean => text === undefined || text === '';

function streamFacts(facts: Facts, observed: Observed, near: Near, planned: World): void {
  const senders = new Map(planned.senders.map((one) => [one.id, one]));
  const protocols = new Set<Protocol>();
  for (const one of observed.streams) {
    const { protocol } = fromWireKey(one.key);
    protocols.add(protocol);
    const mine = near.senders.has(one.sender);
    const its = senders.get(one.sender);
    const plan = its?.streams.find(({ wire }) => wireKey(wire) === one.key);
    // Of strangers only those count that are heard where the path runs.
    if (mine ? plan && near.keys && !near.keys.get(one.sender)?.has(one.key) : plan || !near.wires.has(one.key))
      continue;
    const says = (trait: StreamTrait, value: string) =>
      facts.set({ kind: 'stream', id: one.sender, wire: one.key, trait }, value);
    says('there', 'heard');
    if (protocol === 'sacn') says('priority', String(one.priority));
    if (one.pace !== 'even') says('pace', one.pace);
    if (one.waits) says('waits', 'yes');
    if (!one.levels) says('levels', 'no');
    // Who sends as many slots as lamps need sends enough.
    if (one.slots < (plan?.needs ?? 0)) says('slots', String(one.slots));
    if (one.twin) says('twin', 'yes');
    if (one.effect !== 'all') says('effect', one.effect);
    if (its && !unplanned(its.address)) says('from', one.address);
  }
  for (const what of protocols) if (near.hears?.has(what) ?? true) facts.set({ kind: 'hears', what }, 'yes');
}

function nodeFacts(facts: Facts, observed: Observed, near: Near, planned: World): void {
  for (const one of observed.nodes) {
    if (near.hears?.has('nodes') ?? true) facts.set({ kind: 'hears', what: 'nodes' }, 'yes');
    const plan = planned.nodes.find(({ id }) => id === one.id);
    if (!plan || !near.nodes.has(one.id)) continue;
    const says = (trait: NodeTrait, value: string) => facts.set({ kind: 'node', id: one.id, trait }, value);
    says('there', 'answers');
    if (!unplanned(plan.address)) says('address', one.address);
    if (!unplanned(plan.firmware)) says('firmware', one.firmware);
    if (!unplanned(plan.failSafe) && one.failSafe !== '') says('failSafe', one.failSafe);
    if (one.ports.some(({ use }) => use === 'in')) says('priority', String(one.priority));
    if (one.prefix !== null && !unplanned(plan.address)) says('mask', String(one.prefix));
    if (one.doubled) says('doubled', 'yes');
    for (const port of one.ports)
      if (near.ports?.has(portKey(one.id, port.number)) ?? true) portFacts(facts, port, plan, near);
  }
}

function portFacts(facts: Facts, said: ObservedPort, node: WorldNode, near: Near): void {
  const { number, use, protocol, wire, merge, active, merging } = said;
  const says = (trait: PortTrait, value: string) =>
    facts.set({ kind: 'port', id: node.id, port: number, trait }, value);
  says('use', use);
  if (use === 'off') return;
  says('protocol', protocol);
  says('wire', String(wire));
  if (use === 'out') says('merge', merge);
  const planned = node.ports.find((one) => one.number === number);
  // What began or ended just now a box may not have noticed, or not have told.
  if (planned && near.settling.has(wireKey({ protocol: planned.protocol, number: planned.wire }))) return;
  says('active', active ? 'yes' : 'no');
  if (merging) says('merging', 'yes');
}

function visualiserFacts(facts: Facts, observed: Observed, near: Near): void {
  for (const one of observed.visualisers) {
    if (!near.visualisers.has(one.id)) continue;
    const { id } = one;
    facts.set({ kind: 'visualiser', id, trait: 'there' }, 'answers');
    facts.set({ kind: 'visualiser', id, trait: 'address' }, one.address);
    const receives = (trait: 'lists' | 'gets', wire: number) => facts.set({ kind: 'receives', id, wire, trait }, 'yes');
    // One beside shows that it counts from another number.
    for (const key of one.lists)
      if ([key, key - 1, key + 1].some((beside) => near.wires.has(beside))) receives('lists', key);
    for (const key of one.gets)
      if (near.wires.has(key) && isKept(near, key) && !near.settling.has(key)) receives('gets', key);
  }
}

function lampFacts(facts: Facts, { lamps }: Observed, near: Near): void {
  for (const { id, on, set, mode } of lamps) {
    if (!near.lamps.includes(id)) continue;
    facts.set({ kind: 'lamp', id, trait: 'there' }, 'yes');
    facts.set({ kind: 'lamp', id, trait: 'on' }, on);
    facts.set({ kind: 'lamp', id, trait: 'set' }, set);
    facts.set({ kind: 'lamp', id, trait: 'mode' }, mode);
  }
}

const isKept = ({ keys }: Near, key: number): boolean => !keys || [...keys.values()].some((kept) => kept.has(key));

/** Facts of the plan's world as they could be seen here: what a device does not tell, or a sender need not send, is no difference. */
export function comparable(predicted: Facts, seen: Facts, planned: World): Facts {
  const left = new Facts(predicted);
  // A box that lists no ports at all says nothing of them.
  const telling = new Set([...seen.of('port')].map(({ id }) => id));
  const idle = new Set(
    planned.senders.flatMap(({ id, streams }) =>
      streams.filter(({ idles }) => idles).map(({ wire }) => streamKey(id, wireKey(wire))),
    ),
  );
  const isUntold = (fact: Fact): boolean => {
    switch (fact.kind) {
      case 'node':
        return UNTOLD.has(fact.trait) && ['', NONE].includes(seen.get(fact));
      case 'port':
        return seen.has({ kind: 'node', id: fact.id, trait: 'there' }) && !telling.has(fact.id);
      case 'stream':
        return idle.has(streamKey(fact.id, fact.wire)) && !seen.has({ ...fact, trait: 'there' });
      default:
        return false;
    }
  };
  for (const fact of predicted.all()) if (isUntold(fact)) left.delete(fact);
  return left;
}

/** What a box need not say of itself */
const UNTOLD: ReadonlySet<NodeTrait> = new Set(['firmware', 'failSafe', 'mask', 'priority']);

const streamKey = (sender: string, wire: number): string => `${sender} ${wire}`;
