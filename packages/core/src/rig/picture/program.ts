/**
 * A test picture as its slots move: what each does, by the step that the picture is at. Steps may be broken, so that
 * ramps are smooth; the speed is somebody else's.
 */

export type How =
  | { readonly kind: 'still'; readonly value: number }
  /** One value a step, from the begin again after the last */
  | { readonly kind: 'steps'; readonly values: readonly number[] }
  /** Lit once in `of` steps, at step `at` */
  | { readonly kind: 'turn'; readonly at: number; readonly of: number; readonly on: number; readonly off: number }
  /** Up and down again within `steps` */
  | { readonly kind: 'wave'; readonly steps: number; readonly from: number; readonly to: number }
  /** Another value each time it is asked */
  | { readonly kind: 'random' };

export interface Track {
  /** Wire key of its universe */
  readonly key: number;
  /** 0–511 */
  readonly slot: number;
  /** It is light, and follows the picture's level. */
  readonly dims: boolean;
  readonly how: How;
}

export interface Program {
  /** Steps until it begins anew; 1 for a picture that stands */
  readonly steps: number;
  readonly tracks: readonly Track[];
}

const positive = (value: number, of: number): number => ((value % of) + of) % of;

function valueOf(how: How, step: number, chance: () => number): number {
  switch (how.kind) {
    case 'still':
      return how.value;
    case 'steps':
      return how.values[positive(Math.floor(step), how.values.length)] ?? 0;
    case 'turn':
      return positive(Math.floor(step), how.of) === how.at ? how.on : how.off;
    case 'wave': {
      const part = positive(step, how.steps) / how.steps;
      return how.from + (how.to - how.from) * (1 - Math.abs(2 * part - 1));
    }
    case 'random':
      return chance() * 255;
  }
}

/** Level of a slot, 0–255, at a step. `level`: of the whole picture, 0–1. `chance`: 0–1, for those that are random. */
export function levelAt({ how, dims }: Track, step: number, level: number, chance: () => number): number {
  const value = valueOf(how, step, chance);
  return Math.max(0, Math.min(255, Math.round(dims ? value * level : value)));
}

/** Universes that a program sends */
export const universesIn = ({ tracks }: Program): ReadonlySet<number> => new Set(tracks.map(({ key }) => key));
