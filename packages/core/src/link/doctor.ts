/**
 * The doctor of a link between a sender and a visualiser: a short list, worked through live. What can
 * be seen on the wire is seen; the rest is asked of the person who stands there.
 */
import { formatUniverses, formatWire, protocolName, wireKey } from '../address';
import type { LiveReport, NodeReport, StreamReport } from '../contract';
import { isSentBy, rangesWith, sentTo } from '../flow';
import { addressesOf, canReach, isLoopback, isStandIn } from '../ip';
import { changed, type Plan } from '../patch';
import { layRuns } from '../pixel';
import type { Link, Machine, ShowRecords, Source } from '../show';
import { linkedUniverses, type LinkedUniverse } from './linked';

export type DoctorState = 'fine' | 'must fix' | 'ask';

export interface DoctorLine {
  readonly name: string;
  readonly title: string;
  readonly state: DoctorState;
  readonly says: string;
  /** What to do; empty if it is fine */
  readonly mend: string;
  readonly repair?: { readonly label: string; readonly plan: Plan };
}

type Heard = Pick<LiveReport, 'universes' | 'nodes'>;

/** What the checks look at, gathered once. */
interface Case {
  readonly link: Link;
  readonly records: ShowRecords;
  readonly source: Source;
  readonly sender: Machine | undefined;
  readonly visualiser: Machine;
  /** Universes of the link with where each goes out and where the visualiser listens for it */
  readonly universes: readonly LinkedUniverse[];
  readonly streams: readonly { readonly universe: number; readonly stream: StreamReport }[];
  readonly node: NodeReport | undefined;
  readonly used: readonly number[];
}

const fine = (name: string, title: string, says: string): DoctorLine => ({
  name,
  title,
  state: 'fine',
  says,
  mend: '',
});
const wrong = (name: string, title: string, says: string, mend: string): DoctorLine => ({
  name,
  title,
  state: 'must fix',
  says,
  mend,
});

/** A question; fine once the person has said so. */
function ask({ link }: Case, name: string, title: string, says: string, mend: string): DoctorLine {
  return link.well.includes(name)
    ? fine(name, title, 'Looked at, and found well.')
    : { name, title, state: 'ask', says, mend };
}

function together({ records, sender, visualiser, source }: Case): DoctorLine {
  const title = 'On one computer, or on one network';
  if (!sender)
    return wrong(
      'together',
      title,
      `No machine of the plan is called ${source.name}.`,
      'Plan its machine in Wire, with its address.',
    );
  if (sender.id === visualiser.id) return fine('together', title, 'Both are one computer.');
  const reach = canReach(sender, visualiser, records.network);
  return reach.reaches
    ? fine('together', title, reach.sentence)
    : wrong('together', title, reach.sentence, `Give ${visualiser.name} an address in the network of ${sender.name}.`);
}

function mask({ sender, visualiser }: Case): DoctorLine {
  const title = 'Subnet and mask';
  const [a, b] = [sender && addressesOf(sender)[0], addressesOf(visualiser)[0]];
  if (!a || !b)
    return wrong(
      'mask',
      title,
      'One of the two has no address in the plan.',
      'Give both an address in Wire, Addresses.',
    );
  const says = `${a.text}/${a.prefix} and ${b.text}/${b.prefix}`;
  return a.prefix === b.prefix
    ? fine('mask', title, `${says}: the same mask.`)
    : wrong('mask', title, `${says}: the masks differ.`, 'Give both the same mask.');
}

