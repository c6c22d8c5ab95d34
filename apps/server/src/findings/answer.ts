/** What is asked of what is there, and how it is answered. */
import type { LiveReport } from '@taxiarch/core/whole/contract';
import { forecastPush, forecastTake, standing, why } from '@taxiarch/core/truth/diagnose';
import type { PortForecast, PushForecast, StandingReport, WhyReport } from '@taxiarch/core/truth/known';
import { heardMachines, matchMachines } from '@taxiarch/core/network/node';
import type { Patch } from '@taxiarch/core/rig/patch';
import type { ShowRecords, Subject } from '@taxiarch/core/show/records';
import { rollOf, type RollNow } from '@taxiarch/core/truth/roll';

export type Question =
  | { readonly type: 'why'; readonly about: Subject }
  | { readonly type: 'standing' }
  | { readonly type: 'forecast'; readonly universe: number; readonly priority: number }
  | { readonly type: 'forecastPush'; readonly machineIds: readonly string[] };
export interface Answers {
  readonly why: WhyReport;
  readonly standing: StandingReport;
  readonly forecast: readonly PortForecast[];
  readonly forecastPush: readonly PushForecast[];
}

/** A show, and what is made of it once */
export interface Asked {
  readonly records: ShowRecords;
  readonly patch: Patch;
}

const clock = () => performance.now();

/** `roll`: what lamps answered over their cables; without it nothing is said of them. */
export function answer<Q extends Question>(
  question: Q,
  show: Asked,
  live: LiveReport,
  roll?: RollNow,
): Answers[Q['type']];
export function answer(question: Question, { records, patch }: Asked, live: LiveReport, roll?: RollNow) {
  const entries = matchMachines(records, heardMachines(live));
  const whole = { records, patch, heard: live, entries, roll: roll && rollOf(records, patch, roll) };
  switch (question.type) {
    case 'why':
      return why(question.about, whole, clock);
    case 'standing':
      return standing(whole, clock);
    case 'forecast':
      return forecastTake(whole, question.universe, question.priority);
    case 'forecastPush':
      return forecastPush(whole, question.machineIds);
  }
}
