/** The world advanced for a moment: what this computer would hear, what each node would say, what each lamp would show. */
import { SLOTS, wireKey } from '../../base/address';
import { OutputPort } from '../../network/port';
import type { Subject } from '../../show/records';
import { answersOf, type Answer, type Answers } from '../known';
import { Sacn } from '../../protocol/sacn';
import { isThere, reachesHere, reachesNode, sentBy } from './deliver';
import type { Effect, World, WorldNode, WorldPort, WorldSender, WorldStream } from './world';

/** Packets of each stream, so far apart: enough for every port to take or refuse it. */
const ROUNDS = 3;
const APART_MS = 400;
const FULL = new Uint8Array(SLOTS).fill(255);

export interface ObservedPort {
  readonly number: number;
  readonly use: string;
  readonly protocol: string;
  readonly wire: number;
  readonly merge: string;
  /** It says that signal passes. */
  readonly active: boolean;
  readonly merging: boolean;
}

export interface ObservedNode {
  readonly id: string;
  readonly address: string;
  readonly firmware: string;
  readonly failSafe: string;
  readonly priority: number;
  readonly prefix: number | null;
  readonly doubled: boolean;
  readonly ports: readonly ObservedPort[];
}

export interface ObservedStream {
  /** Machine of the show that sends it, or the address of a stranger */
  readonly sender: string;
  readonly key: number;
  readonly address: string;
  readonly priority: number;
  readonly pace: 'even' | 'slow' | 'ragged';
  /** Its levels wait for a synchronisation packet that does not come. */
  readonly waits: boolean;
  /** It carries levels, not only other start codes. */
  readonly levels: boolean;
  readonly slots: number;
  readonly twin: boolean;
  readonly effect: Effect;
  /** Where not all of the slots that lamps need are controlled: runs of those that are */
  readonly offers?: WorldStream['offers'];
  /** It uses the name of this sender of the show, which is received from its own address as well */
  readonly borrows?: { readonly id: string; readonly cid: boolean };
}

export interface ObservedVisualiser {
  readonly id: string;
  readonly address: string;
  /** Wire keys that it says it listens to, and of these those that come in */
  readonly lists: readonly number[];
  readonly gets: readonly number[];
}

/** What a lamp says of itself when it is asked, beside its plan. */
export interface ObservedLamp {
  readonly id: string;
  readonly on: 'planned' | 'another';
  readonly set: 'planned' | 'another';
  readonly mode: 'planned' | 'another';
}

export interface Observed {
  readonly streams: readonly ObservedStream[];
  readonly nodes: readonly ObservedNode[];
  readonly visualisers: readonly ObservedVisualiser[];
  /** Lamps that answer, of those that were asked lately */
  readonly lamps: readonly ObservedLamp[];
  /** What people see, or would see */
  readonly answers: Answers;
}

/** What leaves each output, and who has a say there; by node and port. */
export interface PortNow {
  readonly port: OutputPort;
  readonly levels: Uint8Array | null;
}

export interface Simulated extends Observed {
  readonly ports: ReadonlyMap<string, PortNow>;
}

export const portKey = (nodeId: string, port: number): string => `${nodeId} ${port}`;
export function portOfKey(key: string): { readonly nodeId: string; readonly port: number } {
  const cut = key.lastIndexOf(' ');
  return { nodeId: key.slice(0, cut), port: Number(key.slice(cut + 1)) };
}

/** Priorities for slots: that of the packet in these runs, 0 elsewhere. */
function prioritiesOf(runs: NonNullable<WorldStream['offers']>, priority: number): Uint8Array {
  const slots = new Uint8Array(SLOTS);
  for (const { from, to } of runs) slots.fill(priority, from - 1, to);
  return slots;
}

