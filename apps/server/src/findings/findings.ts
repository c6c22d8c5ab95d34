/** What is wrong with the plan of the network: looked for once an edit, in a thread of its own. */
import { Worker } from 'node:worker_threads';
import type { Finding } from '@taxiarch/core/check';
import type { ShowRecords } from '@taxiarch/core/show';
import type { FindingsFound, FindingsOrder } from './findingsThread';

export class Findings {
  private readonly worker: Worker;
  private looking: { seq: number; found: Promise<readonly Finding[]> } | undefined;
  private readonly waiting = new Map<number, (found: readonly Finding[]) => void>();

  constructor(thread: URL) {
    this.worker = new Worker(thread);
    this.worker.unref();
    this.worker.on('message', ({ seq, findings }: FindingsFound) => {
      this.waiting.get(seq)?.(findings);
      this.waiting.delete(seq);
    });
  }

  /** The findings of the show as edit `seq` left it. */
  of(seq: number, records: ShowRecords): Promise<readonly Finding[]> {
    if (this.looking?.seq === seq) return this.looking.found;
    const found = new Promise<readonly Finding[]>((resolve) => this.waiting.set(seq, resolve));
    this.looking = { seq, found };
    this.worker.postMessage({ seq, records } satisfies FindingsOrder);
    return found;
  }
}
