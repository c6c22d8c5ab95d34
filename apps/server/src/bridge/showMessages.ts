/** What the server's first thread and the show's own say to each other. */
import type { EndpointName, LiveReport } from '@taxiarch/core/whole/contract';
import type { ProposedEdit } from '@taxiarch/core/show/edit';
import type { PictureWish, Program } from '@taxiarch/core/rig/picture';
import type { ShowRecords, Snapshot } from '@taxiarch/core/show/records';
import type { Result } from '@taxiarch/core/base/result';
import type { RollNow } from '@taxiarch/core/truth/roll';
import type { NextFound, NextWish } from '@taxiarch/core/proving/walk';
import type { PlanView } from './plan';

/** Endpoints that the show's thread answers */
export const SHOW_ENDPOINTS = [
  'readShow',
  'edit',
  'findings',
  'why',
  'standing',
  'forecast',
  'forecastPush',
  'openShipped',
  'readRoll',
  'exportRoll',
  'coverWalk',
  'readWalk',
  'readSwaps',
  'markWalk',
  'sendPhoto',
  'readPhoto',
  'whatIf',
  'everyFailure',
  'readEvery',
  'cancelEvery',
  'mendFailure',
  'draftProof',
  'signProof',
  'exportProof',
  'checkProof',
  'exportLabels',
  'history',
  'undo',
  'redo',
  'readEdit',
  'goBack',
  'beginImport',
  'readImport',
  'chooseImport',
  'cancelImport',
  'writeImport',
  'exportGdtf',
  'exportMvr',
  'exportTable',
  'exportShow',
] as const satisfies readonly EndpointName[];
export type ShowEndpoint = (typeof SHOW_ENDPOINTS)[number];
export const isShowEndpoint = (name: EndpointName): name is ShowEndpoint =>
  (SHOW_ENDPOINTS as readonly EndpointName[]).includes(name);

/** Of these, those that ask what is on the wire as well and what lamps answered */
const ASK_BOTH = [
  'why',
  'standing',
  'whatIf',
  'everyFailure',
  'mendFailure',
  'draftProof',
  'signProof',
  'coverWalk',
  'readWalk',
  'markWalk',
] as const satisfies readonly ShowEndpoint[];
export const LIVE_ENDPOINTS: ReadonlySet<ShowEndpoint> = new Set([...ASK_BOTH, 'forecast', 'forecastPush'] as const);
export const ROLL_ENDPOINTS: ReadonlySet<ShowEndpoint> = new Set([...ASK_BOTH, 'readRoll', 'exportRoll'] as const);

export interface ShowSetup {
  readonly folder: string;
  /** A folder without a show begins with the demo show. */
  readonly demo: boolean;
  /** File with an empty database */
  readonly pattern: string;
  readonly importThread: string;
  readonly whatIfThread: string;
  readonly paperThread: string;
  readonly findingsThread: string;
}

/** A request as it came: texts and bytes */
export interface RawCall {
  readonly params: Readonly<Record<string, unknown>>;
  readonly query: Readonly<Record<string, unknown>>;
  readonly bytes: Uint8Array;
  /** What is on the wire, for those that ask */
  readonly live?: LiveReport;
  /** What lamps answered, likewise */
  readonly roll?: RollNow;
}

/** A reply as it goes out */
export interface RawReply {
  readonly status: number;
  readonly type: string;
  /** Name of a file to be saved; empty if it is none */
  readonly file: string;
  readonly bytes: Uint8Array;
}

export type LampsOfShow = Pick<ShowRecords, 'lamp' | 'type'> & {
  /** Numbers of the runs of pixels, which lamps do not have */
  readonly runs: readonly number[];
};

export type ToShow =
  | { readonly type: 'call'; readonly ask: number; readonly name: ShowEndpoint; readonly call: RawCall }
  /** An edit of the program's own */
  | { readonly type: 'propose'; readonly ask: number; readonly edit: ProposedEdit }
  | { readonly type: 'snapshot'; readonly ask: number; readonly id: string }
  /** Lamps of these ids and the one that is known by a UID, or all, with the types that they are of */
  | { readonly type: 'lamps'; readonly ask: number; readonly ids: readonly string[] | null; readonly uid: string }
  /** What a test picture is to send */
  | { readonly type: 'program'; readonly ask: number; readonly wish: PictureWish }
  /** What comes next in a walk */
  | { readonly type: 'nextOfWalk'; readonly ask: number; readonly wish: NextWish }
  | { readonly type: 'break'; readonly thread: 'show' | 'findings'; readonly how: 'throw' | 'hang' }
  | { readonly type: 'close' };

export type FromShow =
  /** Parts of the plan that are others than before; it comes before the answer to whoever changed them. */
  | { readonly type: 'plan'; readonly changed: Partial<PlanView> }
  /** The feed's text on an edit, to be sent as it is */
  | { readonly type: 'edit'; readonly text: Uint8Array }
  | { readonly type: 'notice'; readonly id: string; readonly sentence: string; readonly mend: string }
  | { readonly type: 'reply'; readonly ask: number; readonly reply: RawReply }
  | { readonly type: 'proposed'; readonly ask: number; readonly refused: string | undefined }
  | { readonly type: 'snapshot'; readonly ask: number; readonly snapshot: Snapshot | undefined }
  | { readonly type: 'lamps'; readonly ask: number; readonly lamps: LampsOfShow }
  | { readonly type: 'program'; readonly ask: number; readonly program: Result<Program> }
  | { readonly type: 'nextOfWalk'; readonly ask: number; readonly found: NextFound };
