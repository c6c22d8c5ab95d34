/**
 * The path of something, step by step from the lamp to the interface of the sender: lamp, slot, port, merge, sender,
 * interface; what is planned beside what is known, and what that rests on.
 */
import { formatWire, fromWireKey, wireKey } from '../address';
import { outletSays } from '../flow';
import { ageText, sightingKey, type Known, type STEP_STATES } from '../known';
import { lastChannel, type Span } from '../patch';
import type { Subject } from '../records';
import {
  observe,
  portKey,
  reachesHere,
  type ObservedStream,
  type WorldNode,
  type WorldPort,
  type WorldStream,
} from '../simulate';
import { heardSenders, nodesAsTheySay } from './asHeard';
import { isMeant, saidBy } from './cause';
import { nodeAge, streamAge } from './heard';
import type { Scene, Whole } from './scene';
import { sightingsNow } from './sightings';
import { capital } from './words';

export interface PathStep {
  readonly about: Subject;
  /** `lamp`, `slot`, `visualiser`, `port`, `merge`, `sender`, `interface` */
  readonly kind: string;
  readonly name: string;
  readonly planned: string;
  readonly now: string;
  readonly known: Known;
  /** In sentences, with their age */
  readonly evidence: readonly string[];
  readonly state: (typeof STEP_STATES)[number];
}

type Standing = readonly [state: PathStep['state'], known: Known, now: string];

const step = (
  about: Subject,
  kind: string,
  name: string,
  planned: string,
  [state, known, now]: Standing,
  evidence: readonly string[] = [],
): PathStep => ({ about, kind, name, planned, now, known, evidence, state });

/** What is known and how old it is. */
class Evidence {
  constructor(
    private readonly scene: Scene,
    private readonly whole: Whole,
  ) {}

  private age(key: string): string | undefined {
    const at = this.scene.seen.confirmed.get(key);
    return at === undefined ? undefined : ageText(this.whole.heard.at - at);
  }

  stream(sender: string, key: number): string[] {
    const age = this.age(streamAge(sender, key));
    return age === undefined ? ['No packet of it came here.'] : [`Its last packet came here ${age}.`];
  }

  node(id: string): string[] {
    const age = this.age(nodeAge(id));
    return age === undefined ? ['It never answered.'] : [`Its last answer came ${age}.`];
  }
}

/** What people saw of a lamp: that it does what it should, or that it lights. */
function lampStep(about: Subject, name: string, planned: string, { records, patch, heard }: Whole): PathStep {
  const seen = sightingsNow(records, patch);
  const [right, lit] = ['right', 'lit'].map((question) => seen.get(sightingKey(about, question)));
  const last = right?.changed.length === 0 ? right : lit?.changed.length === 0 ? lit : (right ?? lit);
  if (!last) return step(about, 'lamp', name, planned, ['open', 'not known', 'nobody has looked']);
  const { by, at, changed, answer } = last;
  const evidence = [`${by} looked${at === null ? '' : ` ${ageText(heard.at - at)}`}.`];
  if (changed.length > 0)
    return step(
      about,
      'lamp',
      name,
      planned,
      ['open', 'not known', 'seen before something changed'],
      [...evidence, `Changed since: ${changed.join(', ')}.`],
    );
  const does = last === right ? 'does what its channels say' : 'lights';
  const standing: Standing =
    answer === 'yes' ? ['fine', 'seen', `it ${does}`] : ['broken', 'seen', `it is not so that it ${does}`];
  return step(about, 'lamp', name, planned, standing, evidence);
}

