/** PDF, each made in a thread of its own. */
import { Worker } from 'node:worker_threads';
import type { PaperOrder } from './paperThread';

export class Printing {
  constructor(private readonly thread: URL | string) {}

  pdf(order: PaperOrder): Promise<Uint8Array> {
    const worker = new Worker(this.thread, { workerData: order });
    return new Promise((resolve, reject) => {
      worker.once('message', resolve);
      worker.once('error', reject);
      worker.once('exit', () => reject(new Error('The paper came to no end.')));
    });
  }
}
