/** What Porthole plays: slow swells of colour over all its pixels, four channels each. */
import { SLOTS } from '@taxiarch/core/base/address';
import type { Player } from './sender';

const LOOKS = ['Swell', 'Lanterns', 'Dark water'] as const;
const CHANNELS = 4;

export class PixelPlayer implements Player {
  readonly cues = LOOKS;
  readonly faders: readonly number[] = [];
  private now = 0;

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
    const depth = [0.8, 0.5, 0.2][this.now]!;
    for (const [number, slots] of universes)
      for (let slot = 0; slot < SLOTS; slot += 1) {
        const along = Math.floor(slot / CHANNELS) / 24 + number / 3;
        const wave = 0.5 + 0.5 * Math.sin(seconds * 1.3 + along + (slot % CHANNELS) * (1 + this.now));
        slots[slot] = Math.round(255 * depth * wave * master);
      }
  }
}
