/** What the visualiser draws: its own patch of lamps, lit by the levels that reach it. */
import { channelMaximum } from '@taxiarch/core/rig/fixture';
import { type PatchedLamp, rigOf, slotsOf } from '@taxiarch/core/rig/patch';
import type { ShowRecords } from '@taxiarch/core/show/records';
import { Light } from '@taxiarch/core/rig/stage';

interface Drawn {
  readonly light: Light;
  readonly pan: Axis | undefined;
  readonly tilt: Axis | undefined;
}

interface Axis {
  readonly bytes: readonly { readonly universe: number; readonly channel: number }[];
  readonly maximum: number;
}

/** A lamp that stands still on the picture. */
export interface SceneLamp {
  readonly number: number;
  readonly name: string;
  readonly x: number;
  readonly y: number;
  readonly z: number;
  readonly moves: boolean;
  /** How far it turns and tilts altogether, as its type’s file says: degrees */
  readonly turn: number;
  readonly lean: number;
}

const axisOf = (patched: PatchedLamp, attribute: string): Axis | undefined => {
  const channel = patched.mode.channels.find((one) => one.attribute === attribute);
  return channel && { bytes: slotsOf(patched, channel), maximum: channelMaximum(channel) };
};

/** A patch in which one lamp is in another of its modes than it was. */
export function withOtherMode(records: ShowRecords, number: number): ShowRecords {
  const lamp = records.lamp.find((one) => one.number === number);
  const other = records.type.find(({ id }) => id === lamp?.typeId)?.modes.find(({ name }) => name !== lamp?.mode);
  if (!lamp || !other) return records;
  return { ...records, lamp: records.lamp.map((one) => (one === lamp ? { ...one, mode: other.name } : one)) };
}

export class Scene {
  readonly lamps: readonly SceneLamp[];
  private readonly drawn: readonly Drawn[];

  constructor(records: ShowRecords) {
    const all = rigOf(records)
      .patch.all()
      .filter(({ run }) => run === undefined);
    this.lamps = all.map(({ lamp, type, mode }) => ({
      number: lamp.number,
      name: lamp.name,
      x: lamp.x,
      y: lamp.y,
      z: lamp.z,
      moves: mode.channels.some(({ attribute }) => attribute === 'Pan'),
      turn: type.pan,
      lean: type.tilt,
    }));
    this.drawn = all.map((patched) => ({
      light: new Light(patched),
      pan: axisOf(patched, 'Pan'),
      tilt: axisOf(patched, 'Tilt'),
    }));
  }

  /** Five bytes a lamp, in the order of `lamps`: red, green, blue, pan, tilt, each 0–255. */
  render(levelsOf: (universe: number) => Uint8Array | undefined): Uint8Array {
    const bytes = new Uint8Array(this.drawn.length * 5);
    const levelAt = (universe: number, channel: number) => levelsOf(universe)?.[channel - 1];
    const share = (axis: Axis | undefined): number => {
      let value = 0;
      for (const { universe, channel } of axis?.bytes ?? []) value = value * 256 + (levelAt(universe, channel) ?? 0);
      return axis ? value / axis.maximum : 0.5;
    };
    this.drawn.forEach(({ light, pan, tilt }, i) => {
      const colour = light.whole(levelAt);
      bytes.set(
        [...colour, share(pan), share(tilt)].map((part) => Math.round(part * 255)),
        i * 5,
      );
    });
    return bytes;
  }
}
