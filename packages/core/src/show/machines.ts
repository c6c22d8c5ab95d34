/** Records of the show's network: machines, sheets of what models can do, plans of addresses, kept settings. */
import type { Protocol } from '../address';
import type { Row } from './records';

export const MACHINE_KINDS = [
  'console',
  'backup console',
  'media server',
  'visualiser',
  'computer',
  'node',
  'pixel controller',
  'DMX desk',
  'USB adapter',
  'switch',
  'wall panel',
] as const;
export type MachineKind = (typeof MACHINE_KINDS)[number];

/** What is plugged in by a DMX or USB cable and has no address. */
export const isOffNetwork = (kind: MachineKind): boolean => kind === 'DMX desk' || kind === 'USB adapter';

/** How an address comes about: set by hand, from a server, made up by the machine, or from its hardware address. */
export const ADDRESS_WAYS = ['fixed', 'dhcp', 'link-local', 'hardware'] as const;
export type AddressWay = (typeof ADDRESS_WAYS)[number];

export interface PlannedAddress {
  readonly way: AddressWay;
  /** Dotted; empty while nobody knows it */
  readonly address: string;
  /** Length of the subnet mask in bits, 0–32 */
  readonly prefix: number;
}

export interface MachineInterface {
  /** As printed on the box or named by its system; may be empty */
  readonly name: string;
  /** Hardware address, `02:7f:f1:00:00:31`; empty while nobody knows it */
  readonly mac: string;
  readonly addresses: readonly PlannedAddress[];
}

export const PORT_USES = ['out', 'in', 'off', 'fixed'] as const;
export type PortUse = (typeof PORT_USES)[number];

export const PORT_MERGES = ['htp', 'ltp', 'priority', 'none'] as const;
export type PortMerge = (typeof PORT_MERGES)[number];

/** Hold for ever, hold then black, fade to black, full, a look stored in the box. */
export const LOSS_KINDS = ['hold', 'hold-black', 'fade', 'full', 'look'] as const;
export type LossKind = (typeof LOSS_KINDS)[number];

/** What a port does when its last source falls silent. */
export interface LossOfSignal {
  readonly kind: LossKind;
  /** Seconds for which the last look stands before anything happens */
  readonly after: number;
  /** Seconds that a fade takes */
  readonly over: number;
}

/** What leaves a port from switching on until the first packet. */
export const START_UPS = ['black', 'wait', 'look'] as const;
export type StartUp = (typeof START_UPS)[number];

export interface MachinePort {
  /** As printed on the box, from 1 */
  readonly number: number;
  readonly use: PortUse;
  readonly protocol: Protocol;
  /** Show universe; kept while the port is off. */
  readonly universe: number;
  readonly label: string;
  /** Level of all slots of a port whose use is `fixed`, 0–255 */
  readonly fixed: number;
  /** Frames a second, 1–44 */
  readonly rate: number;
  readonly rdm: boolean;
  /** Number of the port whose output this one repeats; null for one of its own. */
  readonly copyOf: number | null;
  readonly merge: PortMerge;
  readonly loss: LossOfSignal;
  readonly start: StartUp;
  /** sACN priority of what an input sends, 0–200 */
  readonly priority: number;
}

/** A port before anybody says more of it. */
export const PLAIN_PORT = {
  label: '',
  fixed: 255,
  rate: 40,
  rdm: false,
  copyOf: null,
  merge: 'htp',
  loss: { kind: 'hold', after: 0, over: 0 },
  start: 'wait',
  priority: 100,
} as const satisfies Partial<MachinePort>;

/** What a pixel controller takes and drives. */
export interface ControllerLimits {
  /** Show universe at which it begins to listen */
  readonly firstUniverse: number;
  /** Most universes that it takes */
  readonly universes: number;
  readonly outputs: number;
  /** Most channels that one output drives */
  readonly channelsPerOutput: number;
}

/** A planned machine. */
export interface Machine extends Row {
  readonly name: string;
  readonly kind: MachineKind;
  readonly modelId: string | null;
  readonly placeId: string | null;
  readonly notes: string;
  /** As the box shows it, `2.4`; empty if any will do */
  readonly firmware: string;
  /** Mode of working to be set at the box; empty if it has none */
  readonly mode: string;
  /** Of a USB adapter, which is known by it whatever socket it is in; else empty */
  readonly serial: string;
  /** Nothing is pushed to a locked machine. */
  readonly locked: boolean;
  readonly interfaces: readonly MachineInterface[];
  readonly ports: readonly MachinePort[];
  /** Null for a machine that drives no pixels. */
  readonly controller: ControllerLimits | null;
  /** Steps of bringing it on that a person has ticked off */
  readonly ticks: readonly string[];
}

export const PLAIN_MACHINE = {
  modelId: null,
  placeId: null,
  notes: '',
  firmware: '',
  mode: '',
  serial: '',
  locked: false,
  interfaces: [],
  ports: [],
  controller: null,
  ticks: [],
} as const satisfies Partial<Machine>;

/** What a model of machine can do. */
export interface Model extends Row {
  readonly maker: string;
  readonly name: string;
  readonly kind: MachineKind;
  /** DMX ports, 0–64 */
  readonly ports: number;
  readonly connector: string;
  readonly directions: readonly ('out' | 'in')[];
  readonly protocols: readonly Protocol[];
  readonly merges: readonly PortMerge[];
  readonly losses: readonly LossKind[];
  readonly starts: readonly StartUp[];
  readonly rdm: boolean;
  readonly fixedValue: boolean;
  readonly copies: boolean;
  /** Most frames a second of a port */
  readonly rate: number;
  /** Most universes that it takes in or sends; null if it has no such limit */
  readonly universes: number | null;
  /** Most sources that a port merges; 1 for one that cannot */
  readonly sources: number;
  /** Most parameters that it is allowed to send; null if it has no such limit */
  readonly parameters: number | null;
  /** What its display calls Art-Net's first universe */
  readonly base: 0 | 1;
  /** Its settings can be changed by Art-Net (Address), and its address (IpProg). */
  readonly remote: boolean;
  readonly ipProg: boolean;
  /** Ports of a poll reply's page; they share net and sub-net. */
  readonly perPage: 1 | 4;
  /** Multicast groups that a switch follows; null for what is no switch or has no limit */
  readonly groups: number | null;
  /** Megabits a second of its network connector */
  readonly speed: number;
}

/** Of a machine whose model nobody knows, or that was planned before models said it. */
export const PLAIN_SPEED = 100;

/** A plan of addresses: one subnet, and which machines live where in it. */
export interface Network extends Row {
  readonly name: string;
  /** Dotted, with the bits behind the prefix zero */
  readonly network: string;
  readonly prefix: number;
  /** A machine of the show hands out addresses in it. */
  readonly dhcp: boolean;
  /** Loopback that carries stand-ins: each of its addresses is a machine of its own. */
  readonly standIn: boolean;
  readonly ranges: readonly AddressRange[];
}

/** Addresses for some machines: by kind or by place; the first range that fits takes a machine. */
export interface AddressRange {
  readonly label: string;
  /** Empty for any kind */
  readonly kinds: readonly MachineKind[];
  readonly placeId: string | null;
  /** Dotted, both included */
  readonly first: string;
  readonly last: string;
}

/** Settings of a node kept under a name. */
export interface Snapshot extends Row {
  readonly name: string;
  /** ISO 8601, UTC */
  readonly at: string;
  /** Whose they were; null if they came from elsewhere */
  readonly machineId: string | null;
  readonly about: string;
  readonly ports: readonly MachinePort[];
}
