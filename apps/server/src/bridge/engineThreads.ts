/** The engine's thread and the receiving one: both supervised, joined by a channel that is made anew with either. */
import { MessageChannel, type MessagePort } from 'node:worker_threads';
import type { Settings } from '@taxiarch/core/whole/contract';
import type { EngineSetup, FromEngine, ToEngine } from './engineMessages';
import type { Notices } from './notices';
import type { ReceiverSetup, ToReceiver } from './receiverMessages';
import { PacketRing } from './ring';
import { Supervised } from './supervisor';

/** At 88,000 packets a second, about a second. Memory that no packet ever came to costs nothing. */
const RING_BYTES = 64 * 1024 * 1024;

export interface EngineFiles {
  readonly engine: URL;
  readonly receiver: URL;
}

export interface EngineStart {
  readonly cid: Uint8Array;
  readonly ports: { readonly sacn: number; readonly artnet: number };
  readonly settings: Settings;
}

/** What is done when the engine says something, fails, and is there again. */
export interface EngineEvents {
  /** Settings of this computer as they are when a thread begins */
  settings(): Settings;
  received(message: FromEngine): void;
  failed(why: string): void;
  back(after: number, why: string): void;
}

export const again = (after: number): string => `It was started again after ${(after / 1000).toFixed(1)} s`;

export class EngineThreads {
  private readonly ring = PacketRing.memory(RING_BYTES);
  private readonly engine: Supervised<ToEngine, FromEngine>;
  private readonly receiver: Supervised<ToReceiver, { type: 'none' }>;
  /** The receiving thread's end of a fresh channel, until it takes it over */
  private forReceiver: MessagePort | undefined;

  /** `memory`: the shared levels */
  constructor(
    files: EngineFiles,
    { cid, ports }: EngineStart,
    memory: EngineSetup['memory'],
    events: EngineEvents,
    notices: Notices,
  ) {
    this.receiver = new Supervised({
      file: files.receiver,
      data: () => {
        const port = this.forReceiver ?? this.join();
        this.forReceiver = undefined;
        const data = { ports, memory: this.ring, port, epoch: performance.timeOrigin };
        return { data: data satisfies ReceiverSetup, transfer: [port] };
      },
      received: () => undefined,
      failed: (why) =>
        notices.say('receiver', `Receiving failed: ${why}. It is being started again; nothing is heard until then.`),
      back: (after, why) => notices.say('receiver', `Receiving failed: ${why}. ${again(after)}.`),
    });
    this.engine = new Supervised({
      file: files.engine,
      data: () => {
        const { port1, port2 } = new MessageChannel();
        if (this.receiver.up) this.receiver.tell({ type: 'engine', port: port2 }, [port2]);
        else this.forReceiver = port2;
        const setup = { memory, ring: this.ring, cid, ports, settings: events.settings() };
        return { data: { ...setup, receiver: port1 } satisfies EngineSetup, transfer: [port1] };
      },
      received: (message) => events.received(message),
      failed: (why) => events.failed(why),
      back: (after, why) => events.back(after, why),
    });
  }

  /** A channel from a receiving thread that starts to the engine that runs. */
  private join(): MessagePort {
    const { port1, port2 } = new MessageChannel();
    this.engine.tell({ type: 'receiver', port: port1 }, [port1]);
    return port2;
  }

  /** Rejects with the reason if they cannot listen. */
  async start(): Promise<void> {
    const engine = this.engine.start();
    await this.receiver.start();
    await engine;
  }

  /** The engine runs and can be asked. */
  get up(): boolean {
    return this.engine.up;
  }

  tell(message: ToEngine): void {
    this.engine.tell(message);
  }

  /** For tests: makes a thread throw or hang. */
  break(thread: 'engine' | 'receiver', how: 'throw' | 'hang'): void {
    this[thread].tell({ type: 'break', how });
  }

  async stop(): Promise<void> {
    await this.engine.stop({ type: 'stop' });
    await this.receiver.stop({ type: 'close' });
  }
}
