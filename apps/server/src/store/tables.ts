/** Tables of the embedded database, made from the descriptions of the records: one a kind, the edits since the last snapshot, and what it all comes to. */
import {
  bigint,
  boolean,
  doublePrecision,
  getTableConfig,
  integer,
  json,
  jsonb,
  pgTable,
  text,
  type PgColumn,
  type PgColumnBuilderBase,
  type PgTable,
} from 'drizzle-orm/pg-core';
import type { Column, Field } from '@taxiarch/core/base/field';
import { DESCRIPTIONS, KINDS, type Kind } from '@taxiarch/core/show/records';
import type { Change } from '@taxiarch/core/show/edit';

export type RecordTable = PgTable & { id: PgColumn; rev: PgColumn };

const snakeCase = (name: string): string => name.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`);

const COLUMNS: Readonly<Record<Column, (name: string) => { notNull(): PgColumnBuilderBase } & PgColumnBuilderBase>> = {
  text,
  integer,
  double: doublePrecision,
  boolean,
  json: jsonb,
};

const columnOf = (name: string, { column, nullable }: Field): PgColumnBuilderBase => {
  const made = COLUMNS[column](snakeCase(name));
  return nullable ? made : made.notNull();
};

const tableOf = (kind: Kind): RecordTable => {
  const { table, fields } = DESCRIPTIONS[kind];
  const columns = Object.fromEntries(Object.entries(fields).map(([name, field]) => [name, columnOf(name, field)]));
  return pgTable(table, {
    id: text('id').primaryKey(),
    rev: integer('rev').notNull(),
    ...columns,
  }) as unknown as RecordTable;
};

export const TABLES = Object.fromEntries(KINDS.map((kind) => [kind, tableOf(kind)])) as Readonly<
  Record<Kind, RecordTable>
>;

/** Edits since the last snapshot, so that a damaged line of the journal can be had from here. */
export const edit = pgTable('edit', {
  seq: integer('seq').primaryKey(),
  /** Unix time, ms */
  at: bigint('at', { mode: 'number' }).notNull(),
  author: text('author').notNull(),
  sentence: text('sentence').notNull(),
  /** As text: it is only ever read as a whole. */
  changes: json('changes').$type<readonly Change[]>().notNull(),
  undoes: integer('undoes'),
});

/** One row: of which version the records are, and which edit left them so, with their digest. */
export const state = pgTable('state', {
  id: integer('id').primaryKey(),
  version: integer('version').notNull(),
  seq: integer('seq').notNull(),
  digest: text('digest').notNull(),
});

/** The statement that makes a table as it is described. */
function creation(table: PgTable): string {
  const { name, columns } = getTableConfig(table);
  const lines = columns.map(
    (column) =>
      `"${column.name}" ${column.getSQLType()}${column.primary ? ' PRIMARY KEY' : ''}${column.notNull ? ' NOT NULL' : ''}`,
  );
  return `CREATE TABLE "${name}" (${lines.join(', ')})`;
}

export const CREATION: readonly string[] = [
  ...[...Object.values(TABLES), edit, state].map(creation),
  // An edit of many records is long; squeezing it would take longer than writing it.
  'ALTER TABLE "edit" ALTER COLUMN "changes" SET STORAGE EXTERNAL',
];