/** The slots of a lamp or the one that is asked about, and whether what is heard reaches so far. */
function slotStep(span: Span, scene: Scene, evidence: Evidence): PathStep {
  const { universe, channel, patched } = span;
  const last = lastChannel(span);
  const planned = scene.records.universe.find(({ number }) => number === universe);
  const key = planned && wireKey({ protocol: planned.protocol, number: planned.wire });
  const heard = scene.seen.streams.filter((one) => one.key === key && one.levels);
  const standing = ((): Standing => {
    if (heard.length === 0) return ['open', 'not known', 'no levels are heard'];
    const short = heard.filter(({ slots }) => slots < last);
    return short.length === 0
      ? ['fine', 'heard', 'packets carry them']
      : [
          'broken',
          'heard',
          `packets of ${short.map(({ sender }) => scene.names.of(sender)).join(' and ')} end at ${short[0]!.slots}`,
        ];
  })();
  return step(
    { kind: 'slot', id: String(universe), part: String(channel) },
    'slot',
    channel === last ? `Slot ${universe}/${channel}` : `Slots ${universe}/${channel}–${last}`,
    `of ${patched.lamp.name}, ${patched.lamp.mode}`,
    standing,
    heard.flatMap(({ sender, key: on }) => evidence.stream(sender, on)).slice(0, 1),
  );
}

function lampSteps(scene: Scene, whole: Whole, evidence: Evidence): PathStep[] {
  const { kind, part } = scene.near.subject;
  if (kind !== 'lamp' && kind !== 'slot') return [];
  const slot = Number(part);
  return scene.near.lamps.flatMap((id) => {
    const patched = whole.patch.lamp(id);
    if (!patched) return [];
    const { lamp } = patched;
    const spans = patched.spans.filter(
      (span) =>
        kind === 'lamp' ||
        (span.universe === Number(scene.near.subject.id) && span.channel <= slot && slot <= lastChannel(span)),
    );
    return [
      lampStep(
        { kind: 'lamp', id, part: '' },
        `${lamp.number} ${lamp.name}`,
        `${lamp.universe}/${lamp.channel}, ${lamp.mode}`,
        whole,
      ),
      ...spans.map((span) => slotStep(span, scene, evidence)),
    ];
  });
}

const sourcesText = (names: readonly string[]): string => (names.length === 0 ? 'nobody' : names.join(' and '));

/** What a node says of one of its outputs. */
function portStanding(scene: Scene, node: WorldNode, { number, protocol, wire }: WorldPort): Standing {
  const said = saidBy(scene, node.id);
  if (!said)
    return node.tells
      ? ['broken', 'not known', `${node.name} does not answer`]
      : ['open', 'not known', `${node.name} speaks no Art-Net, or is not polled: it says nothing`];
  const now = said.ports.find((one) => one.number === number);
  const { heard, says } = outletSays(
    now && {
      disabled: now.use === 'off',
      direction: now.use === 'in' ? 'in' : 'out',
      sacn: now.protocol === 'sacn',
      portAddress: now.wire,
      active: now.active,
      merging: false,
    },
    { protocol, number: wire },
  );
  return heard ? ['fine', 'said', `it says that it ${says}`] : ['broken', 'said', says];
}

/** Who has a say at a port, as far as its node tells: whether it merges, and how. */
function mergeStanding(scene: Scene, node: WorldNode, port: WorldPort, plannedMerging: boolean): Standing | undefined {
  const now = saidBy(scene, node.id)?.ports.find((one) => one.number === port.number);
  if (!now || now.use !== 'out' || !now.active) return undefined;
  const planned = port.merge === 'ltp' ? 'ltp' : 'htp';
  if (plannedMerging && now.merge !== planned)
    return ['broken', 'said', `it says that it merges by ${now.merge.toUpperCase()}`];
  if (now.merging === plannedMerging)
    return ['fine', 'said', now.merging ? 'it says that it merges' : 'it says that it does not merge'];
  return now.merging
    ? ['broken', 'said', 'it says that it merges several senders']
    : ['broken', 'said', 'it says that it does not merge'];
}

