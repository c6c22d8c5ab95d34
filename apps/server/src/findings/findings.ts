/** What is wrong with the plan of the network: looked for once an edit, in a thread of its own. */
import type { Finding } from '@taxiarch/core/truth/check';
import type { LiveReport } from '@taxiarch/core/whole/contract';
import type { ShowRecords } from '@taxiarch/core/show/records';
import type { RollNow } from '@taxiarch/core/truth/roll';
import { Away } from '../bridge/away';
import type { Notices } from '../bridge/notices';
import { Supervised } from '../bridge/supervisor';
import type { Answers, Question } from './answer';
import type { FindingsFound, FindingsOrder } from './findingsThread';

/** Judging a whole network takes its time on a busy computer. */
const PATIENCE_MS = 10_000;

interface Waiting<T> {
  resolve(found: T): void;
  reject(error: Error): void;
}

export class Findings {
  private readonly thread: Supervised<FindingsOrder, FindingsFound>;
  private readonly started: Promise<void>;
  private looking: { seq: number; found: Promise<readonly Finding[]> } | undefined;
  private readonly waiting = new Map<number, Waiting<readonly Finding[]>>();
  private readonly asked = new Map<number, Waiting<Answers[Question['type']] | undefined>>();
  private asks = 0;
  /** Number of the edit whose show the thread was told for questions */
  private told: number | undefined;

  constructor(file: URL, notices: Pick<Notices, 'say'>) {
    this.thread = new Supervised({
      file,
      patience: PATIENCE_MS,
      data: () => ({ data: {} }),
      received: (message) => {
        if (message.type === 'answer') {
          this.asked.get(message.ask)?.resolve(message.reply);
          this.asked.delete(message.ask);
          return;
        }
        this.waiting.get(message.seq)?.resolve(message.findings);
        this.waiting.delete(message.seq);
      },
      failed: (why) => {
        notices.say('findings', `Looking for faults in the plan failed: ${why}. It begins anew; ask again.`);
        for (const { reject } of [...this.waiting.values(), ...this.asked.values()])
          reject(new Away('Looking for faults failed; ask again.'));
        this.waiting.clear();
        this.asked.clear();
        this.looking = undefined;
        this.told = undefined;
      },
      back: () => undefined,
    });
    this.started = this.thread.start();
    this.started.catch(() => undefined);
  }

  /** The findings of the show as edit `seq` left it. */
  of(seq: number, records: ShowRecords): Promise<readonly Finding[]> {
    if (this.looking?.seq === seq) return this.looking.found;
    const found = this.started.then(
      () =>
        new Promise<readonly Finding[]>((resolve, reject) => {
          this.waiting.set(seq, { resolve, reject });
          this.thread.tell({ type: 'look', seq, records });
        }),
    );
    this.looking = { seq, found };
    return found;
  }

  /** Asks what stands in the show as edit `seq` left it, and on the wire. */
  async ask<Q extends Question>(
    seq: number,
    records: ShowRecords,
    live: LiveReport,
    question: Q,
    /** What lamps said, where that is asked for */
    roll?: RollNow,
  ): Promise<Answers[Q['type']]> {
    await this.started;
    const reply = await new Promise<Answers[Question['type']] | undefined>((resolve, reject) => {
      this.asks += 1;
      this.asked.set(this.asks, { resolve, reject });
      const known = this.told === seq;
      this.told = seq;
      const show = known ? undefined : records;
      this.thread.tell({ type: 'ask', ask: this.asks, seq, records: show, live, question, roll });
    });
    if (!reply) throw new Away('Looking for faults begins anew; ask again.');
    return reply as Answers[Q['type']];
  }

  /** For tests: makes the thread throw or hang. */
  break(how: 'throw' | 'hang'): void {
    this.thread.tell({ type: 'break', how });
  }

  stop(): Promise<void> {
    return this.thread.stop();
  }
}
