/** Entry of the thread that looks for faults in the plan of the network, so that neither page nor server waits for it. */
import { parentPort } from 'node:worker_threads';
import { networkFindings, type Finding } from '@taxiarch/core/check';
import type { ShowRecords } from '@taxiarch/core/show';

export interface FindingsOrder {
  readonly seq: number;
  readonly records: ShowRecords;
}

export interface FindingsFound {
  readonly seq: number;
  readonly findings: readonly Finding[];
}

const port = parentPort!;
port.on('message', ({ seq, records }: FindingsOrder) =>
  port.postMessage({ seq, findings: networkFindings(records) } satisfies FindingsFound),
);
