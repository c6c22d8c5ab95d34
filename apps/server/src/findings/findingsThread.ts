/** Entry of the thread that looks for faults in the plan of the network, so that neither page nor server waits for it. */
import { parentPort, workerData } from 'node:worker_threads';
import { networkFindings, type Finding } from '@taxiarch/core/truth/check';
import type { LiveReport } from '@taxiarch/core/whole/contract';
import { forecastPush, forecastTake, standing, why } from '@taxiarch/core/truth/diagnose';
import type { PortForecast, PushForecast, StandingReport, WhyReport } from '@taxiarch/core/truth/known';
import { heardMachines, matchMachines } from '@taxiarch/core/network/node';
import { rigOf, type Patch } from '@taxiarch/core/rig/patch';
import type { ShowRecords, Subject } from '@taxiarch/core/show/records';
import { rollOf, type RollNow } from '@taxiarch/core/truth/roll';
import { alive, keepBeating } from '../bridge/beat';
import { breakNow } from '../bridge/breaking';
import type { ThreadData, ThreadSays } from '../bridge/supervisor';

/** What is asked of what is there, and what is answered. */
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

export type FindingsOrder =
  | {
      readonly type: 'ask';
      readonly ask: number;
      readonly seq: number;
      /** Only if it is another show than that of the last order */
      readonly records: ShowRecords | undefined;
      readonly live: LiveReport;
      readonly question: Question;
      readonly roll: RollNow | undefined;
    }
  | { readonly type: 'look'; readonly seq: number; readonly records: ShowRecords }
  | { readonly type: 'break'; readonly how: 'throw' | 'hang' };

export type FindingsFound =
  | { readonly type: 'found'; readonly seq: number; readonly findings: readonly Finding[] }
  /** Undefined where the show that was asked about is not here */
  | { readonly type: 'answer'; readonly ask: number; readonly reply: Answers[Question['type']] | undefined };

const port = parentPort!;
const { beat } = workerData as ThreadData;
keepBeating(beat);
/** The show of the last order, and what is made of it once */
let kept: { readonly seq: number; readonly records: ShowRecords; readonly patch: Patch } | undefined;

function keep(seq: number, records: ShowRecords): NonNullable<typeof kept> {
  return (kept = { seq, records, patch: rigOf(records).patch });
}

const clock = () => performance.now();

function answer({ seq, records: given, live, question, roll }: FindingsOrder & { type: 'ask' }) {
  const show = given ? keep(seq, given) : kept?.seq === seq ? kept : undefined;
  if (!show) return undefined;
  const { records, patch } = show;
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

port.on('message', (order: FindingsOrder) => {
  if (order.type === 'break') return breakNow(order.how);
  if (order.type === 'ask')
    return port.postMessage({ type: 'answer', ask: order.ask, reply: answer(order) } satisfies FindingsFound);
  const findings = networkFindings(order.records, () => alive(beat));
  port.postMessage({ type: 'found', seq: order.seq, findings } satisfies FindingsFound);
});
port.postMessage({ type: 'ready' } satisfies ThreadSays);
