/** The show over HTTP: read, changed, taken back; files in and out. */
import { finding, type Finding } from '../../truth/check';
import { proposedEdit, type Edit } from '../../show/edit';
import {
  integer,
  listOf,
  name,
  oneOf,
  orNone,
  orNull,
  plain,
  report,
  shape,
  word,
  words,
  type JsonSchema,
  type ReportOf,
} from '../../base/field';
import {
  portForecast,
  pushForecast,
  standingReport,
  whyReport,
  type PortForecast,
  type PushForecast,
  type StandingReport,
  type WhyReport,
} from '../../truth/known';
import { DESCRIPTIONS, KINDS, SUBJECTS, type ShowRecords } from '../../show/records';
import { at } from './endpoint';

const author = name('Author', { what: 'Say who does this: the author' });

const records: JsonSchema = {
  type: 'object',
  properties: Object.fromEntries(
    KINDS.map((kind) => [
      kind,
      { type: 'array', items: { ...DESCRIPTIONS[kind].schema, $id: DESCRIPTIONS[kind].schemaName } },
    ]),
  ),
  required: KINDS,
};
/** All records by kind, as the show file holds them too. */
export const showRecords = plain<ShowRecords>(records);

export const showReply = report('Show', { seq: integer('Number of the last edit.'), records: showRecords });
export interface ShowReply extends ReportOf<typeof showReply.fields> {}

const head = {
  seq: integer(),
  at: words('ISO 8601, UTC.'),
  author: words(),
  sentence: words(),
  undoes: orNone(integer('The edit that this one takes back, if it is an undo or a redo.')),
};
const change = report('', {
  kind: word(KINDS),
  id: words(),
  before: plain<unknown>({ type: ['object', 'null'] }),
  after: plain<unknown>({ type: ['object', 'null'] }),
});
const edit = plain<Edit>(report('Edit', { ...head, changes: listOf(change) }).schema);

/** Lines of one edit that are reported */
export const LINES_TOLD = 500;

export const historyReply = report('History', {
  edits: listOf(report('EditHead', head), 'Newest first.'),
  earlier: integer('How many edits lie before those.'),
  undo: orNull(integer('The edit that undo would take back for the author asked for.')),
  redo: orNull(integer()),
});
export interface HistoryReply extends ReportOf<typeof historyReply.fields> {}

export const editReply = report('EditDetails', {
  ...head,
  lines: listOf(
    report('', {
      subject: words(),
      before: words('Empty for what was added.'),
      after: words('Empty for what was removed.'),
    }),
    `What changed, line by line; at most ${LINES_TOLD}.`,
  ),
  more: integer('Further lines that were left out.'),
  later: integer('Edits after this one.'),
});
export interface EditReply extends ReportOf<typeof editReply.fields> {}

export const findingsReply = report('Findings', {
  seq: integer('Number of the edit that left the show so.'),
  findings: listOf<Finding>(finding),
});
export interface FindingsReply extends ReportOf<typeof findingsReply.fields> {}

export const SHIPPED_SHOWS = ['night-ferry', 'bad-night'] as const;
export type ShippedShow = (typeof SHIPPED_SHOWS)[number];

export const TABLES = ['lamps', 'channels', 'pixels', 'addresses', 'ports', 'outputs'] as const;
export type TableName = (typeof TABLES)[number];
export const TABLE_FORMS = ['csv', 'xlsx', 'ods'] as const;
export type TableForm = (typeof TABLE_FORMS)[number];

const authored = shape('Request', { author });

const editSeq = { seq: words('Number of the edit.') };

