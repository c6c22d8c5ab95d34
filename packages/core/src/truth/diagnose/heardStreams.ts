/** Streams as they were heard, each with the sender of the show that it is of, and how it stands. */
import { wireKey } from '../../base/address';
import {
  isDiscarded,
  lateAfter,
  linesWith,
  raggedBecause,
  sendersOf,
  unrestHere,
  type Sender,
  type Unrest,
} from '../../network/flow';
import { addressesOf } from '../../network/ip';
import type { MachineEntry } from '../../network/node';
import { shortNameOf } from '../../network/node';
import type { Patch } from '../../rig/patch';
import type { Machine, ShowRecords } from '../../show/records';
import { MOST_OFFERS, type StreamReport, type SyncReport, type UniverseReport } from '../../signal/stream';
import type { Effect, ObservedStream } from '../simulate';
import { borrowedBy, genuineOf, isCalled } from './identity';

/** What of a live report tells of streams */
export interface StreamsHeard {
  /** Unix time, ms */
  readonly at: number;
  readonly universes: readonly UniverseReport[];
  readonly syncs: readonly SyncReport[];
}

const OWN = 'own-';
/** This computer's own output as a sender: slots that people took and routes are two. */
export const ownId = ({ cid, address }: Pick<StreamReport, 'cid' | 'address'>): string => `${OWN}${cid || address}`;
export const isOwn = (sender: string): boolean => sender.startsWith(OWN);

export const streamAge = (sender: string, key: number): string => `stream ${sender} ${key}`;

/** What was heard, and what that says of how it was heard. */
export interface HeardStreams {
  readonly heard: readonly ObservedStream[];
  /** Wire keys on which something began or ended so lately that boxes may not have noticed */
  readonly settling: ReadonlySet<number>;
  /** Half of all senders are late at once: what they have in common is this computer. */
  readonly lateHere: boolean;
  /** When what is known was last confirmed, Unix ms, by {@link streamAge} and others */
  readonly confirmed: ReadonlyMap<string, number>;
}

/** Fewer packets a second than this part of what is planned is slow. */
const SLOW = 0.4;
/** A stream is judged by its pace when it has run for so long, ms. */
const JUDGED_AFTER_MS = 1500;

function paceOf(
  stream: StreamReport,
  protocol: UniverseReport['protocol'],
  planned: number,
  at: number,
  here: Unrest,
  idles: boolean,
): ObservedStream['pace'] {
  const age = at - stream.lastSeen;
  const ran = stream.lastSeen - stream.firstSeen;
  if (
    ran > JUDGED_AFTER_MS &&
    !sendsOthersOnly(stream, at) &&
    stream.rate1 < planned * SLOW &&
    age < lateAfter(protocol) + 1000
  )
    return 'slow';
  return raggedBecause({ ...stream, protocol, age, here }, idles) === undefined ? 'even' : 'ragged';
}

/**
 * Which sender of the show a stream is of: by its name first, which is its own, then by where it comes from. `plannedAt`
 * tells where a machine is planned to be that answers at another address: what comes in at its inputs comes from there.
 */
function senderOf(
  stream: StreamReport,
  senders: readonly Sender[],
  machines: readonly Machine[],
  plannedAt: ReadonlyMap<string, string>,
): string | undefined {
  const named = senders.find(({ name }) => isCalled(name, stream));
  const place = plannedAt.get(stream.address) ?? stream.address;
  const from = senders.find(({ addresses }) => addresses.includes(place));
  if (named ?? from) return (named ?? from)!.id;
  const machine = machines.find(({ name }) => shortNameOf(name) === stream.name);
  return machine && senders.find(({ id }) => id === machine.id)?.id;
}

/** A sender that sends all the time and was not heard for so long is not heard now, ms; slower ones have three of their beats. */
const silentAfter = (rate: number): number => Math.max(1500, 3000 / rate);
/** A box takes ten seconds to give up an Art-Net sender (Art-Net 4, "Data merging"), and is asked every few seconds. */
const SETTLES_MS = 14_000;
const BEGINS_MS = 5000;
/** A synchronisation source that was silent for so long is lost (E1.31-2018, 6.7.1). */
const SYNC_LOST_MS = 2500;
/** Accepted packets a second: one in 2.5 s is enough for a source not to be lost (E1.31-2018, 6.7.1). */
const KEEPS_SAY = 0.4;
/** Frames a second of a sender of which nothing is planned */
const USUAL_RATE = 20;

/** It sent levels once, and now nothing but other start codes. */
const sendsOthersOnly = ({ rate1, startCodes }: StreamReport, at: number): boolean =>
  rate1 === 0 && startCodes.some(({ lastSeen }) => at - lastSeen < JUDGED_AFTER_MS);

/** How often a sender is planned to send a universe. */
function plannedRate(sender: Sender | undefined, universe: number | undefined): number {
  const line = sender && universe !== undefined ? linesWith(sender, universe)[0] : undefined;
  return line?.rate ?? USUAL_RATE;
}

/** Which of the slots that lamps need a stream controls, if it is alone; as far as that is told. */
function effectOf({ offers, levels, slotPriority }: StreamReport, slots: readonly number[] = []): Effect {
  // Of a stream without priorities for its slots its length is a trait of its own.
  if (!levels || !slotPriority) return 'all';
  if (offers.length === 0) return 'nothing';
  const told = offers.length < MOST_OFFERS ? Infinity : offers[offers.length - 1]!.to;
  const needs = slots.filter((slot) => slot <= told);
  if (needs.length === 0) return 'all';
  const has = needs.filter((slot) => offers.some(({ from, to }) => slot >= from && slot <= to)).length;
  return has === needs.length ? 'all' : has === 0 ? 'nothing' : 'some';
}

