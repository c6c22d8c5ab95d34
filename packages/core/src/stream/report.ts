/** Streams and universes as they are heard. */
import { integer, listOf, orNull, real, report, word, words, yesNo, type ReportOf } from '../field';

/** The name under which Taxiarch sends. */
export const OWN_NAME = 'Taxiarch';

export const STREAM_STATES = ['steady', 'ragged', 'silent', 'stray', 'contested'] as const;
export type StreamState = (typeof STREAM_STATES)[number];

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
  waits: yesNo('Its last levels wait for their synchronisation packet.'),
  syncAddress: integer(),
  slotCount: integer(),
  rate1: real('Packets in the last second.'),
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
  universes: listOf(integer()),
  lastSeen: integer('Unix time, ms.'),
});
export interface DiscoveryReport extends ReportOf<typeof discoveryReport.fields> {}