/** The visualiser is heard, and from the address that it is planned to have. */
function interfaces({ records, visualiser, sender, streams, node }: Case): DoctorLine {
  const title = 'The right interface on each side';
  const planned = addressesOf(visualiser).map(({ text }) => text);
  const from = [...new Set(streams.map(({ stream }) => stream.address))];
  const should = sender ? addressesOf(sender).map(({ text }) => text) : [];
  const strange = from.find((address) => should.length > 0 && !should.includes(address));
  if (strange !== undefined)
    return wrong(
      'interface',
      title,
      `${sender!.name} sends from ${strange}; planned is ${should.join(' or ')}.`,
      `Choose the interface ${should[0]} in the network settings of ${sender!.name}.`,
    );
  if (node && !planned.includes(node.address))
    return wrong(
      'interface',
      title,
      `${visualiser.name} answers from ${node.address}; planned is ${planned.join(' or ') || 'no address'}.`,
      `Choose the interface ${planned[0] ?? ''} in the network settings of ${visualiser.name}.`,
    );
  const ends = [...addressesOf(visualiser), ...(sender ? addressesOf(sender) : [])];
  const loop = ends.find(({ number }) => isLoopback(number) && !isStandIn(number, records.network));
  if (loop && sender?.id !== visualiser.id)
    return wrong(
      'interface',
      title,
      `${loop.text} is loopback: it reaches programs of the same computer only.`,
      'Choose an interface of the network instead.',
    );
  return node
    ? fine('interface', title, `${visualiser.name} answers from ${node.address}, as planned.`)
    : {
        name: 'interface',
        title,
        state: 'ask',
        says: `${visualiser.name} does not answer polls, so its interface cannot be seen from here.`,
        mend: `Look in its network settings that ${planned[0] ?? 'its address'} is chosen.`,
      };
}

function protocol({ link, source, universes, streams }: Case): DoctorLine {
  const title = `${protocolName(link.protocol)} is on at the sender`;
  const other = universes.find(({ sent }) => sent && sent.protocol !== link.protocol);
  if (other)
    return wrong(
      'protocol',
      title,
      `${source.name} is planned to send universe ${other.universe} by ${protocolName(other.sent!.protocol)}.`,
      `Set its line, or this link, to the same protocol.`,
    );
  return streams.length > 0
    ? fine('protocol', title, `${source.name} is heard by ${protocolName(link.protocol)}.`)
    : wrong(
        'protocol',
        title,
        `Nothing of ${source.name} is heard by ${protocolName(link.protocol)}.`,
        `Switch ${protocolName(link.protocol)} on at ${source.name}, and its output.`,
      );
}

function onTheWire({ universes, streams, source }: Case): DoctorLine {
  const title = 'The universes are on the wire now';
  const heard = new Set(streams.map(({ universe }) => universe));
  const silent = universes.map(({ universe }) => universe).filter((universe) => !heard.has(universe));
  return silent.length === 0
    ? fine('universes', title, `All ${universes.length} are heard.`)
    : wrong(
        'universes',
        title,
        `${silent.length} of ${universes.length} are not heard from ${source.name}: ${formatUniverses(silent)}.`,
        `Switch these on in the outputs of ${source.name}; some senders are silent while nothing changes.`,
      );
}

/** The difference that all universes have in common; undefined if they have none, or several. */
function commonShift(pairs: readonly (readonly [number, number])[]): number | undefined {
  const shifts = new Set(pairs.map(([a, b]) => b - a));
  return shifts.size === 1 ? [...shifts][0] : undefined;
}

/** Wire numbers of everything that is linked to a link's visualiser by its protocol. */
function wantedBy(
  { machineId, protocol: by }: Link,
  { link: links, source: sources, universe }: ShowRecords,
): number[] {
  return links.flatMap((one) => {
    const source = sources.find(({ id }) => id === one.sourceId);
    if (one.machineId !== machineId || one.protocol !== by || !source) return [];
    return linkedUniverses(one, source, universe).flatMap(({ sent }) => (sent?.protocol === by ? [sent.number] : []));
  });
}

