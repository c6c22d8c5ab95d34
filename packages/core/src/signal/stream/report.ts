/** Streams and universes as they are heard. */
import { integer, listOf, orNull, real, report, word, words, yesNo, type ReportOf } from '../../base/field';

/** The name under which Taxiarch sends. */
export const OWN_NAME = 'Taxiarch';

export const STREAM_STATES = ['steady', 'ragged', 'silent', 'stray', 'contested'] as const;
export type StreamState = (typeof STREAM_STATES)[number];

/** Packets of one alternate start code of a stream. */
export const startCodeReport = report('StartCode', {
  code: integer('1–255.'),
  packets: integer(),
  says: words('The last one in words; empty if it says nothing that can be read.'),
  lastSeen: integer('Unix time, ms.'),
});
export interface StartCodeReport extends ReportOf<typeof startCodeReport.fields> {}

/** Runs of slots that are told of one stream: what a stranger may send takes no more room. */
export const MOST_OFFERS = 64;

export const streamReport = report('Stream', {
  mark: integer('By this number, 0–254, frames name the stream as owner of a slot; unique in its universe.'),
  name: words(),
  address: words(),
  cid: words('sACN component id; empty for Art-Net.'),
  priority: integer(),
  slotPriority: yesNo('It sends a priority for each slot.'),
  preview: yesNo(),
  terminated: yesNo(),
  lost: yesNo(),
  own: yesNo('This Taxiarch’s own output, heard back from the wire.'),
  routed: yesNo('Own, and of a route; otherwise of slots that people took.'),
  levels: yesNo('It has sent levels; otherwise nothing but other start codes.'),
  twin: yesNo('Another sender uses the same component id at the same time.'),
  physical: integer('Art-Net: the sender’s physical input; 0 for sACN.'),
  ipv6: yesNo('It is heard by IPv6, alone or beside IPv4.'),
  startCodes: listOf<StartCodeReport>(startCodeReport, 'What else it sends beside levels and priorities for slots.'),
  waits: yesNo('Its last levels wait for their synchronisation packet.'),
  syncAddress: integer(),
  slotCount: integer(),
  rate1: real('Packets of levels accepted in the last second.'),
  discarded1: real('Packets of the last second that receivers discard, by their sequence.'),
  discarded: word(['', 'repeated', 'late'], 'Why one was discarded last; empty if none was.'),
  pauses10: integer('Pauses of a quarter of a second and more between packets of levels, in ten seconds.'),
  offers: listOf(
    report('', { from: integer('1–512.'), to: integer('1–512.') }),
    'Slots for which it has levels and a priority above 0: the first 64 runs.',
  ),
  rate10: real('Packets a second over ten seconds.'),
  jitter: real('Mean deviation of the intervals, milliseconds.'),
  packets: integer(),
  missing: integer(),
  missing10: integer('Packets missed in ten seconds.'),
  repeats: integer(),
  late: integer(),
  firstSeen: integer('Unix time, ms.'),
  lastSeen: integer('Unix time, ms.'),
});
export interface StreamReport extends ReportOf<typeof streamReport.fields> {}

export const universeReport = report('LiveUniverse', {
  key: integer('sACN universe, or 65536 + Art-Net Port-Address; see `wireKey`.'),
  protocol: word(['sacn', 'artnet']),
  number: integer('Number on the wire.'),
  show: orNull(integer('Show universe; null if it is not in the plan.')),
  name: words(),
  state: word(STREAM_STATES),
  because: words('A few words that say why; empty if steady.'),
  streams: listOf<StreamReport>(streamReport),
});
export interface UniverseReport extends ReportOf<typeof universeReport.fields> {}

/** Who announces universes by sACN (ANSI E1.31-2018, clause 8, universe discovery). */
export const discoveryReport = report('Discovered', {
  cid: words(),
  name: words(),
  address: words(),
  universes: listOf(integer(), 'The first of them.'),
  count: integer('How many it announces.'),
  lastSeen: integer('Unix time, ms.'),
});
export interface DiscoveryReport extends ReportOf<typeof discoveryReport.fields> {}

/** Looking through sACN universes that nobody plans or announces. */
export const sweepReport = report('Sweep', {
  running: yesNo(),
  total: integer('Universes to look through.'),
  done: integer('Of them are looked through.'),
  at: integer('The universe from which it listens now; 0 while it does not run.'),
  found: listOf(integer(), 'sACN universes on which something was heard, this time.'),
  looked: listOf(
    report('', { from: integer(), to: integer(), at: integer('Unix time, ms.') }),
    'Ranges looked through since the engine began, the latest last.',
  ),
});
export interface SweepReport extends ReportOf<typeof sweepReport.fields> {}

/** Multicast groups that are joined, one for each sACN universe that is listened to. */
export const membershipReport = report('Membership', {
  wanted: integer('Groups that are needed.'),
  joined: integer(),
  ipv6: integer('Of them are joined by IPv6 as well.'),
  most: integer('As many as the settings allow.'),
  full: yesNo('The system lets no more be joined, though more are needed.'),
});
export interface MembershipReport extends ReportOf<typeof membershipReport.fields> {}

/** A source of synchronisation packets. */
export const syncReport = report('Sync', {
  protocol: word(['sacn', 'artnet']),
  universe: integer('sACN universe that the packets carry; 0 for ArtSync, which is for all that its sender sends.'),
  cid: words('sACN component id; empty for ArtSync.'),
  address: words(),
  rate1: real('Packets in the last second.'),
  missing: integer('Lost, by their sequence.'),
  late: integer('Late or repeated, by their sequence; they release nothing.'),
  firstSeen: integer('Unix time, ms.'),
  lastSeen: integer('Unix time, ms.'),
});
export interface SyncReport extends ReportOf<typeof syncReport.fields> {}

/** What an Art-Net sender says beside levels. */
export const alsoHeardReport = report('AlsoHeard', {
  kind: word(['timecode', 'diagnostics', 'trigger', 'command']),
  address: words(),
  count: integer('Packets since start.'),
  says: words('The last one in words.'),
  changedAt: integer('When it last said something else, Unix time, ms.'),
  lastSeen: integer('Unix time, ms.'),
});
export interface AlsoHeardReport extends ReportOf<typeof alsoHeardReport.fields> {}
