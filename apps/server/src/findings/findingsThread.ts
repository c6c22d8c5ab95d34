/** Entry of the thread that looks for faults in the plan of the network, so that neither page nor server waits for it. */
import { parentPort, workerData } from 'node:worker_threads';
import { networkFindings, type Finding } from '@taxiarch/core/truth/check';
import type { LiveReport } from '@taxiarch/core/whole/contract';
import { rigOf } from '@taxiarch/core/rig/patch';
import type { ShowRecords } from '@taxiarch/core/show/records';
import type { RollNow } from '@taxiarch/core/truth/roll';
import { alive, keepBeating } from '../bridge/beat';
import { breakNow } from '../bridge/breaking';
import type { ThreadData, ThreadSays } from '../bridge/supervisor';
import { answer, type Answers, type Asked, type Question } from './answer';

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
let kept: ({ readonly seq: number } & Asked) | undefined;

function keep(seq: number, records: ShowRecords): NonNullable<typeof kept> {
  return (kept = { seq, records, patch: rigOf(records).patch });
}

function reply({ seq, records, live, question, roll }: FindingsOrder & { type: 'ask' }) {
  const show = records ? keep(seq, records) : kept?.seq === seq ? kept : undefined;
  return show && answer(question, show, live, roll);
}

port.on('message', (order: FindingsOrder) => {
  if (order.type === 'break') return breakNow(order.how);
  if (order.type === 'ask')
    return port.postMessage({ type: 'answer', ask: order.ask, reply: reply(order) } satisfies FindingsFound);
  const findings = networkFindings(order.records, () => alive(beat));
  port.postMessage({ type: 'found', seq: order.seq, findings } satisfies FindingsFound);
});
port.postMessage({ type: 'ready' } satisfies ThreadSays);
