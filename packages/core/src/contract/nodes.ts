/** What server and clients say to each other about devices on the network, and about the demo's stand-ins. */
import type { Protocol } from '../address';
import type { DevicePort } from '../artnet';

export interface NodePortReport extends DevicePort {
  /** Counted through all pages, from 1 */
  readonly number: number;
  /** Its page, by BindIndex */
  readonly page: number;
}

/** What a node does when signal is lost, as far as Art-Net tells. */
export type FailSafe = 'hold' | 'black' | 'full' | 'look';

/** A device that answers Art-Net polls, all its pages in one. */
export interface NodeReport {
  readonly address: string;
  readonly mac: string;
  readonly shortName: string;
  readonly longName: string;
  readonly report: string;
  readonly kind: 'node' | 'console' | 'media server' | 'visualiser' | 'other';
  /** Firmware as two numbers with a dot */
  readonly firmware: string;
  readonly oem: number;
  readonly indicators: 'normal' | 'mute' | 'locate' | 'unknown';
  /** Its Port-Addresses can be set at its front panel only. */
  readonly panelOnly: boolean;
  readonly sacnCapable: boolean;
  readonly rdmSwitch: boolean;
  readonly directionSwitch: boolean;
  /** Null if it does not say that it can do anything of the kind */
  readonly failSafe: FailSafe | null;
  readonly dhcp: boolean;
  /** Mask and gateway from its answer to IpProg; empty if it gave none */
  readonly mask: string;
  readonly gateway: string;
  /** sACN priority of what its inputs send */
  readonly priority: number;
  readonly ports: readonly NodePortReport[];
  readonly gone: boolean;
  readonly firstSeen: number;
  readonly lastSeen: number;
}

/** Who announces universes by sACN (E1.31 8, universe discovery). */
export interface DiscoveryReport {
  readonly cid: string;
  readonly name: string;
  readonly address: string;
  readonly universes: readonly number[];
  readonly lastSeen: number;
}

/** How a push to one machine came out. */
export interface PushResult {
  readonly machineId: string;
  /** A sentence if nothing could be pushed at all; else empty */
  readonly trouble: string;
  readonly fields: readonly {
    readonly what: string;
    readonly planned: string;
    readonly seen: string;
    readonly state: 'done' | 'refused' | 'not supported';
    /** What to set at the front panel; empty if nothing */
    readonly panel: string;
  }[];
  /** Planned settings that no packet sets or tells, in sentences: they are turned at the front panel. */
  readonly byHand: readonly string[];
}

/** POST /api/nodes/push */
export interface PushRequest {
  readonly machineIds: readonly string[];
  /** Push these kept settings instead of the plan's. */
  readonly snapshotId?: string | undefined;
}

export interface PushReply {
  readonly results: readonly PushResult[];
}

/** POST /api/nodes/locate */
export interface LocateRequest {
  readonly address: string;
  readonly on: boolean;
}

/** One of a stand-in's ports as its front panel shows it. */
export interface StandInPort {
  readonly number: number;
  readonly use: 'out' | 'in' | 'off' | 'fixed';
  readonly protocol: Protocol;
  /** Port-Address or sACN universe */
  readonly wire: number;
  readonly merge: string;
  readonly state: string;
  /** The highest level that leaves it, and how many slots are above 0 */
  readonly peak: number;
  readonly lit: number;
  readonly sources: readonly string[];
}

/** What the visualiser stand-in has wrong on purpose, so that there is something to find. */
export interface VisualiserFaults {
  /** What it calls the first Art-Net universe; 1 is right */
  readonly base: 0 | 1;
  readonly iface: 'right' | 'wrong';
  /** One lamp of its patch is in another mode */
  readonly otherMode: boolean;
  /** It was started before its sender, and has not noticed */
  readonly early: boolean;
}

/** GET /api/stand-ins: one box of the demo's bench. */
export interface StandIn {
  readonly id: string;
  readonly name: string;
  readonly kind: 'console' | 'node' | 'media server' | 'wall panel' | 'visualiser';
  readonly model: string;
  readonly address: string;
  readonly mask: string;
  readonly powered: boolean;
  readonly plugged: boolean;
  /** Part of its packets that it loses, 0–1, and how long it keeps the others, ms */
  readonly loses: number;
  readonly delays: number;
  readonly locating: boolean;
  readonly cue: string;
  readonly cues: readonly string[];
  /** 0–100 */
  readonly master: number;
  /** Faders on its front, 0–255 */
  readonly faders: readonly number[];
  readonly ports: readonly StandInPort[];
  /** Of the visualiser alone */
  readonly visualiser?: {
    readonly faults: VisualiserFaults;
    /** Of its universes, how many it receives, and which not */
    readonly received: number;
    readonly universes: number;
    readonly missing: string;
    /** Address of the page that shows the ship */
    readonly page: string;
  };
}