/** Slots (1–512) of a show universe that lamps have. */
const slotsNeeded = (patch: Patch, universe: number): number[] =>
  patch.universe(universe).flatMap(({ channel, length }) => Array.from({ length }, (_, i) => channel + i));

/** Where machines with inputs are planned to be, by the address at which they answer instead. */
const plannedPlaces = (entries: readonly MachineEntry[]): ReadonlyMap<string, string> =>
  new Map(
    entries.flatMap(({ plan, heard }) => {
      const planned = plan?.ports.some(({ use }) => use === 'in') ? addressesOf(plan).map(({ text }) => text) : [];
      return heard?.node && planned.length > 0 && !planned.includes(heard.address)
        ? [[heard.address, planned[0]!] as const]
        : [];
    }),
  );

export function heardStreams(
  records: ShowRecords,
  patch: Patch,
  { universes, at, syncs }: StreamsHeard,
  entries: readonly MachineEntry[],
): HeardStreams {
  const senders = sendersOf(records.machine);
  const planned = new Map(records.universe.map((one) => [wireKey({ protocol: one.protocol, number: one.wire }), one]));
  const synced = new Set(syncs.filter(({ lastSeen }) => at - lastSeen < SYNC_LOST_MS).map(({ universe }) => universe));
  const plannedAt = plannedPlaces(entries);
  const genuine = genuineOf(universes, senders, at);
  const needed = (universe: number) => slotsNeeded(patch, universe);
  const unrest = unrestHere(universes.flatMap((one) => one.streams));
  const settling = new Set<number>();
  const confirmed = new Map<string, number>();
  const heard: ObservedStream[] = [];
  for (const { key, protocol, streams: all } of universes)
    for (const stream of all) {
      if (stream.preview) continue;
      const borrows = stream.own ? undefined : borrowedBy(stream, key, senders, genuine);
      const sender = stream.own
        ? ownId(stream)
        : borrows
          ? senders.find(({ addresses }) => addresses.includes(stream.address))?.id
          : senderOf(stream, senders, records.machine, plannedAt);
      const its = senders.find(({ id }) => id === sender);
      const universe = planned.get(key);
      const rate = plannedRate(its, universe?.number);
      const age = at - stream.lastSeen;
      const idles = its !== undefined && its.lines.some(({ whenIdle }) => !whenIdle);
      // Of Art-Net a box need not look at the sequence (Art-Net 4, ArtDmx): what it makes of it is not known.
      const discarded = protocol === 'sacn' && isDiscarded(stream);
      const silent =
        !discarded && (stream.lost || (!idles && age > silentAfter(Math.min(rate, stream.rate10 || rate))));
      const who = sender ?? stream.address;
      confirmed.set(streamAge(who, key), Math.max(stream.lastSeen, confirmed.get(streamAge(who, key)) ?? 0));
      if ((silent && age < SETTLES_MS) || at - stream.firstSeen < BEGINS_MS) settling.add(key);
      if (silent) continue;
      const levels = stream.levels && stream.slotCount > 0 && !sendsOthersOnly(stream, at);
      // Whoever is not of the show and sends other start codes alone has no say anywhere.
      if (sender === undefined && !levels) continue;
      // Of a stranger a packet now and then that is accepted is enough to keep its say.
      const effect =
        discarded && (sender !== undefined || stream.rate10 < KEEPS_SAY)
          ? 'discarded'
          : effectOf(stream, universe && needed(universe.number));
      heard.push({
        sender: who,
        key,
        address: mainOf(its?.addresses ?? [], stream.address),
        priority: protocol === 'sacn' ? stream.priority : 0,
        pace: stream.own || discarded ? 'even' : paceOf(stream, protocol, rate, at, unrest(stream.address), idles),
        // Who names a synchronisation universe waits for it, sooner or later (E1.31-2018, 6.2.4.1).
        waits: protocol === 'sacn' && stream.syncAddress !== 0 && !synced.has(stream.syncAddress),
        levels,
        slots: stream.slotCount,
        twin: stream.twin,
        effect,
        ...(effect === 'some' && { offers: stream.offers }),
        ...(borrows && { borrows }),
      });
    }
  const lateHere = isLateHere(heard, new Set(senders.map(({ id }) => id)));
  return { heard: lateHere ? heard.map(asIfRagged) : heard, lateHere, settling, confirmed };
}

/**
 * Half of the show's senders at least, and more than one, are late: then it is what they have in common, this computer
 * and its link. Strangers may be late as they like.
 */
function isLateHere(heard: readonly ObservedStream[], ofShow: ReadonlySet<string>): boolean {
  const planned = heard.filter(({ sender }) => ofShow.has(sender));
  const senders = new Set(planned.map(({ sender }) => sender));
  const uneven = new Set(planned.filter(({ pace }) => pace !== 'even').map(({ sender }) => sender));
  return uneven.size > 1 && 2 * uneven.size >= senders.size;
}

/** What is received late or with gaps here says nothing of how evenly it was sent. */
const asIfRagged = (one: ObservedStream): ObservedStream => (isOwn(one.sender) ? one : { ...one, pace: 'ragged' });

/** A machine with several addresses is where it is planned to be at any of them: the first then stands for all. */
export const mainOf = (planned: readonly string[], address: string): string =>
  planned.includes(address) ? planned[0]! : address;
