/** What the receiving thread is told, and says, by server and engine. */
import type { MessagePort } from 'node:worker_threads';
import type { Ports, Using } from './interfaces';

/** How many multicast groups are joined */
export interface MembershipState {
  readonly wanted: number;
  readonly joined: number;
  /** The system lets no more be joined. */
  readonly full: boolean;
}

export interface ReceiverSetup {
  readonly ports: Ports;
  /** The ring into which packets go */
  readonly memory: SharedArrayBuffer;
  /** To the engine */
  readonly port: MessagePort;
  /** Unix time in milliseconds from which the reader's clock counts */
  readonly epoch: number;
}

/** From the server */
export type ToReceiver =
  /** The engine was started anew and is reached by this. */
  | { readonly type: 'engine'; readonly port: MessagePort }
  | { readonly type: 'break'; readonly how: 'throw' | 'hang' }
  | { readonly type: 'close' };

/** From the engine; orders with `ask` are answered when they are done. */
export type EngineToReceiver =
  | { readonly type: 'use'; readonly next: Using; readonly ask: number }
  /** Groups of these universes shall be joined, the most needed first, and no others. */
  | { readonly type: 'join'; readonly universes: readonly number[] }
  | { readonly type: 'send'; readonly bytes: Uint8Array; readonly address: string };

export interface PlainError {
  readonly message: string;
  readonly code: string | undefined;
}

/** To the engine */
export type ReceiverToEngine =
  | { readonly type: 'packets' }
  | { readonly type: 'trouble'; readonly error: PlainError }
  | { readonly type: 'joined'; readonly state: MembershipState }
  | { readonly type: 'joinedBySixth'; readonly joined: number }
  | { readonly type: 'done'; readonly ask: number; readonly error: PlainError | undefined };
