/** What the engine is asked, and its answers. While it is away every question is refused with {@link Away}. */
import type { NodesReply } from '@taxiarch/core/whole/contract';
import type { LampPort, LampRequest, LampTable } from '@taxiarch/core/truth/roll';
import { Asks } from './asks';
import { Away } from './away';
import type { Asking, FoundFader, FromEngine, ToEngine } from './engineMessages';
import type { EngineThreads } from './engineThreads';

/** What a lamp answered, and what asking has cost its port in all */
export type LampsAnswer = Pick<Extract<FromEngine, { type: 'lamp' }>, 'answers' | 'use'>;

/** What of the engine's messages answers a question */
export type Answering = Extract<FromEngine, { ask: number }>;

const answerIn = (message: Answering): unknown => {
  switch (message.type) {
    case 'learned':
      return message.found;
    case 'lamp':
      return message;
    case 'table':
      return message.table;
    case 'nodes':
      return message.page;
    case 'answer':
      return message.refused;
  }
};

export class Questions {
  private readonly asks = new Asks();
  /** Why the engine is away; empty while it is there */
  private why = '';

  constructor(private readonly threads: Pick<EngineThreads, 'up' | 'tell'>) {}

  /** Has it do something; resolves with a sentence if it refused. */
  ask(message: Asking): Promise<string | undefined> {
    return this.asking((ask) => ({ ...message, ask }));
  }

  /** Waits for a person to move a fader on another desk; null if nobody did in time. */
  learn(): Promise<FoundFader | null> {
    return this.asking((ask) => ({ type: 'learn', ask }));
  }

  /** A page of all devices that are remembered, from so many on. */
  nodes(from: number): Promise<NodesReply> {
    return this.asking((ask) => ({ type: 'nodes', from, ask }));
  }

  /** Asks a lamp; its answers in the order of the requests. */
  lamp(port: LampPort, requests: readonly LampRequest[], urgent: boolean): Promise<LampsAnswer> {
    return this.asking((ask) => ({ type: 'lamp', port, requests, urgent, ask }));
  }

  /** Who hangs on a port. */
  table(port: LampPort, afresh: boolean): Promise<LampTable> {
    return this.asking((ask) => ({ type: 'table', port, afresh, ask }));
  }

  private asking<T>(message: (ask: number) => ToEngine): Promise<T> {
    if (!this.threads.up) return Promise.reject(this.away());
    return this.asks.ask<T>((ask) => this.threads.tell(message(ask)));
  }

  settle(message: Answering): void {
    this.asks.settle(message.ask, answerIn(message));
  }

  away(): Away {
    return new Away(this.why || 'The engine has just started; ask again in a second.');
  }

  /** Nobody answers any more: whoever waits is refused. */
  gone(why: string): void {
    this.why = why;
    this.asks.refuse(new Away(why));
  }

  back(): void {
    this.why = '';
  }
}
