/** A lamp as it really hangs: what it is, how it is set, which cable it is on, and the light that comes of the slots it gets. */
import { Light, type Colour } from '../../rig/stage';
import { channelMaximum } from '../../rig/fixture';
import { Patch, slotsOf } from '../../rig/patch';
import {
  NO_RESPONDER_FAULTS,
  Responder,
  type ResponderFaults,
  type ResponderState,
  type Uid,
} from '../../protocol/rdm';
import { PLAIN_LAMP, type FixtureType } from '../../show/records';
import { sheetOf, withoutFine } from './sheet';

/** The port of a box that a cable begins at. */
export interface Plug {
  readonly box: string;
  /** From 1 */
  readonly port: number;
}

/** What hangs where; nothing in it comes from the plan. */
export interface Hung {
  /** What the crew wrote on it */
  readonly tag: string;
  readonly uid: Uid;
  readonly type: FixtureType;
  readonly x: number;
  readonly y: number;
  readonly z: number;
  /** Null hangs without a cable. */
  readonly plug: Plug | null;
  /** Its place on that cable, from 1 at the box */
  readonly order: number;
  readonly state: ResponderState;
}

export interface LampFaults extends ResponderFaults {
  /** Answers nothing though it takes DMX */
  readonly deaf: boolean;
  /** It is not there at all. */
  readonly missing: boolean;
  /** It is there and gives no light. */
  readonly dead: boolean;
  /** Pan and tilt have one slot each. */
  readonly coarse: boolean;
  /** It has the UID of another, as two of one series sometimes do; empty for its own. */
  readonly likeUid: Uid;
}
export const NO_LAMP_FAULTS: LampFaults = {
  ...NO_RESPONDER_FAULTS,
  deaf: false,
  missing: false,
  dead: false,
  coarse: false,
  likeUid: '',
};

/** Light, and where it points, each 0–1. */
export interface Shown {
  readonly colour: Colour;
  readonly pan: number;
  readonly tilt: number;
}

const DARK: Shown = { colour: [0, 0, 0], pan: 0.5, tilt: 0.5 };
const WHITE: Colour = [1, 1, 1];
/** How a lamp that identifies itself blinks, ms */
const BLINK_MS = 500;
/** A lamp's heat, °C: of the room, and of its light */
const COLD = 24;
const HOT = 38;

interface Seen {
  readonly light: Light;
  readonly axes: Readonly<Record<'pan' | 'tilt', readonly [offsets: readonly number[], maximum: number] | undefined>>;
  readonly of: string;
}

export class HungLamp {
  responder: Responder;
  faults = NO_LAMP_FAULTS;
  plug: Plug | null;
  order: number;
  private seen: Seen | undefined;
  private brightness = 0;

  constructor(
    readonly hung: Hung,
    /** It has what it takes to answer. */
    readonly answers: boolean,
  ) {
    this.plug = hung.plug;
    this.order = hung.order;
    this.responder = this.make(structuredClone(hung.state));
  }

  private make(state: ResponderState): Responder {
    return new Responder(sheetOf(this.type, this.uid), state, () => Math.round(COLD + HOT * this.brightness));
  }

  get uid(): Uid {
    return this.faults.likeUid || this.hung.uid;
  }

  get type(): FixtureType {
    return this.faults.coarse ? withoutFine(this.hung.type) : this.hung.type;
  }

  err(change: Partial<LampFaults>): void {
    const { coarse, likeUid } = this.faults;
    this.faults = { ...this.faults, ...change };
    if (coarse !== this.faults.coarse || likeUid !== this.faults.likeUid)
      this.responder = this.make(this.responder.state);
    this.responder.faults = { slow: this.faults.slow, refuses: this.faults.refuses };
    this.seen = undefined;
  }

  /** As it was hung. */
  reset(): void {
    this.plug = this.hung.plug;
    this.order = this.hung.order;
    this.responder.state = structuredClone(this.hung.state);
    this.responder.identifying = false;
    this.err(NO_LAMP_FAULTS);
  }

  private look(): Seen {
    const { address, personality } = this.responder.state;
    const of = `${address} ${personality}`;
    if (this.seen?.of === of) return this.seen;
    const { type } = this;
    const mode = type.modes[personality - 1]!;
    const lamp = {
      ...PLAIN_LAMP,
      id: 'hung',
      rev: 0,
      number: 1,
      name: '',
      typeId: type.id,
      mode: mode.name,
      universe: 1,
      channel: address ?? 1,
    };
    const patched = new Patch([lamp], [type]).lamp('hung')!;
    const axis = (attribute: string) => {
      const channel = mode.channels.find((one) => one.attribute === attribute);
      return (
        channel && ([slotsOf(patched, channel).map(({ channel: slot }) => slot), channelMaximum(channel)] as const)
      );
    };
    this.seen = { light: new Light(patched), axes: { pan: axis('Pan'), tilt: axis('Tilt') }, of };
    return this.seen;
  }

  /** What it shows by the 512 levels that come to it; undefined for no signal at all. */
  shows(levels: Uint8Array | undefined, now: number): Shown {
    const { faults, responder } = this;
    if (faults.missing || faults.dead) return DARK;
    if (responder.identifying) {
      const on = Math.floor(now / BLINK_MS) % 2 === 0;
      return on ? { ...DARK, colour: WHITE } : DARK;
    }
    if (!levels || responder.state.address === null) return DARK;
    const { light, axes } = this.look();
    const share = (axis: Seen['axes']['pan']) =>
      axis ? axis[0].reduce((value, slot) => value * 256 + (levels[slot - 1] ?? 0), 0) / axis[1] : 0.5;
    const colour = light.whole((_, channel) => levels[channel - 1]);
    this.brightness = Math.max(...colour);
    return { colour, pan: share(axes.pan), tilt: share(axes.tilt) };
  }
}
