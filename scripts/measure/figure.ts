/** What is measured, how it is judged, and how much of the computer was taken away meanwhile. */
import { readFileSync } from 'node:fs';

export interface Figure {
  /** What is measured */
  readonly figure: string;
  /** What it is held to, or what it stands beside */
  readonly asked: string;
  readonly seen: string;
  /** Whether it is as asked; null where this run cannot tell */
  readonly met: boolean | null;
}

/** How long and how often: once and briefly, to see that it works, or in full. */
export interface Extent {
  readonly short: boolean;
  /** The number for a run in full, or the one for a short run */
  of(full: number, short: number): number;
}

export type Part = (extent: Extent) => Promise<Figure[]>;

/** Of the computer's time; when more than this was taken away, a round is not quiet. */
export const QUIET = 0.005;

type Ticks = readonly number[];

/** The computer's time since it began, by what it was spent on; empty where the system does not say. */
export function ticks(): Ticks {
  if (process.platform !== 'linux') return [];
  return readFileSync('/proc/stat', 'utf8').split('\n')[0]!.split(/\s+/).slice(1, 9).map(Number);
}

/** Share of the computer's time that its host gave to others since `before`. */
export function stolen(before: Ticks): number {
  const spent = ticks().map((now, i) => now - before[i]!);
  const all = spent.reduce((sum, one) => sum + one, 0);
  return all === 0 ? 0 : spent[7]! / all;
}

export const percent = (share: number): string => `${(share * 100).toFixed(1)} %`;
export const wait = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));
export const median = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
export const ratio = (one: number, other: number): string => (one / other).toFixed(2);

/** A round of sending, by a bare program and by ours. */
export interface Round {
  readonly sent: number;
  readonly lost: number;
  readonly stolen: number;
}

/** Whether ours lost nothing, judged by rounds in which the bare program lost nothing and the computer was ours. */
export function noneLost(
  rounds: readonly { readonly bare: Round; readonly ours: Round }[],
): Pick<Figure, 'seen' | 'met'> {
  const fair = rounds.filter(({ bare, ours }) => bare.lost <= 0 && ours.stolen < QUIET);
  const sum = (which: 'bare' | 'ours') => rounds.reduce((all, round) => all + round[which].lost, 0);
  const sent = rounds.reduce((all, { ours }) => all + ours.sent, 0);
  return {
    seen: `lost ${sum('ours')} of ${sent}, the bare program ${sum('bare')}; quiet: ${fair.length} of ${rounds.length} rounds`,
    met: fair.length === 0 ? null : fair.every(({ ours }) => ours.lost <= 0),
  };
}
