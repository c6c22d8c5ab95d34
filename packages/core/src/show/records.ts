/** The records of a show. Each has an id of its own and the revision (edit number) that last changed it. */
import type { Protocol, SlotAddress, WireUniverse } from '../address';
import type { FixtureKind, FixtureMode } from '../fixture';
import type { MergeMode } from '../merge';
import type { Machine, Model, Network, Snapshot } from './machines';
import type { Control, Link, Route } from './routing';

export interface Row {
  readonly id: string;
  /** Number of the edit that last changed this record; 0 before it is stored. */
  readonly rev: number;
}

/** The show itself; there is one. */
export interface ShowInfo extends Row {
  readonly name: string;
  readonly about: string;
  /** The rig file (MVR) that the show was last taken from, as a kept file's name, so that its other parts go out again. */
  readonly file: string | null;
}

export interface Place extends Row {
  readonly name: string;
  /** Order in lists, rising. */
  readonly order: number;
}

export interface FixtureType extends Row {
  readonly maker: string;
  readonly name: string;
  readonly kind: FixtureKind;
  /** The type's file (GDTF) that it was taken from, as a kept file's name; null if it was made here. */
  readonly file: string | null;
  readonly modes: readonly FixtureMode[];
}

/** Colours that lamps are marked with, so that people find them again; they mean what people let them mean. */
export const TAGS = ['', 'red', 'orange', 'yellow', 'green', 'teal', 'violet', 'grey'] as const;
export type Tag = (typeof TAGS)[number];

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
  /** Where its second and further address blocks begin, if its mode has any. */
  readonly blocks: readonly SlotAddress[];
  readonly placeId: string | null;
  /** Names of the groups that it is in, outermost first. */
  readonly groups: readonly string[];
  readonly tag: Tag;
  /** Lamps with the same word here share their address on purpose. */
  readonly twin: string | null;
  /** Stands fast on the plan. */
  readonly locked: boolean;
  /** Metres: x to starboard, y to the bow, z up. */
  readonly x: number;
  readonly y: number;
  readonly z: number;
}

/** What a lamp is before anybody says more of it. */
export const PLAIN_LAMP = {
  blocks: [],
  placeId: null,
  groups: [],
  tag: '',
  twin: null,
  locked: false,
  x: 0,
  y: 0,
  z: 0,
} as const satisfies Partial<Lamp>;

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

/**
 * How packets find who is to hear them. `usual` is what the protocol does of itself: sACN goes to a
 * multicast group a universe, Art-Net to each device that lists the universe.
 */
export const DELIVERIES = ['usual', 'multicast', 'unicast', 'broadcast'] as const;
export type Delivery = (typeof DELIVERIES)[number];

/** Universes in a row that a sender sends in one and the same way. */
export interface SourceRange {
  /** First show universe */
  readonly from: number;
  /** How many show universes from there */
  readonly count: number;
  /** Where the first goes on the wire, the others following it; null if each travels as its universe is planned. */
  readonly to: WireUniverse | null;
  /** Name of the sender's interface that it leaves by; empty for any */
  readonly interface: string;
  readonly delivery: Delivery;
  /** Dotted addresses, for unicast */
  readonly addresses: readonly string[];
  /** Frames a second, 1–1000; more than 44 is more than DMX carries */
  readonly rate: number;
  /** sACN priority, 0–200 */
  readonly priority: number;
  /** It sends a priority for each slot too (start code 0xDD). */
  readonly slotPriority: boolean;
  readonly on: boolean;
  /** Goes on sending while nothing changes */
  readonly whenIdle: boolean;
  readonly note: string;
}

/** A range before anybody says more of it. */
export const PLAIN_RANGE = {
  count: 1,
  to: null,
  interface: '',
  delivery: 'usual',
  addresses: [],
  rate: 44,
  priority: 100,
  slotPriority: false,
  on: true,
  whenIdle: true,
  note: '',
} as const satisfies Partial<SourceRange>;

/** A planned sender. */
export interface Source extends Row {
  readonly name: string;
  readonly address: string;
  /** What it is planned to send, line by line */
  readonly ranges: readonly SourceRange[];
  readonly pennant: Pennant;
}

/** Where a run of pixels begins: right after the run before it, at an address, or at its controller's first universe. */
export type RunStart =
  | { readonly kind: 'after' }
  | { readonly kind: 'at'; readonly universe: number; readonly channel: number }
  | { readonly kind: 'controller' };

export interface Point {
  readonly x: number;
  readonly y: number;
  readonly z: number;
}

/** A run of pixels on one output of a controller. */
export interface PixelRun extends Row {
  /** Shares its numbers with the lamps; runs follow one another in this order. */
  readonly number: number;
  readonly name: string;
  readonly count: number;
  /** Colours of one pixel in the order in which they are sent: letters of R, G, B, W, A. */
  readonly order: string;
  readonly bits: 8 | 16;
  /** Channels of each universe that are used */
  readonly perUniverse: 510 | 512;
  /** Keep each pixel within one universe. */
  readonly whole: boolean;
  readonly start: RunStart;
  /** Pixel 1 is the last one sent. */
  readonly reversed: boolean;
  /** Pixels on the wire before the first that is seen; they are dark and count to the output's length. */
  readonly nulls: number;
  /** The null pixels take channels too. */
  readonly nullsSent: boolean;
  readonly machineId: string | null;
  /** Output of the controller, from 1 */
  readonly output: number | null;
  readonly placeId: string | null;
  /** Its first and last pixel in metres */
  readonly from: Point;
  readonly to: Point;
}

export interface RecordOf {
  show: ShowInfo;
  place: Place;
  type: FixtureType;
  lamp: Lamp;
  universe: Universe;
  source: Source;
  network: Network;
  model: Model;
  machine: Machine;
  run: PixelRun;
  snapshot: Snapshot;
  route: Route;
  control: Control;
  link: Link;
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
  'network',
  'model',
  'machine',
  'run',
  'snapshot',
  'route',
  'control',
  'link',
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
  network: [],
  model: [],
  machine: [],
  run: [],
  snapshot: [],
  route: [],
  control: [],
  link: [],
});
