/** What is on the wire, what Taxiarch sends, and the settings of this computer, over HTTP and the feed. */
import {
  flag,
  integer,
  listOf,
  mapOf,
  name,
  optional,
  orNone,
  orNull,
  plain,
  real,
  report,
  shape,
  text,
  words,
  yesNo,
  list,
  type ReportOf,
  plainOf,
} from '../../base/field';
import { plugReport, type PlugReport } from '../../protocol/plug';
import { settingsChange, settingsReply, type Settings } from './settings';
import { pictureReport, type PictureReport } from '../../rig/picture';
import { interfaceInfo, type InterfaceInfo } from '../../network/ip';
import { happening, type Happening } from '../../truth/known';
import { nodeReport, type NodeReport } from '../../network/node';
import { controlReport, routeReport, type ControlReport, type RouteReport } from '../../signal/route';
import {
  alsoHeardReport,
  discoveryReport,
  membershipReport,
  sweepReport,
  syncReport,
  universeReport,
  type AlsoHeardReport,
  type DiscoveryReport,
  type MembershipReport,
  type SweepReport,
  type SyncReport,
  type UniverseReport,
} from '../../signal/stream';
import { at } from './endpoint';
import { takenLevels } from './levels';

/** Something that a person should know of this computer or its data, until it is over. */
export const notice = report('Notice', {
  id: words('Stays the same while it stands.'),
  at: integer('Unix time, ms.'),
  sentence: words('What happened, and what was done about it.'),
  mend: words('What to do; empty if nothing.'),
});
export interface Notice extends ReportOf<typeof notice.fields> {}

export const holdReport = report('', {
  holder: words('Who holds it: the name that its feed was told. A client’s own id is told to nobody.'),
  by: words(),
  key: integer(),
  universe: integer('Show universe.'),
  runs: listOf(
    plain<readonly [number, number]>({ type: 'array', items: { type: 'integer' }, minItems: 2, maxItems: 2 }),
    'Runs of channels from 1, both ends included.',
  ),
  since: integer(),
  stay: yesNo('Keeps sending when its person goes away.'),
});
/** A run of slots that somebody has taken. */
export interface HoldReport extends ReportOf<typeof holdReport.fields> {}

export const outputReport = report('Output', {
  hot: yesNo(),
  since: integer('Unix time of going hot, ms; 0 while safe.'),
  by: words(),
  holds: listOf<HoldReport>(holdReport),
  rate: real('Packets sent in the last second.'),
  pictures: listOf<PictureReport>(pictureReport, 'Test pictures that run.'),
  targets: mapOf(listOf(words()), 'Where taken Art-Net universes go, by key; empty if no node lists them.'),
});
export interface OutputReport extends ReportOf<typeof outputReport.fields> {}

const nullableInterface = orNull<InterfaceInfo>(interfaceInfo);

export const liveReport = report('Live', {
  at: integer('Unix time, ms, at which all this was so.'),
  age: integer('How old it was when it was sent, ms; more than 2000 is not now.'),
  listeningSince: integer('Unix time at which the engine began to listen, ms.'),
  interface: nullableInterface,
  artnetInterface: nullableInterface,
  listed: listOf(integer(), 'Port-Addresses that polls are told we listen to, as a node.'),
  polled: yesNo('Boxes are polled; otherwise that one says nothing means nothing.'),
  trouble: words('Something in a sentence that keeps the engine from listening; empty if nothing does.'),
  notices: listOf<Notice>(notice, 'Newest first.'),
  universes: listOf<UniverseReport>(universeReport),
  nodes: listOf<NodeReport>(nodeReport, 'Those that the show plans, and the first of all others.'),
  nodesMore: integer('Further devices that answer polls; GET /api/nodes lists those that are remembered.'),
  discovered: listOf<DiscoveryReport>(discoveryReport, 'The first of them.'),
  discoveredMore: integer('Further ones.'),
  membership: plain<MembershipReport>(membershipReport.schema),
  sweep: plain<SweepReport>(sweepReport.schema),
  syncs: listOf<SyncReport>(syncReport),
  alsoHeard: listOf<AlsoHeardReport>(alsoHeardReport, 'What Art-Net senders say beside levels, the latest first.'),
  output: plain<OutputReport>(outputReport.schema),
  routes: listOf<RouteReport>(routeReport),
  controls: listOf<ControlReport>(controlReport),
  plugs: orNone(listOf<PlugReport>(plugReport, 'DMX adapters that a person has running.')),
  packetsPerSecond: real(),
  packets: integer('Taken in since start.'),
  lost: integer('Packets that this computer could not take in, since start.'),
  rejected: mapOf(integer(), 'Packets that were none we read, since start, by reason.'),
  newest: orNone(plain<Happening>(happening.schema)),
});
/** Sent twice a second over the feed, and by GET /api/live. */
export interface LiveReport extends ReportOf<typeof liveReport.fields> {}

const happenedReply = report('Happened', { happened: listOf<Happening>(happening) });
export interface HappenedReply extends ReportOf<typeof happenedReply.fields> {}

const nodesReply = report('Nodes', {
  nodes: listOf<NodeReport>(nodeReport),
  count: integer('How many are remembered in all.'),
});
export interface NodesReply extends ReportOf<typeof nodesReply.fields> {}

const interfacesReply = report('Interfaces', {
  interfaces: listOf<InterfaceInfo>(interfaceInfo),
  chosen: words(),
  artnetChosen: words(),
  inUse: nullableInterface,
  artnetInUse: nullableInterface,
});
export interface InterfacesReply extends ReportOf<typeof interfacesReply.fields> {}

