/** What is wrong with the plan of the network: looked for once an edit, in a thread of its own. */
import type { Finding } from '@taxiarch/core/check';
import type { ShowRecords } from '@taxiarch/core/records';
import { Away } from '../bridge/away';
import type { Notices } from '../bridge/notices';
import { Supervised } from '../bridge/supervisor';
import type { FindingsFound, FindingsOrder } from './findingsThread';

interface Waiting {
  resolve(found: readonly Finding[]): void;
  reject(error: Error): void;
}

export class Findings {
  private readonly thread: Supervised<FindingsOrder, FindingsFound>;
  private readonly started: Promise<void>;
  private looking: { seq: number; found: Promise<readonly Finding[]> } | undefined;
  private readonly waiting = new Map<number, Waiting>();

  constructor(file: URL, notices: Pick<Notices, 'say'>) {
    this.thread = new Supervised({
      file,
      data: () => ({ data: {} }),
      received: ({ seq, findings }) => {
        this.waiting.get(seq)?.resolve(findings);
        this.waiting.delete(seq);
      },
      failed: (why) => {
        notices.say('findings', `Looking for faults in the plan failed: ${why}. It begins anew; ask again.`);
        for (const { reject } of this.waiting.values()) reject(new Away('Looking for faults failed; ask again.'));
        this.waiting.clear();
        this.looking = undefined;
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

  /** For tests: makes the thread throw or hang. */
  break(how: 'throw' | 'hang'): void {
    this.thread.tell({ type: 'break', how });
  }

  stop(): Promise<void> {
    return this.thread.stop();
  }
}
