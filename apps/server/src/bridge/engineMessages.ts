/** What the server and its engine thread say to each other. Levels go through shared memory, not through here. */
import type { Reach } from '@taxiarch/core/network/flow';
import type { Control, Route } from '@taxiarch/core/show/records';
import type { MessagePort } from 'node:worker_threads';
import type { NodesReply, OutputReport, Settings } from '@taxiarch/core/whole/contract';
import type { ControlReport, RouteReport } from '@taxiarch/core/signal/route';
import type {
  AlsoHeardReport,
  DiscoveryReport,
  MembershipReport,
  StreamReport,
  SweepReport,
  SyncReport,
} from '@taxiarch/core/signal/stream';
import type { InterfaceInfo } from '@taxiarch/core/network/ip';
import type { NodeReport } from '@taxiarch/core/network/node';
import type { Program } from '@taxiarch/core/rig/picture';
import type { MergeMode, SlotContender } from '@taxiarch/core/signal/merge';
import type { Network } from '@taxiarch/core/show/records';
import type { LampAnswer, LampPort, LampRequest, LampTable, LineUse } from '@taxiarch/core/truth/roll';
import type { Sending } from '../keep/lastWords';
import type { Ports } from './interfaces';

export interface EngineSetup {
  /** Merged levels, for the server to read */
  readonly memory: SharedArrayBuffer;
  /** The ring from which packets are taken */
  readonly ring: SharedArrayBuffer;
  /** To the receiving thread */
  readonly receiver: MessagePort;
  readonly cid: Uint8Array;
  readonly ports: Ports;
  readonly settings: Settings;
}

export interface PlannedUniverse {
  readonly key: number;
  readonly merge: MergeMode;
}

export interface RouterPlan {
  readonly routes: readonly Route[];
  readonly controls: readonly Control[];
  readonly reach: readonly Reach[];
}

/** Machines that the show plans, for the engine to know whom it must never forget */
export interface PlannedMachines {
  readonly addresses: readonly string[];
  readonly macs: readonly string[];
}

export interface TakeOrder {
  readonly client: string;
  readonly by: string;
  readonly stay: boolean;
  readonly universes: readonly {
    readonly key: number;
    readonly show: number;
    /** Pairs of slot (0–511) and level; null begins at what is received now */
    readonly levels: readonly (readonly [number, number | null])[];
  }[];
}

/** A test picture: its slots are taken, and move by its program until they are given back. */
export interface PictureOrder {
  /** As the client calls it; another of that name takes its place */
  readonly id: string;
  readonly client: string;
  readonly by: string;
  /** What it is, in words */
  readonly says: string;
  readonly program: Program;
  /** Show number by wire key */
  readonly shows: readonly (readonly [key: number, show: number])[];
  /** Steps a second */
  readonly speed: number;
  /** 0–1 */
  readonly level: number;
}

export type GiveBackOrder = {
  readonly client?: string | undefined;
  readonly slots?: readonly (readonly [number, number])[] | undefined;
};

export interface FoundFader {
  readonly key: number;
  /** 0–511 */
  readonly slot: number;
  readonly level: number;
}

/** Server to engine. Those with `ask` are answered by an `answer` of that number. */
export type ToEngine =
  | { readonly type: 'settings'; readonly settings: Settings }
  | {
      readonly type: 'plan';
      readonly universes: readonly PlannedUniverse[];
      readonly networks: readonly Network[];
      readonly router: RouterPlan;
      readonly machines: PlannedMachines;
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
  | { readonly type: 'picture'; readonly order: PictureOrder; readonly ask: number }
  | {
      readonly type: 'tunePicture';
      readonly client: string;
      readonly id: string;
      readonly speed: number;
      readonly level: number;
      readonly ask: number;
    }
  | { readonly type: 'endPicture'; readonly client: string; readonly id: string; readonly ask: number }
  | { readonly type: 'giveBack'; readonly order: GiveBackOrder; readonly ask: number }
  | {
      readonly type: 'program';
      readonly address: string;
      readonly mac: string;
      readonly packets: readonly Uint8Array[];
      readonly ask: number;
    }
  /** Looks through ranges of sACN universes, both ends included */
  | { readonly type: 'sweep'; readonly ranges: readonly (readonly [number, number])[]; readonly ask: number }
  | { readonly type: 'stopSweep'; readonly ask: number }
  /** Asks a lamp, or who hangs on a port; answered by `lamp` and `table` */
  | {
      readonly type: 'lamp';
      readonly port: LampPort;
      readonly requests: readonly LampRequest[];
      /** Before all that waits */
      readonly urgent: boolean;
      readonly ask: number;
    }
  | { readonly type: 'table'; readonly port: LampPort; readonly afresh: boolean; readonly ask: number }
  | { readonly type: 'noLamps' }
  /** A page of all devices; answered by `nodes` */
  | { readonly type: 'nodes'; readonly from: number; readonly ask: number }
  /** Answered after a fresh report */
  | { readonly type: 'report'; readonly ask: number }
  | { readonly type: 'scan' }
  /** Slots that came by a plug of this computer, which is known by `id` */
  | {
      readonly type: 'plugged';
      readonly key: number;
      readonly id: string;
      readonly name: string;
      readonly priority: number;
      readonly slots: Uint8Array;
    }
  | { readonly type: 'leave'; readonly client: string }
  /** The receiving thread was started anew and is reached by this. */
  | { readonly type: 'receiver'; readonly port: MessagePort }
  | { readonly type: 'break'; readonly how: 'throw' | 'hang' }
  | { readonly type: 'stop' };

type WithoutAsk<M> = M extends { readonly ask: number } ? Omit<M, 'ask'> : never;
/** Orders that are answered, before they get their number */
export type Asking = Exclude<WithoutAsk<ToEngine>, { readonly type: 'learn' | 'nodes' | 'lamp' | 'table' }>;

export interface EngineUniverse {
  readonly key: number;
  readonly streams: readonly StreamReport[];
}

export interface EngineReport {
  /** sACN streams that are sent now; for those who must end them if the engine cannot */
  readonly sending: readonly Sending[];
  readonly at: number;
  readonly listeningSince: number;
  readonly interface: InterfaceInfo | null;
  readonly artnetInterface: InterfaceInfo | null;
  readonly listed: readonly number[];
  readonly trouble: string;
  readonly nodes: readonly NodeReport[];
  readonly nodesMore: number;
  readonly discovered: readonly DiscoveryReport[];
  readonly discoveredMore: number;
  readonly membership: MembershipReport;
  readonly sweep: SweepReport;
  readonly syncs: readonly SyncReport[];
  readonly alsoHeard: readonly AlsoHeardReport[];
  readonly output: OutputReport;
  readonly routes: readonly RouteReport[];
  readonly controls: readonly ControlReport[];
  readonly packetsPerSecond: number;
  readonly packets: number;
  readonly lost: number;
  readonly rejected: Readonly<Record<string, number>>;
}

/** Engine to server. */
export type FromEngine =
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
  /** Something that a person should know */
  | { readonly type: 'notice'; readonly id: string; readonly sentence: string; readonly mend: string }
  | { readonly type: 'nodes'; readonly ask: number; readonly page: NodesReply }
  | { readonly type: 'lamp'; readonly ask: number; readonly answers: readonly LampAnswer[]; readonly use: LineUse }
  | { readonly type: 'table'; readonly ask: number; readonly table: LampTable }
  | { readonly type: 'learned'; readonly ask: number; readonly found: FoundFader | null }
  | { readonly type: 'answer'; readonly ask: number; readonly refused: string | undefined };