const by = name('Person', { what: 'Say who does this: “by”' });
const client = name('Client', { what: 'The client’s id' });

const MOST_RANGES = 20_000;
const takeRequest = shape('Request', {
  client,
  by,
  slots: takenLevels,
  stay: optional(flag('Stay', { about: 'Keep sending when the client’s feed is lost.' })),
});
export interface TakeRequest {
  readonly client: string;
  readonly by: string;
  /** Levels 0–255 by address or run: `3/47`, `3/1-24`; null takes a slot as it is received now */
  readonly slots: Readonly<Record<string, number | null>>;
  readonly stay?: boolean | undefined;
}

const giveBackRequest = shape(
  'Request',
  {
    client: optional(client),
    slots: optional(list('Slots', text('Slot', 40), MOST_RANGES, { what: 'The slots' })),
  },
  { about: 'Without client and slots: everything of everybody.' },
);
export interface GiveBackRequest {
  readonly client?: string | undefined;
  readonly slots?: readonly string[] | undefined;
}

const sweepRequest = shape('Request', {
  universes: name('Universes', { what: 'Say which sACN universes to look through, as in 1-1000', longest: 200 }),
});

const routeId = name('Route', { what: 'Say which route: its id', longest: 80 });
const MOST_ROUTES_AT_ONCE = 512;
const routesNow = listOf<RouteReport>(routeReport);

const learnReply = report('Learnt', {
  wire: report('', { protocol: words(), number: integer() }),
  channel: integer('1–512.'),
  level: integer(),
});
export interface LearnReply {
  readonly wire: { readonly protocol: 'sacn' | 'artnet'; readonly number: number };
  readonly channel: number;
  readonly level: number;
}

export const LIVE_ENDPOINTS = {
  readLive: at('readLive', {
    says: 'What is on the wire now.',
    reply: plain<LiveReport>(liveReport.schema),
    problems: ['not-ready'],
  }),
  readInterfaces: at('readInterfaces', {
    says: 'Network interfaces of this computer.',
    reply: plain<InterfacesReply>(interfacesReply.schema),
  }),
  sweep: at('sweep', {
    says: 'Look through sACN universes that nobody plans or announces, range by range.',
    body: sweepRequest,
    reply: plain<SweepReport>(sweepReport.schema),
    problems: ['not-understood', 'not-possible', 'not-ready'],
  }),
  stopSweep: at('stopSweep', {
    says: 'End looking through.',
    reply: plain<SweepReport>(sweepReport.schema),
    problems: ['not-ready'],
  }),
  readHappened: at('readHappened', {
    says: 'What happened in the last hour, newest first: senders lost, taken over and back, boxes gone and back, hot and safe.',
    reply: happenedReply,
  }),
  readNodes: at('readNodes', {
    says: 'Devices that answer polls, those that the show plans first, a hundred at a time.',
    query: { from: orNone(integer('How many to leave out.')) },
    reply: plain<NodesReply>(nodesReply.schema),
    problems: ['not-understood', 'not-ready'],
  }),
  readSettings: at('readSettings', { says: 'Settings of this computer.', reply: settingsReply }),
  changeSettings: at('changeSettings', {
    says: 'Change some of them; takes effect at once.',
    body: plainOf<Partial<Settings>>(settingsChange),
    reply: settingsReply,
    problems: ['not-understood'],
  }),
  dismissNotice: at('dismissNotice', {
    says: 'A person has read a notice; it is told no more.',
    body: shape('Request', { id: text('Notice', 80) }),
    status: 204,
    problems: ['not-understood'],
  }),
  readOutput: at('readOutput', {
    says: 'What is taken and sent.',
    reply: plain<OutputReport>(outputReport.schema),
    problems: ['not-ready'],
  }),
  makeHot: at('makeHot', {
    says: 'Make hot, or safe (which gives everything back).',
    body: shape('Request', { hot: flag('Hot', { what: 'Whether to be hot' }), by }),
    reply: plain<OutputReport>(outputReport.schema),
    problems: ['not-understood', 'not-ready'],
  }),
  take: at('take', {
    says: 'Take slots, all or none.',
    body: plainOf<TakeRequest>(takeRequest),
    reply: plain<OutputReport>(outputReport.schema),
    problems: ['not-understood', 'safe', 'taken', 'not-possible', 'not-ready'],
  }),
  giveBack: at('giveBack', {
    says: 'Give slots back.',
    body: plainOf<GiveBackRequest>(giveBackRequest),
    reply: plain<OutputReport>(outputReport.schema),
    problems: ['not-understood', 'not-possible', 'not-ready'],
  }),
  readRoutes: at('readRoutes', { says: 'Routes as they run.', reply: routesNow, problems: ['not-ready'] }),
  runRoutes: at('runRoutes', {
    says: 'Switch routes on or off, all or none.',
    body: shape('Request', {
      ids: list('Routes', routeId, MOST_ROUTES_AT_ONCE, { what: 'Say which routes: their ids' }),
      on: flag('On', { what: 'Whether to be on' }),
      by,
    }),
    reply: routesNow,
    problems: ['not-understood', 'safe', 'not-here', 'not-ready'],
  }),
  giveBackRoute: at('giveBackRoute', {
    says: 'Give a backup route back to its first input that is heard.',
    body: shape('Request', { id: routeId }),
    reply: routesNow,
    problems: ['not-understood', 'not-here', 'not-ready'],
  }),
  learnFader: at('learnFader', {
    says: 'Wait for a fader to move that stood still: 1.5 s of listening, then 20 s of waiting.',
    reply: plain<LearnReply>(learnReply.schema),
    problems: ['nothing-to-do', 'not-ready'],
  }),
} as const;
