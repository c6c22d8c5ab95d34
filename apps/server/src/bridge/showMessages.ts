/** What the server's first thread and the show's own say to each other. */
import type { EndpointName, LiveReport } from '@taxiarch/core/contract';
import type { ProposedEdit } from '@taxiarch/core/edit';
import type { Snapshot } from '@taxiarch/core/records';
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
  'history',
  'undo',
  'redo',
  'beginImport',
  'readImport',
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

/** Of these, those that ask what is on the wire as well */
export const LIVE_ENDPOINTS: ReadonlySet<ShowEndpoint> = new Set(['why', 'standing', 'forecast', 'forecastPush']);

export interface ShowSetup {
  readonly folder: string;
  /** A folder without a show begins with the demo show. */
  readonly demo: boolean;
  /** File with an empty database */
  readonly pattern: string;
  readonly importThread: string;
  readonly findingsThread: string;
}

/** A request as it came: texts and bytes */
export interface RawCall {
  readonly params: Readonly<Record<string, unknown>>;
  readonly query: Readonly<Record<string, unknown>>;
  readonly bytes: Uint8Array;
  /** What is on the wire, for those that ask */
  readonly live?: LiveReport;
}

/** A reply as it goes out */
export interface RawReply {
  readonly status: number;
  readonly type: string;
  /** Name of a file to be saved; empty if it is none */
  readonly file: string;
  readonly bytes: Uint8Array;
}

export type ToShow =
  | { readonly type: 'call'; readonly ask: number; readonly name: ShowEndpoint; readonly call: RawCall }
  /** An edit of the program's own */
  | { readonly type: 'propose'; readonly ask: number; readonly edit: ProposedEdit }
  | { readonly type: 'snapshot'; readonly ask: number; readonly id: string }
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
  | { readonly type: 'snapshot'; readonly ask: number; readonly snapshot: Snapshot | undefined };
