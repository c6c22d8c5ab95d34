/** What the server and its plug thread say to each other. Levels out go through shared memory, frames in through here. */
import type { PlugLoss, PlugReport, SerialPortReport } from '@taxiarch/core/protocol/plug';

/** Where a plug is: a serial number in this computer, or a port by RFC 2217. */
export type PlugPlace =
  | { readonly kind: 'serial'; readonly serial: string }
  | { readonly kind: 'net'; readonly host: string; readonly port: number };

export interface PlugOrder {
  readonly machineId: string;
  readonly name: string;
  readonly use: 'out' | 'in';
  readonly place: PlugPlace;
  /** Frames a second */
  readonly rate: number;
  readonly slots: number;
  /** Row of the shared levels that leaves it; null while it has none */
  readonly row: number | null;
  readonly loss: PlugLoss;
  /** Before anybody sent: nothing leaves it, or zeros do */
  readonly start: 'wait' | 'black';
  readonly by: string;
  readonly since: number;
}

export interface PlugSetup {
  /** Merged levels, to be read */
  readonly memory: SharedArrayBuffer;
}

export type ToPlug =
  /** All that are to run; others end */
  | { readonly type: 'run'; readonly orders: readonly PlugOrder[] }
  | { readonly type: 'list'; readonly ask: number }
  | { readonly type: 'values'; readonly machineId: string; readonly ask: number }
  | { readonly type: 'stop' };

export type FromPlug =
  | { readonly type: 'report'; readonly plugs: readonly PlugReport[] }
  /** Slots that came by an input */
  | { readonly type: 'frame'; readonly machineId: string; readonly slots: Uint8Array }
  | { readonly type: 'ports'; readonly ask: number; readonly ports: readonly SerialPortReport[]; readonly why: string }
  /** The last frames, the newest at the end */
  | { readonly type: 'values'; readonly ask: number; readonly passed: readonly PassedFrame[] };

/** A frame that went through a plug. */
export interface PassedFrame {
  /** As its universe stood when it left; of an input the frame itself */
  readonly here: Uint8Array;
  readonly plug: Uint8Array;
}
