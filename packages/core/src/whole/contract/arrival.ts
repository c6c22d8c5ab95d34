/** Files in, over HTTP: read, compared with the show, chosen from, and written as one edit. */
import { LAMP_FIELDS, PATCH_DIFFERENCES } from '../../files/arrival';
import {
  integer,
  list,
  listOf,
  mapOf,
  name,
  oneOf,
  optional,
  orNone,
  orNull,
  plain,
  plainOf,
  report,
  shape,
  text,
  whole,
  word,
  words,
  yesNo,
  type Field,
  type ReportOf,
} from '../../base/field';
import {
  COLUMNS,
  COMMAS,
  DATE_ORDERS,
  QUESTIONS,
  UNITS,
  type Column,
  type Comma,
  type DateOrder,
  type LengthUnit,
} from '../../files/format';
import { ARRIVAL_FORMS } from '../../show/records';
import { at } from './endpoint';

const author = name('Author', { what: 'Say who does this: the author' });

export const IMPORT_KINDS = ARRIVAL_FORMS;
export type ImportKind = (typeof IMPORT_KINDS)[number];

const fieldChange = report('FieldChange', {
  field: words('What is otherwise; of a mode its name, then the channel.'),
  was: words('Empty where it was not there.'),
  is: words('Empty where it is there no more.'),
});

/** One row of what a file would change. */
const importRow = report('', {
  key: words(),
  kind: word(['lamp', 'type', 'run', 'record']),
  state: word(['added', 'changed', 'gone', 'same']),
  subject: words(),
  fields: listOf(fieldChange),
  differs: listOf(word(PATCH_DIFFERENCES)),
  light: orNone(mapOf(integer(), 'Levels by address that light the lamp as both sides have it.')),
  left: orNone(yesNo('It was left out, just so, when the file was last taken over.')),
});
export interface ImportRowReply extends ReportOf<typeof importRow.fields> {}

const unknownType = report('UnknownType', {
  key: words('What the file calls it.'),
  name: words(),
  modes: listOf(words()),
  lamps: integer(),
  typeId: words('Of the type that it is taken for; empty while nobody has said.'),
  modeFor: mapOf(words()),
  settled: yesNo('A type and all its modes are said.'),
  like: listOf(words(), 'Ids of types that have something in common with it, the likeliest first.'),
});
export interface UnknownTypeReply extends ReportOf<typeof unknownType.fields> {}

const importTable = report('ImportTable', {
  sheets: listOf(words()),
  sheet: integer('Which of them is read, from 0.'),
  headLine: integer('Line of the last of its heads.'),
  heads: listOf(words()),
  sample: listOf(listOf(words())),
  rows: integer(),
  columns: listOf(orNull(word(COLUMNS))),
  unit: word(Object.keys(UNITS) as LengthUnit[]),
  channelBase: word([0, 1]),
  universeBase: word([0, 1]),
  also: listOf(integer('Further sheets that are read with it, from 0.')),
  dates: word(['', ...DATE_ORDERS]),
  decimals: word(['', 'as shown']),
  commas: word(['', ...COMMAS]),
  questions: listOf(word(QUESTIONS)),
  bad: listOf(report('', { line: integer('As the file counts lines, from 1.'), why: words() })),
});
export interface ImportTableReply extends ReportOf<typeof importTable.fields> {}

const importSays = report('Import', {
  id: words(),
  name: words(),
  state: word(['working', 'refused', 'ready']),
  done: orNone(integer()),
  of: orNone(integer()),
  why: orNone(words()),
  form: orNone(word(IMPORT_KINDS)),
  rows: orNone(listOf(importRow)),
  notes: orNone(listOf(words('What is left out or read otherwise, and why.'))),
  unknown: orNone(listOf(unknownType)),
  brings: orNone(
    listOf(words('Faults that taking it all would bring: overlaps, what runs past 512, doubled numbers.')),
  ),
  fields: orNone(listOf(words('Fields that were left as they are when the file was last taken over.'))),
  known: orNone(words('When an earlier version of the file was taken over; empty if none was.')),
  table: orNone(importTable),
});
export interface ImportReady {
  readonly state: 'ready';
  readonly form: ImportKind;
  readonly rows: readonly ImportRowReply[];
  readonly notes: readonly string[];
  readonly unknown: readonly UnknownTypeReply[];
  readonly brings: readonly string[];
  readonly fields: readonly string[];
  readonly known: string;
  readonly table?: ImportTableReply;
}
export type ImportReply = { readonly id: string; readonly name: string } & (
  | { readonly state: 'working'; readonly done: number; readonly of: number }
  | { readonly state: 'refused'; readonly why: string }
  | ImportReady
);
const importReply = plain<ImportReply>(importSays.schema);

