/** Tables of the embedded database: one a kind of record, and the history of edits. */
import { bigint, boolean, doublePrecision, integer, jsonb, pgTable, text } from 'drizzle-orm/pg-core';
import type {
  Change,
  Control,
  FixtureType,
  Lamp,
  Link,
  Machine,
  Model,
  Network,
  PixelRun,
  Route,
  Snapshot,
  Source,
  Universe,
} from '@taxiarch/core/show';

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
  ranges: jsonb('ranges').$type<Source['ranges']>().notNull(),
  pennant: jsonb('pennant').$type<Source['pennant']>().notNull(),
});

export const network = pgTable('network', {
  ...row,
  name: text('name').notNull(),
  network: text('network').notNull(),
  prefix: integer('prefix').notNull(),
  dhcp: boolean('dhcp').notNull(),
  standIn: boolean('stand_in').notNull(),
  ranges: jsonb('ranges').$type<Network['ranges']>().notNull(),
});

export const model = pgTable('model', {
  ...row,
  maker: text('maker').notNull(),
  name: text('name').notNull(),
  kind: text('kind').$type<Model['kind']>().notNull(),
  ports: integer('ports').notNull(),
  connector: text('connector').notNull(),
  directions: jsonb('directions').$type<Model['directions']>().notNull(),
  protocols: jsonb('protocols').$type<Model['protocols']>().notNull(),
  merges: jsonb('merges').$type<Model['merges']>().notNull(),
  losses: jsonb('losses').$type<Model['losses']>().notNull(),
  starts: jsonb('starts').$type<Model['starts']>().notNull(),
  rdm: boolean('rdm').notNull(),
  fixedValue: boolean('fixed_value').notNull(),
  copies: boolean('copies').notNull(),
  rate: integer('rate').notNull(),
  universes: integer('universes'),
  sources: integer('sources').notNull(),
  parameters: integer('parameters'),
  base: integer('base').$type<Model['base']>().notNull(),
  remote: boolean('remote').notNull(),
  ipProg: boolean('ip_prog').notNull(),
  perPage: integer('per_page').$type<Model['perPage']>().notNull(),
  groups: integer('groups'),
  speed: integer('speed').notNull().default(100),
});

export const machine = pgTable('machine', {
  ...row,
  name: text('name').notNull(),
  kind: text('kind').$type<Machine['kind']>().notNull().default('node'),
  modelId: text('model_id'),
  placeId: text('place_id'),
  notes: text('notes').notNull().default(''),
  firmware: text('firmware').notNull().default(''),
  mode: text('mode').notNull().default(''),
  serial: text('serial').notNull().default(''),
  locked: boolean('locked').notNull().default(false),
  interfaces: jsonb('interfaces').$type<Machine['interfaces']>().notNull().default([]),
  ports: jsonb('ports').$type<Machine['ports']>().notNull(),
  controller: jsonb('controller').$type<Machine['controller']>(),
  ticks: jsonb('ticks').$type<Machine['ticks']>().notNull().default([]),
});

export const route = pgTable('route', {
  ...row,
  name: text('name').notNull(),
  order: integer('order').notNull(),
  inputs: jsonb('inputs').$type<Route['inputs']>().notNull(),
  merge: text('merge').$type<Route['merge']>().notNull(),
  returns: text('returns').$type<Route['returns']>().notNull(),
  out: jsonb('out').$type<Route['out']>().notNull(),
  interface: text('interface').notNull(),
  delivery: text('delivery').$type<Route['delivery']>().notNull(),
  addresses: jsonb('addresses').$type<Route['addresses']>().notNull(),
  priority: integer('priority').notNull(),
  master: integer('master').notNull(),
  parts: jsonb('parts').$type<Route['parts']>().notNull(),
  comesBack: boolean('comes_back').notNull(),
});

export const control = pgTable('control', {
  ...row,
  name: text('name').notNull(),
  wire: jsonb('wire').$type<Control['wire']>().notNull(),
  channel: integer('channel').notNull(),
  does: text('does').$type<Control['does']>().notNull(),
  target: jsonb('target').$type<Control['target']>().notNull(),
  threshold: integer('threshold').notNull(),
});

export const link = pgTable('link', {
  ...row,
  name: text('name').notNull(),
  sourceId: text('source_id').notNull(),
  machineId: text('machine_id').notNull(),
  protocol: text('protocol').$type<Link['protocol']>().notNull(),
  senderBase: integer('sender_base').$type<Link['senderBase']>().notNull(),
  receiverBase: integer('receiver_base').$type<Link['receiverBase']>().notNull(),
  lines: jsonb('lines').$type<Link['lines']>().notNull(),
  startsFirst: text('starts_first').$type<Link['startsFirst']>().notNull().default('sender'),
  well: jsonb('well').$type<Link['well']>().notNull(),
});

export const snapshot = pgTable('snapshot', {
  ...row,
  name: text('name').notNull(),
  at: text('at').notNull(),
  machineId: text('machine_id'),
  about: text('about').notNull(),
  ports: jsonb('ports').$type<Snapshot['ports']>().notNull(),
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
