/** What server and clients say to each other over HTTP and as text over the feed. */
import type { Protocol } from '../address';
import type { Finding } from '../check';
import type { StreamState } from '../flow';
import type { PatchDifference } from '../format';
import type { DiscoveryReport, NodeReport } from './nodes';
import type { ControlReport, RouteReport } from './routes';
import type { Edit, ShowRecords } from '../show';

/** RFC 9457 problem document. `detail` is always a sentence fit to be shown. */
export interface Problem {
  readonly type: string;
  readonly title: string;
  readonly status: number;
  readonly detail: string;
  /** For input that was refused: what, and why. */
  readonly faults?: readonly { readonly at: string; readonly why: string }[];
  /** For a stale edit: the records that changed since they were read, and by which edits. */
  readonly conflicts?: readonly {
    readonly kind: string;
    readonly id: string;
    readonly now: unknown;
    readonly by: {
      readonly seq: number;
      readonly author: string;
      readonly at: string;
      readonly sentence: string;
    } | null;
  }[];
}

/** GET /api/show */
export interface ShowReply {
  /** Number of the last edit */
  readonly seq: number;
  readonly records: ShowRecords;
}

/** GET /api/findings: what is wrong with the plan of the network */
export interface FindingsReply {
  /** Number of the edit that left the show so */
  readonly seq: number;
  readonly findings: readonly Finding[];
}

/** GET /api/history: newest first */
export interface HistoryReply {
  readonly edits: readonly Omit<Edit, 'changes'>[];
  /** How many edits lie before those */
  readonly earlier: number;
  /** Numbers of the edits that undo and redo would take back for the author asked for. */
  readonly undo: number | null;
  readonly redo: number | null;
}

/** One row of what a file would change. */
export interface ImportRowReply {
  readonly key: string;
  readonly state: 'added' | 'changed' | 'gone' | 'same';
  readonly subject: string;
  readonly says: readonly string[];
  readonly differs: readonly PatchDifference[];
  /** Levels by address that light the lamp as both sides have it */
  readonly light?: Readonly<Record<string, number>>;
}

/** GET /api/import/{id} */
export type ImportReply = { readonly id: string; readonly name: string } & (
  | { readonly state: 'working'; readonly done: number; readonly of: number }
  | { readonly state: 'refused'; readonly why: string }
  | { readonly state: 'ready'; readonly rows: readonly ImportRowReply[]; readonly notes: readonly string[] }
);

/** POST /api/import/{id}/write */
export interface ImportWritten {
  readonly seq: number;
  readonly sentence: string;
  readonly changes: number;
}

/** Settings of this computer, kept in its data folder; not part of the show. */
export interface Settings {
  /** Address of the interface for sACN, `auto`, or `plan` for the one that lies in a plan of addresses. */
  readonly interface: string;
  /** The same for Art-Net, or `same`. */
  readonly artnetInterface: string;
  /** Frames a second while taken values change, 1–44 */
  readonly outputRate: number;
  /** sACN priority of taken slots, 1–200 */
  readonly outputPriority: number;
  /** Send Art-Net to the whole subnet instead of to the nodes that list the universe. */
  readonly artnetBroadcast: boolean;
  /** Ask for Art-Net nodes every few seconds. */
  readonly poll: boolean;
  /** Milliseconds after which a silent Art-Net stream counts as lost */
  readonly artnetTimeout: number;
}

export interface InterfaceInfo {
  readonly name: string;
  readonly address: string;
  readonly netmask: string;
  readonly mac: string;
  readonly loopback: boolean;
  /** What carries it, as far as the system tells */
  readonly medium: 'wired' | 'wireless' | 'loopback' | 'virtual' | 'unknown';
  readonly up: boolean;
}

/** GET /api/interfaces */
export interface InterfacesReply {
  readonly interfaces: readonly InterfaceInfo[];
  readonly chosen: string;
  readonly artnetChosen: string;
  /** The interface in use for each protocol; null while it is gone. */
  readonly inUse: InterfaceInfo | null;
  readonly artnetInUse: InterfaceInfo | null;
}

