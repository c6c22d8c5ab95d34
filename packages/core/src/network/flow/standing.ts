/** Universes as planned beside universes as heard, and the one word that says how each stands. */
import { type Protocol, wireKey } from '../../base/address';
import { type Pennant, PENNANT_CUTS, PENNANT_FILLS, type Universe } from '../../show/records';
import type { Sender } from './senders';
import type { StreamState } from '../../signal/stream';
import { isSentBy } from './sentBy';

/** What the account of one stream says now, as far as its state depends on it. */
export interface HeardStream {
  readonly name: string;
  readonly address: string;
  readonly protocol: Protocol;
  /** Sent by this Taxiarch */
  readonly own: boolean;
  /** Own, and of a route that the show plans */
  readonly routed?: boolean;
  readonly preview: boolean;
  readonly lost: boolean;
  /** It sends levels, not only other start codes; assumed where nothing is said */
  readonly levels?: boolean;
  /** Another sender uses its component id at the same time. */
  readonly twin?: boolean;
  /** Milliseconds since the last packet */
  readonly age: number;
  /** Packets a second over ten seconds */
  readonly rate10: number;
  /** Packets missed in ten seconds */
  readonly missing10: number;
  /** Mean deviation of intervals, ms */
  readonly jitter: number;
  /** Packets of levels a second that are accepted, and packets a second that are discarded and why, in the last second */
  readonly rate1?: number;
  readonly discarded1?: number;
  readonly discarded?: '' | 'repeated' | 'late';
  /** Pauses of a quarter of a second and more in ten seconds */
  readonly pauses10?: number;
  /** What this computer adds to all streams alike; see {@link unrestHere} */
  readonly here?: Unrest;
  /** sACN; Art-Net has none */
  readonly priority?: number;
  readonly slotPriority?: boolean;
  /** Runs of slots that it has a say on; assumed to be all where nothing is said */
  readonly offers?: readonly { readonly from: number; readonly to: number }[];
}

/** How unevenly packets come. */
export interface Unrest {
  readonly pauses10: number;
  /** ms */
  readonly jitter: number;
}

const CALM: Unrest = { pauses10: 0, jitter: 0 };

/**
 * By address of a sender, what this computer adds to its streams: as little as the calmest stream of all others shows.
 * A computer that is held up holds up all of them; one sender that is uneven leaves the others as they are.
 */
export function unrestHere(
  streams: Iterable<Pick<HeardStream, 'address' | 'lost' | 'own' | 'rate10' | 'jitter' | 'pauses10'>>,
): (address: string) => Unrest {
  const calmest = new Map<string, Unrest>();
  for (const { address, lost, own, rate10, jitter, pauses10 = 0 } of streams) {
    if (lost || own || rate10 < BUSY) continue;
    const its = calmest.get(address) ?? { pauses10, jitter };
    calmest.set(address, { pauses10: Math.min(its.pauses10, pauses10), jitter: Math.min(its.jitter, jitter) });
  }
  const found = new Map<string, Unrest>();
  const without = (address: string): Unrest => {
    const others = [...calmest].flatMap(([other, unrest]) => (other === address ? [] : [unrest]));
    if (others.length === 0) return CALM;
    return {
      pauses10: Math.min(...others.map((one) => one.pauses10)),
      jitter: Math.min(...others.map((one) => one.jitter)),
    };
  };
  return (address) => {
    const known = found.get(address) ?? without(address);
    found.set(address, known);
    return known;
  };
}

/** A sender that keeps silent for longer than its keep-alive is late: E1.31 6.6.2 says 1 s, Art-Net 4 s. */
export const lateAfter = (protocol: Protocol): number => (protocol === 'sacn' ? 1300 : 4300);

/** Part of the packets that may go missing before a stream is called ragged. */
const LOSS_ALLOWED = 0.01;
/** Deviation of the intervals beyond which a stream is called ragged, ms: a frame and a half at 44 Hz. */
const JITTER_ALLOWED = 34;

