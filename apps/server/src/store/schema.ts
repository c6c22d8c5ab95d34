/** Tables of the embedded database: one a kind of record, and the history of edits. */
import { bigint, boolean, doublePrecision, integer, jsonb, pgTable, text } from 'drizzle-orm/pg-core';
import type { Change, FixtureType, Lamp, Machine, PixelRun, Source, Universe } from '@taxiarch/core/show';

const row = { id: text('id').primaryKey(), rev: integer('rev').notNull() };

export const show = pgTable('show', {
  ...row,
  name: text('name').notNull(),
  about: text('about').notNull(),
  file: text('file'),
});

export const place = pgTable('place', { ...row, name: text('name').notNull(), order: integer('order').notNull() });

export const type = pgTable('fixture_type', {
  ...row,
  maker: text('maker').notNull(),
  name: text('name').notNull(),
  kind: text('kind').$type<FixtureType['kind']>().notNull().default('other'),
  file: text('file'),
  modes: jsonb('modes').$type<FixtureType['modes']>().notNull(),
});

export const universe = pgTable('universe', {
  ...row,
  number: integer('number').notNull(),
  name: text('name').notNull(),
  protocol: text('protocol').$type<Universe['protocol']>().notNull(),
  wire: integer('wire').notNull(),
  merge: text('merge').$type<Universe['merge']>().notNull(),
});

export const lamp = pgTable('lamp', {
  ...row,
  number: integer('number').notNull(),
  name: text('name').notNull(),
  typeId: text('type_id').notNull(),
  mode: text('mode').notNull(),
  universe: integer('universe').notNull(),
  channel: integer('channel').notNull(),
  blocks: jsonb('blocks').$type<Lamp['blocks']>().notNull().default([]),
  placeId: text('place_id'),
  groups: jsonb('groups').$type<Lamp['groups']>().notNull().default([]),
  tag: text('tag').$type<Lamp['tag']>().notNull().default(''),
  twin: text('twin'),
  locked: boolean('locked').notNull().default(false),
  x: doublePrecision('x').notNull(),
  y: doublePrecision('y').notNull(),
  z: doublePrecision('z').notNull(),
});

export const source = pgTable('source', {
  ...row,
  name: text('name').notNull(),
  address: text('address').notNull(),
  universes: jsonb('universes').$type<Source['universes']>().notNull(),
  priority: integer('priority').notNull(),
  pennant: jsonb('pennant').$type<Source['pennant']>().notNull(),
});

export const machine = pgTable('machine', {
  ...row,
  name: text('name').notNull(),
  model: text('model').notNull(),
  address: text('address').notNull(),
  placeId: text('place_id'),
  ports: jsonb('ports').$type<Machine['ports']>().notNull(),
  controller: jsonb('controller').$type<Machine['controller']>(),
});

export const run = pgTable('pixel_run', {
  ...row,
  number: integer('number').notNull(),
  name: text('name').notNull(),
  count: integer('count').notNull(),
  order: text('order').notNull(),
  bits: integer('bits').$type<PixelRun['bits']>().notNull(),
  perUniverse: integer('per_universe').$type<PixelRun['perUniverse']>().notNull(),
  whole: boolean('whole').notNull(),
  start: jsonb('start').$type<PixelRun['start']>().notNull(),
  reversed: boolean('reversed').notNull(),
  nulls: integer('nulls').notNull(),
  nullsSent: boolean('nulls_sent').notNull(),
  machineId: text('machine_id'),
  output: integer('output'),
  placeId: text('place_id'),
  from: jsonb('from').$type<PixelRun['from']>().notNull(),
  to: jsonb('to').$type<PixelRun['to']>().notNull(),
});

export const edit = pgTable('edit', {
  seq: integer('seq').primaryKey(),
  /** Unix time, ms */
  at: bigint('at', { mode: 'number' }).notNull(),
  author: text('author').notNull(),
  sentence: text('sentence').notNull(),
  changes: jsonb('changes').$type<readonly Change[]>().notNull(),
  undoes: integer('undoes'),
});
