/** The parts of the engine, as those see them that work on several. */
import type { Settings } from '@taxiarch/core/whole/contract';
import type { Network } from '@taxiarch/core/show/records';
import type { FromEngine } from '../bridge/engineMessages';
import type { Using } from '../bridge/interfaces';
import type { Discovered } from './listening/discovered';
import type { Ingest } from './listening/ingest';
import type { NodeTable } from './nodes/nodes';
import type { Output } from './output/output';
import type { Pictures } from './output/pictures';
import type { AlsoHeard } from './listening/alsoHeard';
import type { Membership } from './listening/membership';
import type { LampDesk } from './nodes/rdm/lampDesk';
import type { Polling } from './nodes/polling';
import type { Sweep } from './listening/sweep';
import type { Router } from './routing/router';
import type { Sockets } from './sockets';

export interface EngineParts {
  readonly nodes: NodeTable;
  readonly discovered: Discovered;
  readonly ingest: Ingest;
  readonly sockets: Sockets;
  readonly output: Output;
  readonly pictures: Pictures;
  readonly membership: Membership;
  readonly sweep: Sweep;
  readonly alsoHeard: AlsoHeard;
  readonly polling: Polling;
  readonly router: Router;
  readonly lamps: LampDesk;
  settings: Settings;
  networks: readonly Network[];
  readonly using: Using;
  /** Packets that the system threw away since start, as far as it tells */
  readonly drops: number;
  /** Component id of what people take */
  readonly ownCid: Uint8Array;
  /** Keys of the universes that somebody looks at, and slots that somebody inspects */
  watched: ReadonlySet<number>;
  /** Keys of the universes that the show plans */
  planned: readonly number[];
  inspected: readonly (readonly [number, number])[];
  /** Unix time in milliseconds from which the clock counts */
  readonly epoch: number;
  /** Milliseconds, rising */
  readonly clock: () => number;
  unixTime(): number;
  timeoutOf(key: number): number;
  tell(message: FromEngine): void;
  trouble(text: string): void;
  /** Takes up the interfaces chosen, or lets go of those that are gone. */
  followInterface(chosen?: boolean): Promise<void>;
  stop(): void;
}
