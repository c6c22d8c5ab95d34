/** A rig as something from outside tells it. */
import type { SlotAddress } from '../../base/address';
import type { FixtureType, Lamp, PixelRun } from '../../show/records';

/** What papers and files of others say of a lamp in words */
export const SAID = [
  'written',
  'unit',
  'position',
  'class',
  'function',
  'gel',
  'circuit',
  'notes',
] as const satisfies readonly (keyof Lamp)[];
export type Said = (typeof SAID)[number];

/** A lamp as a file tells it; what the file does not say is undefined and stays as it is. */
export interface IncomingLamp extends Readonly<Partial<Record<Said, string | undefined>>> {
  /** Its UUID in the file; undefined or empty if it has none */
  readonly uuid?: string | undefined;
  /** By what it is told within its file, if that has more than lamps */
  readonly source?: string;
  readonly number: number;
  readonly name: string;
  readonly typeId: string;
  readonly mode: string;
  /** By block, 0/0 where one has none; empty where the lamp has none at all */
  readonly addresses?: readonly SlotAddress[] | undefined;
  /** Name of its place; empty for none */
  readonly place?: string | undefined;
  readonly groups?: readonly string[] | undefined;
  readonly x?: number | undefined;
  readonly y?: number | undefined;
  readonly z?: number | undefined;
}

/** A run of pixels, as our own files hold it. */
export interface IncomingRun {
  readonly run: PixelRun;
  /** Where each of its universes begins, in order */
  readonly addresses: readonly SlotAddress[];
  /** Name of its place; empty for none */
  readonly place: string;
}

export interface Incoming {
  /** The types that the lamps need */
  readonly types: readonly FixtureType[];
  readonly lamps: readonly IncomingLamp[];
  readonly runs?: readonly IncomingRun[];
  /** What could not be taken over, in sentences */
  readonly notes: readonly string[];
  /** Name of the kept file, if its other parts are to go out again */
  readonly file: string | null;
}