/** Who finds no place at a port, as it says that it is set and with everybody who is heard. */
function refusedNow(scene: Scene): (portKey: string) => string[] {
  const { world, near, seen } = scene;
  const nodes = nodesAsTheySay(
    world.nodes.filter(({ id }) => near.nodes.has(id)),
    seen,
  );
  const senders = heardSenders(scene, ({ key }) => near.wires.has(key));
  const calls = new Map(senders.map(({ address, name }) => [address, name]));
  const now = observe({ ...world, senders, nodes });
  return (key) => now.ports.get(key)?.port.refused.map(({ address }) => calls.get(address) ?? address) ?? [];
}

function portSteps(scene: Scene, evidence: Evidence): PathStep[] {
  const { near, world } = scene;
  const planned = observe(world);
  const refused = refusedNow(scene);
  return world.nodes
    .filter(({ id }) => near.nodes.has(id))
    .flatMap((node) =>
      node.ports
        .filter(
          ({ use, protocol, wire, number }) =>
            use === 'out' &&
            near.wires.has(wireKey({ protocol, number: wire })) &&
            (near.port === null || (near.port.nodeId === node.id && near.port.number === number)),
        )
        .flatMap((port) => {
          const { number, protocol, wire } = port;
          const about: Subject = { kind: 'port', id: node.id, part: String(number) };
          const name = scene.names.port(node.id, number);
          const said = evidence.node(node.id);
          const there = planned.ports.get(portKey(node.id, number))!.port;
          const out = saidBy(scene, node.id) ? refused(portKey(node.id, number)) : [];
          const merging: Standing | undefined =
            out.length > 0
              ? [
                  'broken',
                  'worked out',
                  `it takes no more: ${sourcesText(out)} ${out.length > 1 ? 'have' : 'has'} no place`,
                ]
              : mergeStanding(scene, node, port, there.merging);
          const sources = there.sources.map(({ name: its, address }) => its || address);
          const merge =
            merging &&
            step(
              about,
              'merge',
              `Merge at ${name}`,
              there.merging
                ? `${port.merge.toUpperCase()} of ${sourcesText(sources)}`
                : `${sourcesText(sources.slice(0, 1))} alone has the say`,
              merging,
              said,
            );
          return [
            step(
              about,
              'port',
              capital(name),
              formatWire({ protocol, number: wire }),
              portStanding(scene, node, port),
              said,
            ),
            ...(merge ? [merge] : []),
          ];
        }),
    );
}

/** What is heard of a planned stream. */
function streamStanding(scene: Scene, id: string, streams: readonly WorldStream[], stream: WorldStream): Standing {
  const { world, seen } = scene;
  const { wire, priority, idles } = stream;
  const heard = seen.streams.find((one) => one.sender === id && one.key === wireKey(wire));
  const elsewhere = seen.streams.find(
    (one) => one.sender === id && !streams.some((of) => wireKey(of.wire) === one.key),
  );
  if (!heard && elsewhere)
    return ['broken', 'heard', `not heard here; heard on ${formatWire(fromWireKey(elsewhere.key))}`];
  if (!heard && !reachesHere(world, stream))
    return ['open', 'not known', 'goes to others only: it cannot be heard from here'];
  if (!heard && idles) return ['open', 'not known', 'not heard; it is silent while nothing changes'];
  if (!heard) return ['broken', 'not known', 'not heard'];
  if (heard.waits) return ['broken', 'heard', 'heard; its levels wait for synchronisation'];
  if (!heard.levels) return ['broken', 'heard', 'heard, without levels'];
  if (wire.protocol === 'sacn' && heard.priority !== priority)
    return ['broken', 'heard', `heard at priority ${heard.priority}`];
  return heard.pace === 'even' ? ['fine', 'heard', 'heard'] : ['open', 'heard', `heard, ${heard.pace}`];
}

