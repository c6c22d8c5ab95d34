/** Nodes on the network, and the stand-ins of the demo, over HTTP. */
import {
  atLeastOne,
  flag,
  integer,
  list,
  listOf,
  name,
  optional,
  orNone,
  plain,
  real,
  report,
  shape,
  text,
  word,
  words,
  yesNo,
  type ReportOf,
  plainOf,
} from '../../base/field';
import { nodeReport, pushResult, type NodeReport, type PushResult } from '../../network/node';
import { PORT_USES } from '../../show/records';
import { at } from './endpoint';

const MOST_MACHINES = 1000;

export interface PushRequest {
  readonly machineIds: readonly string[];
  /** Push these kept settings instead of the plan’s. */
  readonly snapshotId?: string | undefined;
}

const pushReply = report('Pushed', { results: listOf<PushResult>(pushResult) });
export interface PushReply extends ReportOf<typeof pushReply.fields> {}

export const standInPort = report('', {
  number: integer(),
  use: word(PORT_USES),
  protocol: word(['sacn', 'artnet']),
  wire: integer('Port-Address or sACN universe.'),
  merge: words(),
  state: words(),
  peak: integer('The highest level that leaves it.'),
  lit: integer('How many slots are above 0.'),
  sources: listOf(words()),
});
/** One of a stand-in's ports as its front panel shows it. */
export interface StandInPort extends ReportOf<typeof standInPort.fields> {}

const visualiserFaults = report('', {
  base: word([0, 1], 'What it calls the first Art-Net universe; 1 is right.'),
  iface: word(['right', 'wrong']),
  otherMode: yesNo('One lamp of its patch is in another mode.'),
  early: yesNo('It was started before its sender, and has not noticed.'),
});
/** What the visualiser stand-in has wrong on purpose, so that there is something to find. */
export interface VisualiserFaults extends ReportOf<typeof visualiserFaults.fields> {}

const visualiserNow = report('', {
  faults: plain<VisualiserFaults>(visualiserFaults.schema),
  received: integer('Of its universes, how many it receives.'),
  universes: integer(),
  missing: words(),
  page: words('Address of the page that shows the ship.'),
});

const rigNow = report('', {
  lamps: integer('How many hang.'),
  lit: integer('How many give light now.'),
  wrong: listOf(words(), 'What is wrong with lamps and cables on purpose, a sentence each.'),
  page: words('Address of the page that shows the ship as it is really lit.'),
});

const adapterNow = report('', {
  use: word(['out', 'in'], 'It feeds lamps, or a desk feeds it.'),
  at: words('Host and port of its serial port by RFC 2217.'),
  says: words('How the frames come on its line.'),
});

export const standIn = report(
  'StandIn',
  {
    id: words(),
    name: words(),
    kind: word(['console', 'node', 'media server', 'wall panel', 'visualiser', 'rig', 'adapter']),
    model: words(),
    address: words(),
    mask: words(),
    stranger: orNone(yesNo('Nobody planned it; it is off until somebody switches it on.')),
    powered: yesNo(),
    plugged: yesNo(),
    loses: real('Part of its packets that it loses, 0–1.'),
    delays: real('How long it keeps the others, ms.'),
    locating: yesNo(),
    cue: words(),
    cues: listOf(words()),
    master: integer('0–100.'),
    faders: listOf(integer(), 'Faders on its front, 0–255.'),
    timeCode: orNone(yesNo('It sends time code by Art-Net.')),
    ports: listOf<StandInPort>(standInPort),
    visualiser: orNone(visualiserNow),
    rig: orNone(rigNow),
    adapter: orNone(adapterNow),
    rigPage: orNone(words('Address of the page of the rig that it holds.')),
  },
  'One box of the demo’s bench.',
);
export interface StandIn extends ReportOf<typeof standIn.fields> {}

const standIns = listOf<StandIn>(standIn);

export const DEVICE_ENDPOINTS = {
  push: at('push', {
    says: 'Set nodes as planned, or as a snapshot was, and read them back.',
    body: plainOf<PushRequest>(
      shape('Request', {
        machineIds: atLeastOne(
          list('Machines', name('Machine', { longest: 80 }), MOST_MACHINES, {
            what: 'Say which machines: “machineIds”',
          }),
          'Name at least one machine.',
        ),
        snapshotId: optional(text('Snapshot', 80)),
      }),
    ),
    reply: pushReply,
    problems: ['not-understood', 'safe', 'not-here', 'not-ready'],
  }),
  locate: at('locate', {
    says: 'Make a node’s lights flash, or stop that.',
    body: shape('Request', {
      address: text('Address', 40, { what: 'Say which node: “address”' }),
      on: flag('On', { what: 'Whether to be on' }),
    }),
    reply: plain<NodeReport>(nodeReport.schema),
    problems: ['not-understood', 'safe', 'not-here', 'no-answer', 'not-ready'],
  }),
  scan: at('scan', { says: 'Ask for nodes at once.', reply: report('', { asked: yesNo() }) }),
  readStandIns: at('readStandIns', {
    says: 'The stand-ins of the demo show.',
    reply: standIns,
    problems: ['not-here', 'not-ready'],
  }),
  handleStandIn: at('handleStandIn', {
    says: 'Do something to a stand-in: power, cable, trouble, or a turn at its front panel.',
    body: plain<object>({ type: 'object' }),
    reply: standIns,
    problems: ['not-understood', 'not-here', 'not-ready'],
  }),
} as const;
