/** The rig handed from program to program over the network: MVR-xchange and CITP, over HTTP. */
import {
  integer,
  list,
  listOf,
  name,
  optional,
  orNull,
  report,
  shape,
  text,
  whole,
  word,
  words,
  yesNo,
  type ReportOf,
} from '../../base/field';
import { at } from './endpoint';

const offered = report('', {
  fileId: words(),
  comment: words('What its station says of it.'),
  fileName: words('Empty if it was not said.'),
  size: integer('Bytes, as its station says; 0 if it was not said.'),
  at: integer('When it was heard of, ms.'),
});
export interface OfferedFile extends ReportOf<typeof offered.fields> {}

const station = report('Station', {
  stationId: words(),
  name: words(),
  provider: words('The program that it is; empty until it joined.'),
  address: words(),
  joined: yesNo('It answered when we joined, or joined us.'),
  heardAt: integer('When it last told of itself, ms.'),
  trouble: words('Why it could not be joined; empty if it could.'),
  commits: listOf(offered, 'Oldest first.'),
});
export interface StationReport extends ReportOf<typeof station.fields> {}

const stations = report('Stations', {
  mode: word(['tcp', 'host', 'guest'], 'By connections to each, or by WebSocket as host or as guest.'),
  url: words('Of the host, in the WebSocket mode.'),
  trouble: words(),
  address: words('Of this station.'),
  port: integer(),
  asked: orNull(
    report('', { from: words(), group: words(), url: words() }, 'Somebody asks all to go to a group or a host.'),
  ),
  list: listOf(station),
  own: listOf(report('', { fileId: words(), comment: words(), size: integer(), at: integer(), lamps: integer() })),
  fetching: orNull(report('', { stationId: words(), fileId: words(), bytes: integer('So many have come.') })),
});
export interface StationsReply extends ReportOf<typeof stations.fields> {}

const citp = report('Citp', {
  trouble: words(),
  chosen: listOf(integer(), 'Lamps that were last told as selected here.'),
  peers: listOf(
    report('CitpPeer', {
      id: words(),
      name: words(),
      type: words('What it says that it is.'),
      state: words('As it says.'),
      address: words(),
      linked: yesNo(),
      trouble: words(),
      lamps: integer('In the patch that it sent.'),
      whole: yesNo('Its patch came to its end.'),
      patchAt: integer('When it last told of its patch, ms; 0 if it did not.'),
      differ: listOf(integer(), 'Lamps that it has otherwise than the show, or that are on one side only.'),
      selected: listOf(integer(), 'Numbers of the lamps that it says are selected there.'),
      selectedAt: integer(),
    }),
  ),
});
export interface CitpReply extends ReportOf<typeof citp.fields> {}
export type CitpPeerReport = CitpReply['peers'][number];

const exchange = report('Exchange', {
  stations: orNull(stations),
  citp: orNull(citp),
  why: words('Why what is switched on cannot work now; empty if it can.'),
  untold: integer('Lamps of the show that CITP cannot tell.'),
});
/** Null where it is switched off. */
export interface ExchangeReply extends ReportOf<typeof exchange.fields> {}

const author = name('Author', { what: 'Say who does this: the author' });
const begunImport = report('ImportBegun', { id: words('Of the import, whose page compares it.') });

export const EXCHANGE_ENDPOINTS = {
  readExchange: at('readExchange', {
    says: 'Stations and programs that exchange rigs with this one, and what they offer.',
    reply: exchange,
  }),
  fetchRig: at('fetchRig', {
    says: 'Fetch a file that a station offers, and begin to compare it. Nothing is written.',
    body: shape('Request', { stationId: text('Station', 80), fileId: text('File', 80) }),
    reply: begunImport,
    status: 201,
    problems: ['not-possible', 'busy'],
  }),
  cancelFetch: at('cancelFetch', { says: 'Stop fetching.', status: 204 }),
  commitRig: at('commitRig', {
    says: 'Offer the rig as it is now to the other stations.',
    body: shape('Request', {
      author,
      comment: text('Comment', 400),
      forIds: optional(list('For', text('Station', 80), 100, { about: 'Ids of stations; left out for all.' })),
    }),
    reply: report('Committed', {
      fileId: words(),
      lamps: integer(),
      size: integer(),
      told: integer('So many stations took note.'),
      not: listOf(words('Who could not be told, and why.')),
    }),
    status: 201,
    problems: ['not-possible'],
  }),
  moveStation: at('moveStation', {
    says: 'Go to a host of the WebSocket mode, host the others, or go back to the TCP mode.',
    body: shape('Request', {
      to: text('Where to', 400, { about: 'The address of a host, `host`, or empty.' }),
    }),
    reply: report('Moved', { url: words('Of the host; empty in the TCP mode.') }),
    problems: ['not-possible'],
  }),
  askPatch: at('askPatch', {
    says: 'Ask a program that speaks CITP for its patch, and begin to compare it. Nothing is written.',
    body: shape('Request', { peer: text('Program', 200) }),
    reply: begunImport,
    status: 201,
    problems: ['not-possible', 'busy'],
  }),
  givePatch: at('givePatch', {
    says: 'Send the patch of the show to a program that speaks CITP.',
    body: shape('Request', { peer: text('Program', 200) }),
    reply: report('Given', { lamps: integer() }),
    problems: ['not-possible'],
  }),
  selectThere: at('selectThere', {
    says: 'Select lamps in the programs that speak CITP, as they are chosen here.',
    body: shape('Request', { numbers: list('Lamps', whole('Lamp', 0, 1_000_000_000), 65_535) }),
    reply: report('Selected', { names: listOf(words('Programs that were told.')) }),
    problems: ['not-possible'],
  }),
} as const;
