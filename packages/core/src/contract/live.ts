/** What is on the wire, what Taxiarch sends, and the settings of this computer, over HTTP and the feed. */
import {
  begun,
  flag,
  integer,
  listOf,
  mapOf,
  measure,
  name,
  optional,
  orNone,
  orNull,
  pattern,
  plain,
  real,
  report,
  shape,
  text,
  whole,
  words,
  yesNo,
  list,
  type JsonSchema,
  type Of,
  type ReportOf,
  plainOf,
  type Field,
} from '../field';
import { plugReport, type PlugReport } from '../plug';
import { SACN_LAST } from '../address';
import { pictureReport, type PictureReport } from '../picture';
import { interfaceInfo, type InterfaceInfo } from '../ip';
import { happening, type Happening } from '../known';
import { nodeReport, type NodeReport } from '../node';
import { controlReport, routeReport, type ControlReport, type RouteReport } from '../route';
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
} from '../stream';
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

const interfaceChoice = (label: string, words: string, said: string, about: string) =>
  pattern(
    label,
    40,
    new RegExp(`^(${words}|\\d{1,3}(\\.\\d{1,3}){3})$`),
    `The interface must be ${said} or one of this computer’s addresses.`,
    { about },
  );

/** Settings of this computer, kept in its data folder; not part of the show. */
export const settings = shape(
  'Settings',
  {
    interface: begun(
      interfaceChoice(
        'Interface',
        'auto|plan',
        '“auto”, “plan”',
        'For sACN: an address of this computer, `auto`, or `plan` for the one that lies in a plan of addresses.',
      ),
      'plan',
    ),
    artnetInterface: begun(
      interfaceChoice('Interface for Art-Net', 'same|auto|plan', '“same”, “auto”, “plan”', 'The same, or `same`.'),
      'same',
    ),
    outputRate: begun(
      measure('Rate', 1, 44, {
        unit: 'Hz',
        type: 'a number of frames a second',
        below: 'must be at least 1 a second.',
        above: 'is too high: DMX512 carries at most 44 full frames a second.',
        about: 'Frames a second while taken values change.',
      }),
      44,
    ),
    outputPriority: begun(whole('Priority', 1, 200, { about: 'sACN priority of taken slots.' }), 150),
    outputSync: begun(
      whole('Let out together', 0, SACN_LAST, {
        about: 'Universe of the sACN synchronisation packets by which what is taken is let out together; 0 for none.',
      }),
      0,
    ),
    outputArtSync: begun(
      flag('ArtSync', { about: 'ArtSync after each round of what is taken, so that nodes let it out together.' }),
      false,
    ),
    artnetBroadcast: begun(
      flag('Art-Net to everybody', {
        about: 'Send Art-Net to the whole subnet instead of to the nodes that list the universe.',
      }),
      false,
    ),
    poll: begun(flag('Asks for nodes', { about: 'Ask for Art-Net nodes every few seconds.' }), true),
    listed: begun(
      flag('Listed as a node', {
        about: 'Answer polls as a node with an output for each Art-Net universe that is planned or opened.',
      }),
      true,
    ),
    listedMost: begun(whole('Most outputs listed', 1, 1020, { about: 'So many universes at most.' }), 256),
    mostGroups: begun(
      whole('Most multicast groups joined', 20, 63_999, {
        about:
          'So many sACN universes are listened to at most: what is opened and planned first, then what is announced.',
      }),
      4096,
    ),
    sendIpv6: begun(
      flag('sACN by IPv6 as well', {
        about: 'What is taken and routed is sent by IPv6 as well, on the same interface.',
      }),
      false,
    ),
    diagnostics: begun(
      flag('Asks nodes for diagnostics', { about: 'Polls ask nodes to send what they have to say of themselves.' }),
      false,
    ),
    changes: begun(
      flag('Asks nodes to tell of changes', { about: 'Polls ask nodes to answer again whenever something changes.' }),
      true,
    ),
    rdmShare: begun(
      whole('Share of a line for lamps', 1, 50, {
        unit: '%',
        about: 'So much of a port’s time at most is used to ask its lamps; the rest is DMX’s.',
      }),
      10,
    ),
    rollEvery: begun(
      whole('Roll call every', 0, 1440, {
        unit: 'min',
        about: 'Lamps are asked again by themselves after so many minutes; 0 only when somebody asks.',
      }),
      0,
    ),
    stations: begun(
      flag('Exchange of rigs', { about: 'This computer is a station of MVR-xchange on the interface for sACN.' }),
      false,
    ),
    stationName: begun(name('Name among stations', { what: 'The name among stations', longest: 60 }), 'Taxiarch'),
    stationGroup: begun(name('Group of stations', { what: 'The group of stations', longest: 60 }), 'Default'),
    citp: begun(
      flag('CITP', { about: 'Programs that speak CITP may ask for the patch, and are asked for theirs.' }),
      false,
    ),
    selects: begun(
      flag('Selecting together', {
        about: 'Lamps chosen here are selected in programs that speak CITP, and those selected there are marked here.',
      }),
      false,
    ),
    artnetTimeout: begun(
      whole('Time-out', 1000, 60_000, {
        unit: 'ms',
        about: 'Milliseconds after which a silent Art-Net stream counts as lost.',
      }),
      10_000,
    ),
  },
  { what: 'The settings' },
);
export interface Settings extends Of<typeof settings.fields> {}

const settingsSchema: JsonSchema = { ...settings.schema, $id: 'Settings' };
const settingsReply = plain<Settings>(settingsSchema);
/** Any of them. */
const settingsChange = shape(
  'Settings',
  Object.fromEntries(Object.entries<Field>(settings.fields).map(([key, field]) => [key, optional(field)])),
  { what: 'The settings' },
);

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