/** Numbers as planned on both ends, and those that the visualiser says it listens to. */
function base({ link, records, universes, node, visualiser }: Case): DoctorLine {
  const title = 'Numbering begins alike';
  const pairs = universes.flatMap(({ sent, heard }) =>
    sent && sent.protocol === heard.protocol ? [[sent.number, heard.number] as const] : [],
  );
  const planned = commonShift(pairs);
  if (planned !== 0 && pairs.length > 0) {
    const first = universes.find(({ sent }) => sent)!;
    const says = `${formatWire(first.sent!)} is sent and ${formatWire(first.heard)} is listened to`;
    const turned = { ...link, receiverBase: (1 - link.receiverBase) as Link['receiverBase'] };
    const mends =
      link.protocol === 'artnet' &&
      linkedUniverses(
        turned,
        records.source.find(({ id }) => id === link.sourceId)!,
        records.universe,
      ).every(({ sent, heard }) => !sent || wireKey(sent) === wireKey(heard));
    return {
      ...wrong(
        'base',
        title,
        planned === undefined
          ? `${says}; the others differ too, each in its own way.`
          : `${says}: off by ${Math.abs(planned)}.`,
        mends
          ? `${visualiser.name} counts from ${turned.receiverBase}.`
          : 'Change the numbers in the lines of this link.',
      ),
      ...(mends && {
        repair: {
          label: `Say that it counts from ${turned.receiverBase}`,
          plan: {
            sentence: `Said that ${visualiser.name} counts from ${turned.receiverBase}`,
            changes: [changed('link', link, turned)],
            lines: [
              {
                subject: `${link.name}, ${visualiser.name} counts from`,
                before: String(link.receiverBase),
                after: String(turned.receiverBase),
              },
            ],
          },
        },
      }),
    };
  }
  const listens = node?.ports
    .filter(({ direction, sacn }) => direction === 'out' && !sacn)
    .map((one) => one.portAddress);
  if (link.protocol === 'artnet' && listens && listens.length > 0) {
    const there = new Set(listens);
    // All that is linked to it counts: one link's numbers, moved by one, may be its neighbour's.
    const wanted = wantedBy(link, records);
    const shift = wanted.every((number) => there.has(number))
      ? undefined
      : [1, -1].find((by) => wanted.every((number) => there.has(number + by)));
    const lacks = universes.filter(({ sent }) => sent && !there.has(sent.number));
    if (lacks.length === 0 && shift === undefined)
      return fine('base', title, `${visualiser.name} says that it listens to these.`);
    return wrong(
      'base',
      title,
      shift === undefined
        ? `${visualiser.name} does not listen to ${lacks.map(({ sent }) => formatWire(sent!)).join(', ')}.`
        : `${visualiser.name} listens ${shift > 0 ? 'one above' : 'one below'} what is sent: it is off by one.`,
      shift === undefined
        ? `Switch these universes on in ${visualiser.name}.`
        : `Set ${visualiser.name} to count from ${shift > 0 ? 1 : 0}.`,
    );
  }
  return link.protocol === 'sacn'
    ? fine('base', title, 'sACN counts from 1 everywhere.')
    : fine('base', title, 'The numbers of both ends agree in the plan.');
}

function enough({ link, used, universes }: Case): DoctorLine {
  const title = 'As many universes as are used';
  const linked = new Set(universes.map(({ universe }) => universe));
  const lacking = used.filter((universe) => !linked.has(universe));
  return lacking.length === 0
    ? fine('enough', title, `All ${used.length} that it sends by ${protocolName(link.protocol)} and that feed lamps.`)
    : wrong(
        'enough',
        title,
        `${formatUniverses(lacking)} ${lacking.length === 1 ? 'feeds' : 'feed'} lamps and ${lacking.length === 1 ? 'is' : 'are'} not in this link.`,
        'Add them to its lines.',
      );
}

