/** What if: each question in a thread of its own, which can be ended. */
import { randomUUID } from 'node:crypto';
import { Worker } from 'node:worker_threads';
import type { EveryReply } from '@taxiarch/core/whole/contract';
import type { ShowRecords } from '@taxiarch/core/show/records';
import type { FailureRow, Mend, WhatIfReport } from '@taxiarch/core/truth/whatif';
import { ProblemError } from '../problemError';
import type { FromWhatIf, WhatIfOrder } from './whatIfThread';

/** What came to its end is forgotten after this long. */
const FORGOTTEN_MS = 30 * 60_000;
const MOST_AT_ONCE = 2;

interface Job {
  readonly worker: Worker;
  reply: EveryReply;
}

export class WhatIfs {
  private readonly jobs = new Map<string, Job>();

  constructor(private readonly thread: URL | string) {}

  private ask<T extends FromWhatIf['type']>(order: WhatIfOrder, type: T): Promise<Extract<FromWhatIf, { type: T }>> {
    const worker = new Worker(this.thread, { workerData: order });
    return new Promise((resolve, reject) => {
      worker.on('message', (message: FromWhatIf) => {
        if (message.type === 'refused') reject(new ProblemError('not-possible', message.why));
        else if (message.type === type) resolve(message as Extract<FromWhatIf, { type: T }>);
      });
      worker.on('error', reject);
      worker.on('exit', () => reject(new ProblemError('not-possible', 'It came to no end. Try a shorter time.')));
    });
  }

  run = async (order: WhatIfOrder): Promise<WhatIfReport> => (await this.ask(order, 'run')).report;
  mends = async (order: WhatIfOrder): Promise<readonly Mend[] | undefined> => (await this.ask(order, 'mends')).mends;

  /** Every single failure from the plan, waited for. */
  all = async (records: ShowRecords): Promise<readonly FailureRow[]> => {
    const what = { type: 'every', pairs: false } as const;
    return (await this.ask({ records, live: undefined, from: 'plan', hangsOn: new Map(), what }, 'every')).rows;
  };

  /** Begins to try every failure. */
  every(order: WhatIfOrder): EveryReply {
    if ([...this.jobs.values()].filter(({ reply }) => !reply.ended).length >= MOST_AT_ONCE)
      throw new ProblemError('busy', 'Failures are being tried already. Wait for that, or end it.');
    const id = randomUUID();
    const worker = new Worker(this.thread, { workerData: order });
    const job: Job = { worker, reply: { id, done: 0, of: 0, ended: false, why: '', rows: [] } };
    this.jobs.set(id, job);
    const ended = (over: Partial<EveryReply>) => (job.reply = { ...job.reply, ended: true, ...over });
    worker.on('message', (message: FromWhatIf) => {
      if (message.type === 'progress') job.reply = { ...job.reply, done: message.done, of: message.of };
      else if (message.type === 'refused') ended({ why: message.why });
      else if (message.type === 'every') ended({ rows: message.rows, done: job.reply.of });
    });
    worker.on('error', () => ended({ why: 'It needs more memory than there is.' }));
    setTimeout(() => this.jobs.delete(id), FORGOTTEN_MS).unref();
    return job.reply;
  }

  read(id: string): EveryReply {
    const job = this.jobs.get(id);
    if (!job) throw new ProblemError('not-here', 'This is not here any more. Try it again.');
    return job.reply;
  }

  async cancel(id: string): Promise<void> {
    this.read(id);
    const { worker } = this.jobs.get(id)!;
    this.jobs.delete(id);
    await worker.terminate();
  }
}