/** Hands what a stream sends at once to every port that it reaches. */
function deliver(
  world: World,
  sender: WorldSender,
  stream: WorldStream,
  ports: ReadonlyMap<string, OutputPort>,
  round: number,
): void {
  const now = round * APART_MS;
  const { wire } = stream;
  const priorities = stream.offers && prioritiesOf(stream.offers, stream.priority);
  for (const node of world.nodes) {
    if (stream.effect === 'nothing' || stream.effect === 'discarded' || !reachesNode(sender, stream, node)) continue;
    for (const { number, use, protocol, wire: takes } of node.ports) {
      if (use !== 'out' || protocol !== wire.protocol || takes !== wire.number) continue;
      const port = ports.get(portKey(node.id, number))!;
      const slots = stream.slots === SLOTS ? FULL : FULL.subarray(0, stream.slots);
      if (protocol === 'artnet') {
        if (stream.startCode === 0) port.artnet({ address: sender.address, physical: 0, slots }, now);
        continue;
      }
      const packet = {
        id: sender.cid,
        address: sender.address,
        name: sender.name,
        priority: stream.priority,
        terminated: false,
        preview: false,
        syncAddress: stream.syncAddress,
        // Nobody sends the synchronisation packets: what waits for them waits for ever.
        forceSync: stream.syncAddress !== 0,
      };
      // Levels and priorities for slots share the numbering (E1.31-2018, 6.7.2).
      const sequence = 2 * round + 1;
      if (priorities)
        port.sacn({ ...packet, sequence, startCode: Sacn.START_CODE_SLOT_PRIORITY, slots: priorities }, now);
      port.sacn({ ...packet, sequence: sequence + 1, startCode: stream.startCode, slots }, now);
    }
  }
}

/** What comes in at a node's input comes from where that node is. */
const placeOf = ({ nodes }: World, { through, address }: WorldSender): string =>
  nodes.find(({ id }) => id === through?.nodeId)?.address ?? address;

function heardHere(world: World, sender: WorldSender, stream: WorldStream, twin: boolean): ObservedStream {
  return {
    sender: sender.id,
    key: wireKey(stream.wire),
    address: placeOf(world, sender),
    priority: stream.wire.protocol === 'sacn' ? stream.priority : 0,
    pace: stream.ragged || world.here.ragged ? 'ragged' : stream.slow ? 'slow' : 'even',
    waits: stream.syncAddress !== 0,
    levels: stream.startCode === 0,
    slots: stream.slots,
    twin,
    effect: stream.effect,
    ...(stream.offers && { offers: stream.offers }),
  };
}

const saysOf = (
  { number, use, protocol, wire, merge, disabled }: WorldPort,
  port: OutputPort | undefined,
  end: number,
  fed: boolean,
): ObservedPort => ({
  number,
  // A fixed output is an output to Art-Net; of merges it speaks of HTP and LTP only.
  use: use === 'in' && disabled ? 'off' : use === 'fixed' ? 'out' : use,
  protocol,
  wire,
  merge: merge === 'ltp' ? 'ltp' : 'htp',
  active: use === 'fixed' || fed || (port?.passes(end) ?? false),
  merging: port !== undefined && port.sources.length > 1 && port.merging,
});

