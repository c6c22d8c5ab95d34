/** What Porthole plays: slow swells of colour over all its pixels, four channels each. */
import { SLOTS } from '@taxiarch/core/base/address';
import type { Player } from './sender';

const LOOKS = ['Swell', 'Lanterns', 'Dark water'] as const;
const CHANNELS = 4;
/** Of the wave, radians a second */
const SPEED = 1.3;
/** The wave is drawn once, in so many steps a turn, and looked up. */
const STEPS = 4096;
const STEPS_PER_RADIAN = STEPS / (2 * Math.PI);

export class PixelPlayer implements Player {
  readonly cues = LOOKS;
  readonly faders: readonly number[] = [];
  private now = 0;
  private readonly phases = new Map<string, Uint16Array>();
  private wave = { height: -1, levels: new Uint8Array(STEPS) };

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
    const levels = this.waveOf(127.5 * [0.8, 0.5, 0.2][this.now]! * master);
    const now = Math.round(seconds * SPEED * STEPS_PER_RADIAN) % STEPS;
    for (const [number, slots] of universes) {
      const phases = this.phasesOf(number);
      for (let slot = 0; slot < SLOTS; slot += 1) slots[slot] = levels[(now + phases[slot]!) % STEPS]!;
    }
  }

  /** Levels of one turn of the wave that is so high. */
  private waveOf(height: number): Uint8Array {
    if (this.wave.height !== height)
      this.wave = {
        height,
        levels: Uint8Array.from({ length: STEPS }, (_, i) => Math.round(height * (1 + Math.sin(i / STEPS_PER_RADIAN)))),
      };
    return this.wave.levels;
  }

  /** Where each slot of a universe stands in the wave of the present look, in steps. */
  private phasesOf(universe: number): Uint16Array {
    const key = `${this.now} ${universe}`;
    const known = this.phases.get(key);
    if (known) return known;
    const made = Uint16Array.from({ length: SLOTS }, (_, slot) => {
      const along = Math.floor(slot / CHANNELS) / 24 + universe / 3;
      return Math.round((along + (slot % CHANNELS) * (1 + this.now)) * STEPS_PER_RADIAN) % STEPS;
    });
    this.phases.set(key, made);
    return made;
  }
}
