/** All kinds of record that a show holds. A new kind is a file beside this one and a line in each table here. */
import type { Checked } from '../../base/result';
import { arrival, type Arrival } from './arrival';
import { control, type Control } from './control';
import { type, type FixtureType } from './fixtureType';
import { checkWith, type KindOf } from './kind';
import { good, type Good } from './good';
import { lamp, type Lamp } from './lamp';
import { lampSettings, type LampSettings } from './lampSettings';
import { link, type Link } from './link';
import { machine, type Machine } from './machine';
import { mark, type Mark } from './mark';
import { model, type Model } from './model';
import { network, type Network } from './network';
import { place, type Place } from './place';
import { proof, type Proof } from './proof';
import { route, type Route } from './route';
import { run, type PixelRun } from './run';
import { show, type ShowInfo } from './showInfo';
import { sighting, type Sighting } from './sighting';
import { snapshot, type Snapshot } from './snapshot';
import { universe, type Universe } from './universe';
import { walk, type Walk } from './walk';

export interface RecordOf {
  show: ShowInfo;
  place: Place;
  type: FixtureType;
  universe: Universe;
  lamp: Lamp;
  network: Network;
  model: Model;
  machine: Machine;
  run: PixelRun;
  snapshot: Snapshot;
  route: Route;
  control: Control;
  link: Link;
  sighting: Sighting;
  good: Good;
  lampSettings: LampSettings;
  walk: Walk;
  mark: Mark;
  proof: Proof;
  arrival: Arrival;
}

export type Kind = keyof RecordOf;
export type AnyRecord = RecordOf[Kind];

/** In the order in which records may refer to those before them. */
export const DESCRIPTIONS: { readonly [K in Kind]: KindOf } = {
  show,
  place,
  type,
  universe,
  lamp,
  network,
  model,
  machine,
  run,
  snapshot,
  route,
  control,
  link,
  sighting,
  good,
  lampSettings,
  walk,
  mark,
  proof,
  arrival,
};

export const KINDS = Object.keys(DESCRIPTIONS) as readonly Kind[];

/** Everything a show holds, as lists; the order within a list means nothing. */
export type ShowRecords = { readonly [K in Kind]: readonly RecordOf[K][] };

export const emptyShow = (): ShowRecords => Object.fromEntries(KINDS.map((kind) => [kind, []])) as never;

/** Checks one record by itself; how records hold together is `edit/integrity`'s. */
export const checkRecord = (kind: Kind, record: unknown): Checked<AnyRecord> =>
  checkWith(DESCRIPTIONS[kind].rule, record);
