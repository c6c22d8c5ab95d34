/** What the server and its engine thread say to each other. Levels go through shared memory, not through here. */
import type {
  ControlReport,
  DiscoveryReport,
  InterfaceInfo,
  NodeReport,
  OutputReport,
  RouteReport,
  Settings,
  SlotContender,
  StreamReport,
} from '@taxiarch/core/contract';
import type { MergeMode } from '@taxiarch/core/merge';
import type { Network } from '@taxiarch/core/show';
import type { Ports } from './ear';
import type { FoundFader } from './faderFinder';
import type { TakeOrder } from './output';
import type { RouterPlan } from './router';

export interface EngineSetup {
  readonly memory: SharedArrayBuffer;
  readonly cid: Uint8Array;
  readonly ports: Ports;
  readonly settings: Settings;
}

export interface PlannedUniverse {
  readonly key: number;
  readonly merge: MergeMode;
}

export type GiveBackOrder = {
  readonly client?: string | undefined;
  readonly slots?: readonly (readonly [number, number])[] | undefined;
};

/** Server to engine. Those with `ask` are answered by an `answer` of that number. */
export type ToEngine =
  | { readonly type: 'settings'; readonly settings: Settings }
  | {
      readonly type: 'plan';
      readonly universes: readonly PlannedUniverse[];
      readonly networks: readonly Network[];
      readonly router: RouterPlan;
    }
  | {
      readonly type: 'runRoutes';
      readonly ids: readonly string[];
      readonly on: boolean;
      readonly by: string;
      readonly ask: number;
    }
  | { readonly type: 'giveBackRoute'; readonly id: string; readonly ask: number }
  /** Answered by `learned` */
  | { readonly type: 'learn'; readonly ask: number }
  | { readonly type: 'watch'; readonly keys: readonly number[]; readonly slots: readonly (readonly [number, number])[] }
  | {
      readonly type: 'levels';
      readonly client: string;
      readonly key: number;
      readonly levels: readonly (readonly [number, number])[];
    }
  | { readonly type: 'hot'; readonly hot: boolean; readonly by: string; readonly ask: number }
  | { readonly type: 'take'; readonly order: TakeOrder; readonly ask: number }
  | { readonly type: 'giveBack'; readonly order: GiveBackOrder; readonly ask: number }
  | {
      readonly type: 'program';
      readonly address: string;
      readonly mac: string;
      readonly packets: readonly Uint8Array[];
      readonly ask: number;
    }
  /** Answered after a fresh report */
  | { readonly type: 'report'; readonly ask: number }
  | { readonly type: 'scan' }
  | { readonly type: 'leave'; readonly client: string }
  | { readonly type: 'stop' };

export interface EngineUniverse {
  readonly key: number;
  readonly streams: readonly StreamReport[];
}

export interface EngineReport {
  readonly at: number;
  readonly listeningSince: number;
  readonly interface: InterfaceInfo | null;
  readonly artnetInterface: InterfaceInfo | null;
  readonly trouble: string;
  readonly nodes: readonly NodeReport[];
  readonly discovered: readonly DiscoveryReport[];
  readonly output: OutputReport;
  readonly routes: readonly RouteReport[];
  readonly controls: readonly ControlReport[];
  readonly packetsPerSecond: number;
  readonly packets: number;
  readonly rejected: Readonly<Record<string, number>>;
}

/** Engine to server. */
export type FromEngine =
  | { readonly type: 'ready' }
  | { readonly type: 'failed'; readonly why: string }
  /** Pairs of key and row in the shared levels */
  | { readonly type: 'rows'; readonly rows: readonly (readonly [number, number])[] }
  /** Some of the universes, or all if they are few */
  | { readonly type: 'universes'; readonly universes: readonly EngineUniverse[] }
  | { readonly type: 'report'; readonly report: EngineReport }
  | {
      readonly type: 'contenders';
      readonly key: number;
      readonly slot: number;
      readonly contenders: readonly SlotContender[];
    }
  | { readonly type: 'learned'; readonly ask: number; readonly found: FoundFader | null }
  | { readonly type: 'answer'; readonly ask: number; readonly refused: string | undefined };
