/** Devices as they answer, and how pushes to them came out. */
import { devicePort } from '../../protocol/artnet';
import { integer, listOf, orNull, report, word, words, yesNo, type ReportOf } from '../../base/field';
import type { DiscoveryReport, UniverseReport } from '../../signal/stream';

export const nodePortReport = report('', {
  ...devicePort.fields,
  number: integer('Counted through all pages, from 1.'),
  page: integer('Its page, by BindIndex.'),
});
export interface NodePortReport extends ReportOf<typeof nodePortReport.fields> {}

/** What a node does when signal is lost, as far as Art-Net tells. */
export const FAIL_SAFES = ['hold', 'black', 'full', 'look'] as const;
export type FailSafe = (typeof FAIL_SAFES)[number];

export const nodeReport = report(
  'Node',
  {
    address: words(),
    mac: words(),
    shortName: words(),
    longName: words(),
    report: words('Its own report, as it writes it.'),
    kind: word(['node', 'console', 'media server', 'visualiser', 'other']),
    firmware: words('As two numbers with a dot.'),
    oem: integer(),
    indicators: word(['normal', 'mute', 'locate', 'unknown']),
    panelOnly: yesNo('Its Port-Addresses can be set at its front panel only.'),
    sacnCapable: yesNo(),
    rdmSwitch: yesNo(),
    directionSwitch: yesNo(),
    failSafe: orNull(word(FAIL_SAFES, 'Null if it does not say that it can do anything of the kind.')),
    dhcp: yesNo(),
    mask: words('From its answer to IpProg; empty if it gave none.'),
    gateway: words(),
    priority: integer('sACN priority of what its inputs send.'),
    ports: listOf<NodePortReport>(nodePortReport),
    partOf: words('Address of the product that it is part of, by its BindIp; empty if it stands alone.'),
    alsoHere: listOf(words(), 'Hardware addresses of other boxes that answer at its address.'),
    alsoAt: listOf(words(), 'Other addresses at which its hardware address answers.'),
    gone: yesNo(),
    firstSeen: integer('Unix time, ms.'),
    lastSeen: integer('Unix time, ms.'),
  },
  'A device that answers Art-Net polls, all its pages in one.',
);
export interface NodeReport extends ReportOf<typeof nodeReport.fields> {}

/** How a push to one machine came out. */
export const pushResult = report('PushResult', {
  machineId: words(),
  trouble: words('A sentence if nothing could be pushed, or nothing read back; else empty.'),
  fields: listOf(
    report('', {
      what: words(),
      planned: words(),
      seen: words(),
      state: word(
        ['done', 'refused', 'no answer', 'not supported'],
        'Refused: it answered after our packets and still differs. No answer: nobody knows.',
      ),
      panel: words('What to set at the front panel; empty if nothing.'),
    }),
  ),
  byHand: listOf(
    words(),
    'Planned settings that no packet sets or tells, in sentences: they are turned at the front panel.',
  ),
});
export interface PushResult extends ReportOf<typeof pushResult.fields> {}

/** What of the wire it takes to know who is there; a live report has it. */
export interface Heard {
  readonly nodes: readonly NodeReport[];
  readonly discovered: readonly DiscoveryReport[];
  readonly universes: readonly UniverseReport[];
}

/** A machine that was heard: it answers polls, or sends, or both. */
export interface HeardMachine {
  readonly address: string;
  readonly name: string;
  readonly node: NodeReport | undefined;
  /** Wire keys of the universes that it sends now */
  readonly sends: readonly number[];
  /** sACN universes that it announces */
  readonly announces: number;
  readonly gone: boolean;
  /** Unix time, ms */
  readonly firstSeen: number;
  readonly lastSeen: number;
}