/** More pauses in ten seconds than this are bursts: a stream that begins or ends makes one. */
const PAUSES_ALLOWED = 3;
/** A computer that is held up does not hold up all streams quite alike. */
const ALIKE = 2;
/** A stream of so many packets a second has no need to pause. */
const BUSY = 10;

const DISCARDED_WORDS = { repeated: 'the sequence number does not change', late: 'packets come out of order', '': '' };

/** Copies of a packet that a network may make; they are discarded, and nothing is lost by it. */
const COPIES = 3;

/** Far more packets are discarded than accepted: not for copies on the way, but for their sequence numbers. */
export const isDiscarded = ({ rate1 = 0, discarded1 = 0 }: Pick<HeardStream, 'rate1' | 'discarded1'>): boolean =>
  discarded1 > 0 && discarded1 > COPIES * rate1;

/** That a stream is discarded: in words, with both numbers; undefined if it is not. */
function discardedBecause(stream: HeardStream): string | undefined {
  const { rate1 = 0, discarded1 = 0, discarded = '' } = stream;
  if (!isDiscarded(stream)) return undefined;
  return `${Math.round(rate1 + discarded1)} packets a second received, ${Math.round(rate1)} accepted: ${DISCARDED_WORDS[discarded]}`;
}

/** Why a stream is not steady, in words; undefined if it is. `idles`: it is planned to pause while nothing changes. */
export function raggedBecause(stream: HeardStream, idles = false): string | undefined {
  const discarded = discardedBecause(stream);
  if (discarded) return discarded;
  if (stream.age > lateAfter(stream.protocol)) return `nothing for ${(stream.age / 1000).toFixed(1)} s`;
  const expected = stream.rate10 * 10 + stream.missing10;
  if (stream.missing10 > 0 && stream.missing10 > expected * LOSS_ALLOWED)
    return `${stream.missing10} packets lost in 10 s`;
  const { here = CALM } = stream;
  if (!idles && (stream.pauses10 ?? 0) > PAUSES_ALLOWED + ALIKE * here.pauses10 && stream.rate10 >= BUSY)
    return `comes in bursts: ${stream.pauses10} pauses in 10 s`;
  if (stream.jitter > JITTER_ALLOWED + ALIKE * here.jitter) return `intervals vary by ${Math.round(stream.jitter)} ms`;
  return undefined;
}

/** Whether a stream heard is one that the plan names as sender. */
export const isPlannedSender = (stream: HeardStream, senders: readonly Sender[]): boolean =>
  senders.some((sender) => isSentBy(stream, sender));

export interface UniverseStanding {
  readonly state: StreamState;
  /** A few words that say why; empty if steady. */
  readonly because: string;
}

/** Who they are, the first three by name. */
function namesOf(streams: readonly HeardStream[]): string {
  const named = streams.map(({ name, address }) => name || address);
  // Two of one name are told apart by where they send from.
  const names = streams.map(({ name, address }, i) =>
    name !== '' && named.filter((one) => one === name).length > 1 ? `${name} (${address})` : named[i]!,
  );
  return names.length <= 3
    ? names.join(' and ').replace(/ and (?=.* and )/g, ', ')
    : `${names.slice(0, 3).join(', ')} and ${names.length - 3} more`;
}

/** A box tells of a source that has gone for so long, ms: ten seconds to give it up, and until it is asked again. */
const TELLS_MS = 14_000;

/** Whether a port may merge what is received: two at the highest priority, priorities for slots, or who has just gone. */
function mayMerge(live: readonly HeardStream[], heard: readonly HeardStream[]): boolean {
  if (live.some(({ slotPriority }) => slotPriority)) return true;
  if (heard.some((stream) => !stream.preview && !live.includes(stream) && stream.age < TELLS_MS)) return true;
  const top = Math.max(...live.map(({ priority = 0 }) => priority));
  return live.filter(({ priority = 0 }) => priority === top).length > 1;
}

