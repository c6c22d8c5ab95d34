/** Entry of the thread that looks for faults in the plan of the network, so that neither page nor server waits for it. */
import { parentPort, workerData } from 'node:worker_threads';
import { networkFindings, type Finding } from '@taxiarch/core/check';
import type { ShowRecords } from '@taxiarch/core/records';
import { alive, keepBeating } from '../bridge/beat';
import { breakNow } from '../bridge/breaking';
import type { ThreadData, ThreadSays } from '../bridge/supervisor';

export type FindingsOrder =
  | { readonly type: 'look'; readonly seq: number; readonly records: ShowRecords }
  | { readonly type: 'break'; readonly how: 'throw' | 'hang' };

export interface FindingsFound {
  readonly type: 'found';
  readonly seq: number;
  readonly findings: readonly Finding[];
}

const port = parentPort!;
const { beat } = workerData as ThreadData;
keepBeating(beat);
port.on('message', (order: FindingsOrder) => {
  if (order.type === 'break') return breakNow(order.how);
  const findings = networkFindings(order.records, () => alive(beat));
  port.postMessage({ type: 'found', seq: order.seq, findings } satisfies FindingsFound);
});
port.postMessage({ type: 'ready' } satisfies ThreadSays);
