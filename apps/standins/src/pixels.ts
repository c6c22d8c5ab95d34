/** What Porthole plays: slow swells of colour over all its pixels, four channels each. */
import { SLOTS } from '@taxiarch/core/base/address';
import type { Player } from './sender';

const LOOKS = ['Swell', 'Lanterns', 'Dark water'] as const;
const CHANNELS = 4;
/** Of the wave, radians a second */
const SPEED = 1.3;

export class PixelPlayer implements Player {
  readonly cues = LOOKS;
  readonly faders: readonly number[] = [];
  private now = 0;
  private readonly phases = new Map<string, { sines: Float64Array; cosines: Float64Array }>();

  get cue(): string {
    return LOOKS[this.now]!;
  }

  go(name?: string): void {
    const wanted = name === undefined ? (this.now + 1) % LOOKS.length : LOOKS.findIndex((one) => one === name);
    if (wanted < 0) throw new Error(`There is no look “${name}”.`);
    this.now = wanted;
  }

  setFader(): void {
    throw new Error('This server has no faders.');
  }

  render(universes: ReadonlyMap<number, Uint8Array>, seconds: number, master: number): void {
    const height = 127.5 * [0.8, 0.5, 0.2][this.now]! * master;
    const [sine, cosine] = [Math.sin(seconds * SPEED) * height, Math.cos(seconds * SPEED) * height];
    for (const [number, slots] of universes) {
      const { sines, cosines } = this.phasesOf(number);
      // sin(t + phase), taken apart: two products a slot.
      for (let slot = 0; slot < SLOTS; slot += 1)
        slots[slot] = Math.round(height + sine * cosines[slot]! + cosine * sines[slot]!);
    }
  }

  /** Where each slot of a universe stands in the wave of the present look. */
  private phasesOf(universe: number): { sines: Float64Array; cosines: Float64Array } {
    const key = `${this.now} ${universe}`;
    const known = this.phases.get(key);
    if (known) return known;
    const phases = Float64Array.from({ length: SLOTS }, (_, slot) => {
      const along = Math.floor(slot / CHANNELS) / 24 + universe / 3;
      return along + (slot % CHANNELS) * (1 + this.now);
    });
    const made = { sines: phases.map(Math.sin), cosines: phases.map(Math.cos) };
    this.phases.set(key, made);
    return made;
  }
}