/** Why nothing that counts is heard. */
function silentBecause(there: readonly HeardStream[], heard: readonly HeardStream[]): string {
  if (there.some(({ levels = true, offers }) => levels && offers?.length === 0))
    return `${namesOf(there)}: received, but controls no slot`;
  if (there.length > 0) return `${namesOf(there)}: start codes that are no levels`;
  for (const stream of heard) {
    const discarded = stream.preview || stream.own ? undefined : discardedBecause(stream);
    if (discarded) return `${stream.name || stream.address}: ${discarded}`;
  }
  return 'planned, not heard';
}

/**
 * How a universe stands. `planned` are the senders planned to send it; undefined if the universe is
 * not in the show; `merging` is a port that reports a merge of it, by its name. Previews, streams gone
 * silent and Taxiarch's own stream do not contest anything.
 */
export function standingOf(
  planned: readonly Sender[] | undefined,
  heard: readonly HeardStream[],
  merging?: string,
): UniverseStanding {
  const there = heard.filter((stream) => !stream.lost && !stream.preview && (!stream.own || stream.routed));
  const live = there.filter(({ levels = true, offers }) => levels && (offers === undefined || offers.length > 0));
  if (planned === undefined) return { state: 'stray', because: 'heard, not planned' };
  if (live.length === 0) return { state: 'silent', because: silentBecause(there, heard) };
  const twins = live.filter(({ twin }) => twin);
  if (twins.length > 1)
    return {
      state: 'contested',
      because: `one component id, from ${twins.map(({ address }) => address).join(' and ')}`,
    };
  const strangers = live.filter((stream) => !stream.routed && !isPlannedSender(stream, planned));
  if (live.length > Math.max(1, planned.length) || (strangers.length > 0 && planned.length > 0))
    return {
      state: 'contested',
      because:
        strangers.length > 0 && strangers.length < live.length
          ? `${namesOf(strangers)} also ${strangers.length === 1 ? 'sends' : 'send'}`
          : strangers.length > 0
            ? `${namesOf(strangers)} ${strangers.length === 1 ? 'sends' : 'send'} instead`
            : `${namesOf(live)} all send`,
    };
  for (const stream of live) {
    const sender = planned.find((one) => isSentBy(stream, one));
    const because = raggedBecause(
      stream,
      sender?.lines.some(({ whenIdle }) => !whenIdle),
    );
    if (because) return { state: 'ragged', because: `${stream.name}: ${because}` };
  }
  // A port merges at one priority: where one sender alone is received, another sends to the node by unicast.
  if (merging !== undefined && !mayMerge(live, heard))
    return { state: 'contested', because: `${merging} reports a merge: another device sends there too` };
  return { state: 'steady', because: '' };
}

/** Planned universes by the wire key under which they travel. */
export const universesByWire = (universes: readonly Universe[]): Map<number, Universe> =>
  new Map(universes.map((one) => [wireKey({ protocol: one.protocol, number: one.wire }), one]));

/** Taxiarch's own flag. */
export const OWN_PENNANT: Pennant = { letter: 'T', cut: 'square', fill: 'bars' };

/**
 * The flag of a stream: the planned sender's, Taxiarch's own, or for a stranger one made from its
 * name and address, the same every time.
 */
export function pennantOf(stream: Pick<HeardStream, 'name' | 'address' | 'own'>, senders: readonly Sender[]): Pennant {
  if (stream.own) return OWN_PENNANT;
  const planned =
    senders.find((sender) => sender.name === stream.name) ??
    senders.find((sender) => sender.addresses.includes(stream.address));
  if (planned) return planned.pennant;
  let hash = 0;
  for (const character of `${stream.name} ${stream.address}`) hash = (hash * 31 + character.charCodeAt(0)) >>> 0;
  return {
    letter: (stream.name.trim()[0] ?? '?').toUpperCase(),
    cut: PENNANT_CUTS[hash % PENNANT_CUTS.length]!,
    fill: PENNANT_FILLS[(hash >> 4) % PENNANT_FILLS.length]!,
  };
}
