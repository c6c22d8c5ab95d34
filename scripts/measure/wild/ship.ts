/** The demo show with its stand-ins and Taxiarch beside them, however they run: all that a case does, asks and waits for. */
import type { StandingReport, Trouble, WhyReport } from '@taxiarch/core/truth/known';
import type { ShowRecords, Subject } from '@taxiarch/core/show/records';
import type { LiveReport } from '@taxiarch/core/whole/contract';

export interface Ship {
  readonly ports: { readonly sacn: number; readonly artnet: number };
  wait(ms: number): Promise<void>;
  /** Asks a stand-in’s panel. */
  panel<T>(address: string, knob: string, given?: object): Promise<T>;
  live(): Promise<LiveReport>;
  standing(): Promise<StandingReport>;
  why(about: Subject): Promise<WhyReport>;
  records(): ShowRecords;
  /** From now on this is the plan. */
  plan(records: ShowRecords): Promise<void>;
}

export type Random = () => number;
export const chosen = <T>(next: Random, all: readonly T[]): T => all[Math.floor(next() * all.length)]!;
export const between = (next: Random, least: number, most: number): number =>
  least + Math.floor(next() * (most - least + 1));

/** Something that is wrong on purpose. */
export interface Disturbance {
  /** What sort it is, for the table of what was taken for what */
  readonly sort: string;
  readonly says: string;
  /** Whether it is right to name this for it */
  readonly isMeantBy: (trouble: Trouble) => boolean;
  /** Nobody planned is touched by it: no alarm is right. */
  readonly harmless: boolean;
  /** Show universe of which nothing that is disturbed comes to this computer: only what nodes say of it can be known */
  readonly unheard?: number;
  /** A sender of the show that sends by another address meanwhile: that, and its own */
  readonly sendsBy?: readonly [another: string, its: string];
  /** Begins it; resolves with what ends it. */
  begin(ship: Ship): Promise<() => Promise<void> | void>;
}