/** Seen only where both began while we listened; a machine that was there before is asked about. */
function order(one: Case, listeningSince: number): DoctorLine {
  const title = 'The visualiser was started after the sender';
  const { node, streams, visualiser, source } = one;
  const began = Math.max(0, ...streams.map(({ stream }) => stream.firstSeen));
  const beforeUs = (at: number) => at - listeningSince < ALREADY_THERE_MS;
  if (node && streams.length > 0 && !(beforeUs(node.firstSeen) && beforeUs(began))) {
    return node.firstSeen > began
      ? fine('order', title, `${source.name} was heard before ${visualiser.name}.`)
      : wrong(
          'order',
          title,
          `${visualiser.name} was there ${Math.round((began - node.firstSeen) / 1000)} s before ${source.name} sent all of it.`,
          `Start ${visualiser.name} again: some programs look for senders only when they begin.`,
        );
  }
  return ask(
    one,
    'order',
    title,
    'Both were there before Taxiarch began to listen.',
    `If nothing moves in ${visualiser.name}, start it again: some programs look for senders only when they begin.`,
  );
}

/** What was heard in so short a time after listening began was there before. */
const ALREADY_THERE_MS = 15_000;

function firewall(one: Case): DoctorLine {
  const title = 'No firewall between';
  const { node, visualiser, link } = one;
  if (node && link.protocol === 'artnet')
    return fine('firewall', title, `${visualiser.name} answers polls, so Art-Net’s port is open there.`);
  return ask(
    one,
    'firewall',
    title,
    node
      ? `${visualiser.name} answers polls; whether sACN gets through cannot be seen from here.`
      : `${visualiser.name} is not heard at all.`,
    `Allow ${visualiser.name} to receive UDP on port ${link.protocol === 'sacn' ? 5568 : 6454}, and set its network to private.`,
  );
}

const fed = new WeakMap<ShowRecords, ReadonlySet<number>>();

/** Universes that feed lamps or pixels; found once for each show. */
function fedUniverses(records: ShowRecords): ReadonlySet<number> {
  let universes = fed.get(records);
  if (!universes) {
    universes = new Set([
      ...records.lamp.flatMap(({ universe, blocks }) => [universe, ...blocks.map((at) => at.universe)]),
      ...layRuns(records.run, records.machine).flatMap(({ segments }) => segments.map((at) => at.universe)),
    ]);
    fed.set(records, universes);
  }
  return universes;
}

/** All lines in the order in which a person works through them; empty if the link's ends are gone. */
export function doctor(
  link: Link,
  records: ShowRecords,
  live: Heard & Pick<LiveReport, 'listeningSince'>,
): DoctorLine[] {
  const source = records.source.find(({ id }) => id === link.sourceId);
  const visualiser = records.machine.find(({ id }) => id === link.machineId);
  if (!source || !visualiser) return [];
  const sender =
    records.machine.find(({ name }) => name === source.name) ??
    records.machine.find((machine) => addressesOf(machine).some(({ text }) => text === source.address));
  const universes = linkedUniverses(link, source, records.universe);
  const reports = new Map(live.universes.map((one) => [one.key, one]));
  const streams = universes.flatMap(({ universe, sent }) =>
    (sent && sent.protocol === link.protocol ? (reports.get(wireKey(sent))?.streams ?? []) : [])
      .filter((stream) => !stream.lost && !stream.own && isSentBy(stream, source))
      .map((stream) => ({ universe, stream })),
  );
  const addresses = new Set(addressesOf(visualiser).map(({ text }) => text));
  const node =
    live.nodes.find((one) => !one.gone && addresses.has(one.address)) ??
    live.nodes.find((one) => !one.gone && one.shortName === visualiser.name);
  const planned = new Map(records.universe.map((one) => [one.number, one]));
  const used = [...fedUniverses(records)]
    .filter((universe) =>
      rangesWith(source, universe).some(
        (range) => sentTo(range, universe, planned.get(universe))?.protocol === link.protocol,
      ),
    )
    .sort((a, b) => a - b);
  const one: Case = { link, records, source, sender, visualiser, universes, streams, node, used };
  return [
    together(one),
    mask(one),
    interfaces(one),
    protocol(one),
    onTheWire(one),
    base(one),
    enough(one),
    order(one, live.listeningSince),
    firewall(one),
  ];
}