export function observe(world: World): Simulated {
  const ports = new Map<string, OutputPort>();
  for (const node of world.nodes)
    for (const port of node.ports) ports.set(portKey(node.id, port.number), new OutputPort(port, node.model));
  const sent = world.senders.map((sender) => ({ sender, streams: sentBy(world, sender) }));
  for (let round = 0; round < ROUNDS; round += 1)
    for (const { sender, streams } of sent) for (const stream of streams) deliver(world, sender, stream, ports, round);
  const end = ROUNDS * APART_MS;
  const now = new Map([...ports].map(([key, port]) => [key, { port, levels: port.output(end) }]));
  const cids = new Map<string, Set<string>>();
  for (const { sender, streams } of sent)
    for (const stream of streams) {
      const key = `${sender.cid} ${wireKey(stream.wire)}`;
      cids.set(key, (cids.get(key) ?? new Set()).add(sender.address));
    }
  const feeds = (node: WorldNode, port: number) =>
    sent.some(
      ({ sender: { through }, streams }) => through?.nodeId === node.id && through.port === port && streams.length > 0,
    );
  return {
    streams: sent.flatMap(({ sender, streams }) =>
      streams
        .filter((stream) => reachesHere(world, stream))
        .map((stream) => heardHere(world, sender, stream, cids.get(`${sender.cid} ${wireKey(stream.wire)}`)!.size > 1)),
    ),
    nodes: world.nodes
      .filter((node) => isThere(node) && node.tells && world.here.hears.artnet)
      .map((node) => ({
        id: node.id,
        address: node.address,
        firmware: node.firmware,
        failSafe: node.failSafe,
        priority: node.priority,
        prefix: node.prefix,
        doubled: node.doubled,
        ports: node.ports.map((port) =>
          saysOf(port, ports.get(portKey(node.id, port.number)), end, port.use === 'in' && feeds(node, port.number)),
        ),
      })),
    visualisers: world.visualisers
      .filter(({ on }) => on && world.here.hears.artnet)
      .map(({ id, address, listens, early }) => ({
        id,
        address,
        lists: listens.filter(({ protocol }) => protocol === 'artnet').map(wireKey),
        // Of sACN it says nothing.
        gets: early
          ? []
          : listens
              .filter(({ protocol }) => protocol === 'artnet')
              .map(wireKey)
              .filter((key) => sent.some(({ streams }) => streams.some((one) => wireKey(one.wire) === key))),
      })),
    lamps: [...lampsSay(world)],
    answers: answersOf([...lampAnswers(world, now), ...machineAnswers(world, now)]),
    ports: now,
  };
}

/** What lamps say that were asked: those that hang where they can be asked, with power. */
function* lampsSay(world: World): Generator<ObservedLamp> {
  const word = (planned: boolean) => (planned ? 'planned' : 'another');
  for (const { id, ports, patched, set, fits, works, asked, deaf, elsewhere } of world.lamps) {
    const reached = ports.some(({ nodeId, port }) => {
      const node = world.nodes.find((one) => one.id === nodeId);
      return node && isThere(node) && node.ports.find(({ number }) => number === port)?.cable;
    });
    if (!asked || deaf || !works || !(reached || elsewhere)) continue;
    yield { id, on: word(!elsewhere), set: word(set === patched), mode: word(fits) };
  }
}

const answer = (about: Subject, question: string, so: boolean): Answer => ({
  about,
  question,
  answer: so ? 'yes' : 'no',
});

/** Whether a lamp that is lit at full would be seen to light as it should. */
function* lampAnswers(world: World, now: ReadonlyMap<string, PortNow>): Generator<Answer> {
  for (const { id, ports, patched, set, footprint, fits, works } of world.lamps) {
    const cables = ports.filter(
      ({ nodeId, port }) =>
        world.nodes.find((node) => node.id === nodeId)?.ports.find(({ number }) => number === port)?.cable,
    );
    const fed = cables.some(({ nodeId, port }) => {
      const levels = now.get(portKey(nodeId, port))?.levels;
      return levels?.slice(patched - 1, patched - 1 + footprint).some((level) => level > 0) ?? false;
    });
    const lights = works && fed && Math.abs(set - patched) < footprint;
    const about: Subject = { kind: 'lamp', id, part: '' };
    yield answer(about, 'lit', lights);
    yield answer(about, 'right', lights && set === patched && fits);
  }
}

/** What a person would see at a machine: its lights, and the lights of its ports. */
function* machineAnswers(world: World, now: ReadonlyMap<string, PortNow>): Generator<Answer> {
  const machine = (id: string): Subject => ({ kind: 'machine', id, part: '' });
  for (const { id, powered, plugged, ports } of world.nodes) {
    yield answer(machine(id), 'on', powered);
    yield answer(machine(id), 'link', powered && plugged);
    for (const { number, cable } of ports) {
      const levels = powered ? now.get(portKey(id, number))?.levels : null;
      const port: Subject = { kind: 'port', id, part: String(number) };
      yield answer(port, 'light', levels !== null && levels !== undefined);
      yield answer(port, 'cable', cable);
    }
  }
  for (const { id, on, streams } of world.senders)
    yield answer(machine(id), 'sends', on && streams.some((one) => one.on));
  for (const { id, on } of world.visualisers) yield answer(machine(id), 'on', on);
}
