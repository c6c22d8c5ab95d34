/** The ship as it hangs, with a page that shows what is really lit, and hands that move cables and turn switches. */
import type { Server } from 'node:http';
import type { StandIn } from '@taxiarch/core/whole/contract';
import type { HungLamp, HungRig, LampFaults, LineFaults, Plug } from '@taxiarch/core/truth/hung';
import { openPanel } from '../panel';
import { shipPage } from '../shipPage';
import { RigMemory } from './memory';
import { wrongWith } from './wrong';

export const RIG_ADDRESS = '127.0.0.29';

/** What a hand does to the rig. */
export interface RigHand {
  /** Tags of the lamps that it is done to */
  readonly lamps?: readonly string[];
  readonly faults?: Partial<LampFaults>;
  readonly address?: number;
  /** From 1 */
  readonly mode?: number;
  readonly label?: string;
  /** Another cable, behind all that hang there; null unplugs */
  readonly plug?: Plug | null;
  /** With this lamp it changes places on the cables and settings of address. */
  readonly swap?: string;
  readonly line?: Plug & Partial<LineFaults>;
}

/** Five bytes a lamp: red, green, blue, pan, tilt, each 0–255. */
const BYTES = 5;
const MOVES = 'Pan';

export interface RigLamp {
  readonly tag: string;
  readonly uid: string;
  readonly type: string;
  readonly x: number;
  readonly y: number;
  readonly plug: string;
  readonly address: number;
  readonly mode: number;
  readonly label: string;
  /** 0–255 */
  readonly lit: number;
  readonly identifying: boolean;
}

export class RigBox {
  private readonly memory: RigMemory;
  private panel: Server | undefined;
  private port = 0;

  constructor(
    readonly rig: HungRig,
    /** What leaves a port of a box now */
    private readonly output: (plug: Plug) => Uint8Array | undefined,
    file?: string,
  ) {
    this.memory = new RigMemory(file, rig);
    rig.onSet = () => this.memory.keep();
  }

  async start(port: number): Promise<void> {
    this.port = port;
    this.panel = await openPanel(
      RIG_ADDRESS,
      port,
      {
        lamps: () => this.lamps(),
        state: () => ({ ...this.says(), lamps: this.rig.lamps.map(drawn) }),
        hand: (given) => {
          this.hand(given as RigHand);
          return this.report();
        },
      },
      {
        '': () => ({ type: 'text/html; charset=utf-8', body: shipPage('The ship as it hangs') }),
        light: () => ({ type: 'application/octet-stream', body: this.light() }),
      },
    );
  }

  stop(): void {
    this.panel?.close();
    this.panel?.closeAllConnections();
  }

  hand({ lamps = [], faults, address, mode, label, plug, swap, line }: RigHand): void {
    for (const tag of lamps) {
      const lamp = this.rig.lamp(tag);
      const { state } = lamp.responder;
      if (mode !== undefined && !lamp.type.modes[mode - 1]) throw new Error(`${tag} has no mode ${mode}.`);
      if (address !== undefined && (address < 1 || address > 512)) throw new Error('Addresses run from 1 to 512.');
      if (faults) lamp.err(faults);
      if (address !== undefined) state.address = address;
      if (mode !== undefined) state.personality = mode;
      if (label !== undefined) state.label = label;
      if (plug !== undefined) Object.assign(lamp, { plug, order: 1000 });
      if (swap !== undefined) exchange(lamp, this.rig.lamp(swap));
    }
    if (line) {
      const { box, port, ...change } = line;
      this.rig.err({ box, port }, change);
    }
    this.rig.moved();
    this.memory.keep();
  }

  reset(): void {
    this.rig.reset();
    this.memory.keep();
  }

  light(): Uint8Array {
    const bytes = new Uint8Array(this.rig.lamps.length * BYTES);
    this.rig.shows(this.output, performance.now()).forEach(({ colour, pan, tilt }, i) => {
      bytes.set(
        [...colour, pan, tilt].map((part) => Math.round(part * 255)),
        i * BYTES,
      );
    });
    return bytes;
  }

  private get lit(): number {
    const shown = this.rig.shows(this.output, performance.now());
    return shown.filter(({ colour }) => Math.max(...colour) > 0).length;
  }

  private says(): { readonly says: string; readonly wrong: boolean } {
    return { says: `${this.rig.lamps.length} lamps hang here; ${this.lit} give light now.`, wrong: false };
  }

  /** Every lamp as a person finds it who climbs up to it. */
  private lamps(): RigLamp[] {
    const light = this.light();
    return this.rig.lamps.map(({ hung, plug, responder, uid }, i) => {
      const { address, personality, label } = responder.state;
      return {
        tag: hung.tag,
        uid,
        type: `${hung.type.maker} ${hung.type.name}`,
        ...{ x: hung.x, y: hung.y },
        plug: plug ? `${plug.box} ${plug.port}` : '',
        address: address ?? 0,
        mode: personality,
        label,
        lit: Math.max(...light.subarray(i * BYTES, i * BYTES + 3)),
        identifying: responder.identifying,
      };
    });
  }

  report(): StandIn {
    return {
      ...{ id: 'rig', name: 'The ship as it hangs', kind: 'rig', model: 'Lamps and cables', address: RIG_ADDRESS },
      ...{ mask: '255.0.0.0', powered: true, plugged: true, loses: 0, delays: 0, locating: false },
      ...{ cue: '', cues: [], master: 100, faders: [], ports: [] },
      rig: {
        lamps: this.rig.lamps.length,
        lit: this.lit,
        wrong: wrongWith(this.rig),
        page: `http://${RIG_ADDRESS}:${this.port}/`,
      },
    };
  }
}

/** Two lamps hang each in the other’s place: their plugs and orders are exchanged. */
function exchange(one: HungLamp, other: HungLamp): void {
  const { plug, order } = one;
  Object.assign(one, { plug: other.plug, order: other.order });
  Object.assign(other, { plug, order });
  const address = one.responder.state.address;
  one.responder.state.address = other.responder.state.address;
  other.responder.state.address = address;
}

const drawn = ({ hung, type }: HungLamp) => ({
  number: Number(hung.tag),
  name: hung.tag,
  ...{ x: hung.x, y: hung.y, z: hung.z },
  moves: type.modes.some(({ channels }) => channels.some(({ attribute }) => attribute === MOVES)),
});