export interface StreamReport {
  /** The number under which frames name this stream as owner of a slot, 0–254; unique in its universe. */
  readonly mark: number;
  readonly name: string;
  readonly address: string;
  /** sACN component id; empty for Art-Net */
  readonly cid: string;
  readonly priority: number;
  readonly slotPriority: boolean;
  readonly preview: boolean;
  readonly terminated: boolean;
  readonly lost: boolean;
  /** This Taxiarch's own output, heard back from the wire */
  readonly own: boolean;
  /** Own, and of a route; otherwise of slots that people took */
  readonly routed: boolean;
  /** Its last levels wait for their synchronisation packet */
  readonly waits: boolean;
  readonly syncAddress: number;
  readonly slotCount: number;
  readonly rate1: number;
  readonly rate10: number;
  /** Milliseconds */
  readonly jitter: number;
  readonly packets: number;
  readonly missing: number;
  readonly missing10: number;
  readonly repeats: number;
  readonly late: number;
  /** Unix time, ms */
  readonly firstSeen: number;
  readonly lastSeen: number;
}

export interface UniverseReport {
  /** See `wireKey` */
  readonly key: number;
  readonly protocol: Protocol;
  /** Number on the wire */
  readonly number: number;
  /** Show universe, or null if it is not in the plan */
  readonly show: number | null;
  readonly name: string;
  readonly state: StreamState;
  readonly because: string;
  readonly streams: readonly StreamReport[];
}

/** A run of slots that somebody has taken. */
export interface HoldReport {
  readonly client: string;
  readonly by: string;
  readonly key: number;
  /** Show universe */
  readonly universe: number;
  /** Runs of channels from 1, both ends included */
  readonly runs: readonly (readonly [number, number])[];
  readonly since: number;
  /** Keeps sending when its person goes away. */
  readonly stay: boolean;
}

export interface OutputReport {
  readonly hot: boolean;
  /** Unix time of going hot, ms; 0 while safe */
  readonly since: number;
  readonly by: string;
  readonly holds: readonly HoldReport[];
  /** Packets sent in the last second */
  readonly rate: number;
  /** Where taken Art-Net universes go, by key; empty if no node lists them. */
  readonly targets: Readonly<Record<number, readonly string[]>>;
}

/** Sent twice a second over the feed, and by GET /api/live. */
export interface LiveReport {
  readonly at: number;
  /** Unix time at which the engine began to listen, ms */
  readonly listeningSince: number;
  /** In use for sACN, and for Art-Net; null while it is gone */
  readonly interface: InterfaceInfo | null;
  readonly artnetInterface: InterfaceInfo | null;
  /** Something in a sentence that keeps the engine from listening; empty if nothing does. */
  readonly trouble: string;
  readonly universes: readonly UniverseReport[];
  readonly nodes: readonly NodeReport[];
  readonly discovered: readonly DiscoveryReport[];
  readonly output: OutputReport;
  readonly routes: readonly RouteReport[];
  readonly controls: readonly ControlReport[];
  readonly packetsPerSecond: number;
  /** Packets taken in since start */
  readonly packets: number;
  /** Packets that were none we read, since start, by reason. */
  readonly rejected: Readonly<Record<string, number>>;
}

/** POST /api/output/take. Keys are addresses or runs (`3/47`, `3/1-24`), values 0–255. */
export interface TakeRequest {
  readonly client: string;
  readonly by: string;
  readonly slots: Readonly<Record<string, number>>;
  /** Keep sending when the client's feed is lost. */
  readonly stay?: boolean | undefined;
}

/** POST /api/output/give-back; without `slots` and `client`, everything of everybody. */
export interface GiveBackRequest {
  readonly client?: string | undefined;
  readonly slots?: readonly string[] | undefined;
}

/** A report as the feed brings it: nodes are null when they are as they were last told. */
export type LiveNews = Omit<LiveReport, 'nodes'> & { readonly nodes: LiveReport['nodes'] | null };

/** Text messages of the feed, server to client. */
export type FeedText =
  { readonly type: 'live'; readonly live: LiveNews } | { readonly type: 'edit'; readonly edit: Edit };

/** Text messages of the feed, client to server. */
export type FeedRequest =
  | { readonly type: 'watch'; readonly keys: readonly number[] }
  | { readonly type: 'inspect'; readonly key: number; readonly slot: number }
  | { readonly type: 'inspect'; readonly key: null };
