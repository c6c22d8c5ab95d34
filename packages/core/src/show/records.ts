/** The records of a show. Each has an id of its own and the revision (edit number) that last changed it. */
import type { Protocol } from '../address';
import type { FixtureMode } from '../fixture';
import type { MergeMode } from '../merge';

interface Row {
  readonly id: string;
  /** Number of the edit that last changed this record; 0 before it is stored. */
  readonly rev: number;
}

/** The show itself; there is one. */
export interface ShowInfo extends Row {
  readonly name: string;
  readonly about: string;
}

export interface Place extends Row {
  readonly name: string;
  /** Order in lists, rising. */
  readonly order: number;
}

export interface FixtureType extends Row {
  readonly maker: string;
  readonly name: string;
  readonly modes: readonly FixtureMode[];
}

export interface Lamp extends Row {
  /** The fixture number that people call it by. */
  readonly number: number;
  readonly name: string;
  readonly typeId: string;
  /** Name of one of the type's modes. */
  readonly mode: string;
  /** Show universe, from 1 */
  readonly universe: number;
  /** Start channel, 1–512 */
  readonly channel: number;
  readonly placeId: string | null;
  /** Metres: x to starboard, y to the bow, z up. */
  readonly x: number;
  readonly y: number;
  readonly z: number;
}

/** A show universe and how it is planned to travel. */
export interface Universe extends Row {
  /** Show universe, from 1 */
  readonly number: number;
  readonly name: string;
  readonly protocol: Protocol;
  /** Number on the wire: sACN 1–63999, Art-Net Port-Address 0–32767. */
  readonly wire: number;
  readonly merge: MergeMode;
}

/** How a source's flag is cut and filled; with its letter this tells it apart without colour. */
export const PENNANT_CUTS = ['swallow', 'notch', 'square', 'triangle'] as const;
export const PENNANT_FILLS = ['plain', 'dots', 'bars', 'chevrons'] as const;
export type PennantCut = (typeof PENNANT_CUTS)[number];
export type PennantFill = (typeof PENNANT_FILLS)[number];

export interface Pennant {
  /** One letter */
  readonly letter: string;
  readonly cut: PennantCut;
  readonly fill: PennantFill;
}

/** A planned sender. */
export interface Source extends Row {
  readonly name: string;
  readonly address: string;
  /** Show universes that it is planned to send. */
  readonly universes: readonly number[];
  /** sACN priority, 0–200 */
  readonly priority: number;
  readonly pennant: Pennant;
}

export interface MachinePort {
  /** As printed on the box, from 1 */
  readonly number: number;
  readonly direction: 'out' | 'in';
  readonly protocol: Protocol;
  /** Show universe */
  readonly universe: number;
}

/** A planned node or pixel controller. */
export interface Machine extends Row {
  readonly name: string;
  readonly model: string;
  readonly address: string;
  readonly placeId: string | null;
  readonly ports: readonly MachinePort[];
}

export interface RecordOf {
  show: ShowInfo;
  place: Place;
  type: FixtureType;
  lamp: Lamp;
  universe: Universe;
  source: Source;
  machine: Machine;
}

export type Kind = keyof RecordOf;
export type AnyRecord = RecordOf[Kind];

/** In the order in which records may refer to those before them. */
export const KINDS = [
  'show',
  'place',
  'type',
  'universe',
  'lamp',
  'source',
  'machine',
] as const satisfies readonly Kind[];

/** Everything a show holds, as lists; the order within a list means nothing. */
export type ShowRecords = { readonly [K in Kind]: readonly RecordOf[K][] };

export const emptyShow = (): ShowRecords => ({
  show: [],
  place: [],
  type: [],
  universe: [],
  lamp: [],
  source: [],
  machine: [],
});