const importWritten = report('ImportWritten', { seq: integer(), sentence: words(), changes: integer() });
export interface ImportWritten extends ReportOf<typeof importWritten.fields> {}

const MOST_ROWS = 200_000;
const importId = { id: words('Of the import.') };

const typeChoice = shape('Type', {
  key: text('What the file calls it', 400),
  typeId: text('Type', 80),
  modes: list('Modes', shape('Mode', { said: text('As the file says', 120), mode: text('Mode', 120) }), 1000),
});

/** How a table is read; what is left out stays as it is. */
const tableChoice = shape('Table', {
  sheet: optional(whole('Sheet', 0, 1000)),
  columns: optional(list('Columns', oneOf('Column', ['', ...COLUMNS]), 400)),
  unit: optional(oneOf('Unit', Object.keys(UNITS) as LengthUnit[])),
  channelBase: optional(oneOf('Channels from', [0, 1])),
  universeBase: optional(oneOf('Universes from', [0, 1])),
  also: optional(list('Further sheets', whole('Sheet', 0, 1000), 1000)),
  dates: optional(oneOf('Dates', DATE_ORDERS)),
  decimals: optional(oneOf('Decimals', ['as shown'])),
  commas: optional(oneOf('Commas', COMMAS)),
});
export interface TableChoiceBody {
  readonly sheet?: number;
  readonly columns?: readonly (Column | '')[];
  readonly unit?: LengthUnit;
  readonly channelBase?: 0 | 1;
  readonly universeBase?: 0 | 1;
  /** Further sheets that are read together with it */
  readonly also?: readonly number[];
  readonly dates?: DateOrder;
  readonly decimals?: 'as shown';
  readonly commas?: Comma;
}
export interface ImportChoiceBody {
  readonly types?: readonly {
    readonly key: string;
    readonly typeId: string;
    readonly modes: readonly { readonly said: string; readonly mode: string }[];
  }[];
  readonly table?: TableChoiceBody;
}

export const ARRIVAL_ENDPOINTS = {
  beginImport: at('beginImport', {
    says: 'Begin to read a file; the body is the file itself. Reading goes on; ask again by its id.',
    params: { kind: word(IMPORT_KINDS) },
    query: { name: orNone(words('Name of the file, for the history.')) },
    body: { file: 'application/octet-stream' },
    reply: importReply,
    status: 202,
    problems: ['not-here', 'not-understood', 'too-large', 'busy'],
  }),
  readImport: at('readImport', {
    says: 'How far reading is; when it is done, what the file would change.',
    params: importId,
    reply: importReply,
    problems: ['not-here'],
  }),
  chooseImport: at('chooseImport', {
    says: 'Say how a file is to be read: what its unknown types are, what the columns of a table mean.',
    params: importId,
    body: plainOf<ImportChoiceBody>(
      shape('Request', {
        types: optional(list('Types', typeChoice, 5000)),
        table: optional(tableChoice),
      }) as Field,
    ),
    reply: importReply,
    problems: ['not-here', 'not-understood'],
  }),
  cancelImport: at('cancelImport', {
    says: 'Stop reading and forget.',
    params: importId,
    status: 204,
    problems: ['not-here'],
  }),
  writeImport: at('writeImport', {
    says: 'Write the chosen rows as one edit.',
    params: importId,
    body: shape('Request', {
      author,
      keys: list('Rows', text('Row', 400), MOST_ROWS, { what: 'The rows to be written' }),
      fields: optional(
        list('Fields', oneOf('Field', LAMP_FIELDS), 40, { about: 'Left as they are in lamps that are there.' }),
      ),
    }),
    reply: importWritten,
    status: 201,
    problems: ['not-understood', 'not-possible', 'stale-edit'],
  }),
} as const;