function senderSteps(scene: Scene, evidence: Evidence): PathStep[] {
  const { near, world, seen } = scene;
  return world.senders
    .filter(({ id }) => near.senders.has(id))
    .flatMap(({ id, address, streams }) => {
      const here = streams.filter(({ universe }) => universe !== null && near.universes.includes(universe));
      const heard = seen.streams.filter(
        (one) => one.sender === id && here.some(({ wire }) => wireKey(wire) === one.key),
      );
      return [
        ...here.map((stream) => {
          const { wire, priority, universe } = stream;
          return step(
            { kind: 'stream', id: String(universe), part: id },
            'sender',
            `${scene.names.of(id)}, universe ${universe}`,
            `${formatWire(wire)}${wire.protocol === 'sacn' ? ` at priority ${priority}` : ''}`,
            streamStanding(scene, id, streams, stream),
            evidence.stream(id, wireKey(wire)),
          );
        }),
        ...(heard.length > 0 ? [interfaceStep(scene, id, address, heard, evidence)] : []),
      ];
    });
}

/** By which of its interfaces a sender sends, told by where its packets come from. */
function interfaceStep(
  scene: Scene,
  id: string,
  planned: string,
  heard: readonly ObservedStream[],
  evidence: Evidence,
): PathStep {
  const other = planned === '' ? undefined : heard.find(({ address }) => address !== planned);
  const { address, key } = other ?? heard[0]!;
  return step(
    { kind: 'interface', id, part: '' },
    'interface',
    `Interface of ${scene.names.of(id)}`,
    planned === '' ? 'no address is planned' : planned,
    [other ? 'broken' : 'fine', 'heard', `packets come from ${address}`],
    evidence.stream(id, key),
  );
}

function strangerSteps(scene: Scene, evidence: Evidence): PathStep[] {
  const { near, world, seen, records } = scene;
  const wires = new Map(
    records.universe.map((one) => [wireKey({ protocol: one.protocol, number: one.wire }), one.number]),
  );
  return seen.streams
    .filter(({ key, sender }) => {
      const universe = wires.get(key);
      return universe !== undefined && near.universes.includes(universe) && !isMeant(world, { sender, key });
    })
    .map(({ key, sender, address, priority }) =>
      step(
        { kind: 'stream', id: String(wires.get(key)), part: sender },
        'sender',
        `${scene.names.of(sender)}, universe ${wires.get(key)}`,
        'not planned',
        [
          'broken',
          'heard',
          `heard from ${address}${fromWireKey(key).protocol === 'sacn' ? ` at priority ${priority}` : ''}`,
        ],
        evidence.stream(sender, key),
      ),
    );
}

function visualiserSteps(scene: Scene, evidence: Evidence): PathStep[] {
  return scene.world.visualisers
    .filter(({ id }) => scene.near.visualisers.has(id))
    .map(({ id, name, address, listens: all }) => {
      const said = scene.seen.visualisers.find((one) => one.id === id);
      // Of a link only what travels on it is asked.
      const listens =
        scene.near.subject.kind === 'link' ? all.filter((wire) => scene.near.wires.has(wireKey(wire))) : all;
      const artnet = listens.filter(({ protocol }) => protocol === 'artnet').map(wireKey);
      const lacks = artnet.filter((key) => !said?.gets.includes(key));
      return step(
        { kind: 'machine', id, part: '' },
        'visualiser',
        name,
        `${listens.length} universes at ${address}`,
        !said
          ? ['open', 'not known', 'does not answer']
          : lacks.length > 0
            ? ['broken', 'said', `gets ${artnet.length - lacks.length} of ${artnet.length} by Art-Net`]
            : artnet.length === 0
              ? ['open', 'not known', 'answers; of sACN it says nothing']
              : ['fine', 'said', `gets all ${artnet.length} by Art-Net`],
        evidence.node(id),
      );
    });
}

/** From the lamp back to the senders. */
export function pathOf(scene: Scene, whole: Whole): PathStep[] {
  const evidence = new Evidence(scene, whole);
  return [
    ...lampSteps(scene, whole, evidence),
    ...visualiserSteps(scene, evidence),
    ...portSteps(scene, evidence),
    ...senderSteps(scene, evidence),
    ...strangerSteps(scene, evidence),
  ];
}