export const SHOW_ENDPOINTS = {
  readShow: at('readShow', { says: 'The whole show.', reply: showReply }),
  edit: at('edit', {
    says: 'Change the show; the edit is safe on the disk when this is answered.',
    body: proposedEdit,
    reply: edit,
    status: 201,
    problems: ['not-understood', 'stale-edit', 'not-possible', 'too-large'],
  }),
  findings: at('findings', {
    says: 'What is wrong with the plan of the network.',
    query: { seq: orNone(integer('Only so that each edit has an address of its own.')) },
    reply: findingsReply,
    problems: ['not-ready'],
  }),
  why: at('why', {
    says: 'Why something does not work, or how it is known that it does: path, causes, repair, and the one question.',
    query: {
      kind: orNone(word(SUBJECTS)),
      id: orNone(words('Id of its record; of a universe its show number.')),
      part: orNone(words('Of a machine its port.')),
    },
    reply: plain<WhyReport>(whyReport.schema),
    problems: ['not-understood', 'not-ready'],
  }),
  standing: at('standing', {
    says: 'How things stand: what stands against opening the doors, and at which height what is known.',
    reply: plain<StandingReport>(standingReport.schema),
    problems: ['not-ready'],
  }),
  forecast: at('forecast', {
    says: 'What taking slots of a universe would bring at each port, beside everybody who is heard there now.',
    query: { universe: orNone(integer('Show universe.')), priority: orNone(integer('sACN priority, 0–200.')) },
    reply: listOf<PortForecast>(portForecast),
    problems: ['not-understood', 'not-ready'],
  }),
  forecastPush: at('forecastPush', {
    says: 'What pushing the plan to nodes would bring: ports that would be set otherwise, and light that would go or come.',
    query: { machines: words('Ids of machines, with commas between.') },
    reply: listOf<PushForecast>(pushForecast),
    problems: ['not-understood', 'not-ready'],
  }),
  openShipped: at('openShipped', {
    says: 'Put a show that ships with Taxiarch in place of this one, as one edit.',
    body: shape('Request', {
      author,
      show: oneOf('Show', SHIPPED_SHOWS, { sentence: `The shipped shows are: ${SHIPPED_SHOWS.join(', ')}.` }),
    }),
    reply: edit,
    status: 201,
    problems: ['not-understood', 'nothing-to-do'],
  }),
  history: at('history', {
    says: 'The last edits, newest first.',
    query: {
      author: orNone(words('For whom undo and redo are asked.')),
      newest: orNone(integer('How many edits; 30 if not said.')),
    },
    reply: historyReply,
    problems: ['not-understood'],
  }),
  readEdit: at('readEdit', {
    says: 'One edit of the history: who, when, and what changed.',
    params: editSeq,
    reply: editReply,
    problems: ['not-here'],
  }),
  goBack: at('goBack', {
    says: 'Undo every edit after this one, as one edit that can itself be undone. Signed records of proof stay.',
    params: editSeq,
    body: authored,
    reply: edit,
    status: 201,
    problems: ['not-understood', 'not-here', 'nothing-to-do', 'stale-edit', 'not-possible'],
  }),
  undo: at('undo', {
    says: 'Take back the author’s last edit.',
    body: authored,
    reply: edit,
    status: 201,
    problems: ['not-understood', 'nothing-to-do', 'stale-edit', 'not-possible'],
  }),
  redo: at('redo', {
    says: 'Take back the author’s last undo.',
    body: authored,
    reply: edit,
    status: 201,
    problems: ['not-understood', 'nothing-to-do', 'stale-edit', 'not-possible'],
  }),
  exportGdtf: at('exportGdtf', {
    says: 'A fixture type of the show or the library as a GDTF file.',
    params: { type: words('Its id.') },
    reply: { file: 'application/zip' },
    problems: ['not-here'],
  }),
  exportMvr: at('exportMvr', { says: 'The rig as an MVR file.', reply: { file: 'application/zip' } }),
  exportTable: at('exportTable', {
    says: 'A table of the show as CSV, XLSX or ODS.',
    params: { form: word(TABLE_FORMS), table: word(TABLES) },
    reply: { file: 'application/octet-stream' },
    problems: ['not-here'],
  }),
  exportShow: at('exportShow', {
    says: 'The whole show as one JSON document.',
    reply: { file: 'application/json' },
  }),
} as const;
