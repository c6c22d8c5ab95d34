/** The Gangway panel: four faders on the wall by the gangway, for the house light. */
import type { Player } from './sender';

const FADERS = 4;
/** Each fader drives so many dimmers. */
const DIMMERS = 2;

export class WallPlayer implements Player {
  readonly cue = '';
  readonly cues: readonly string[] = [];
  readonly faders: number[] = Array.from({ length: FADERS }, () => 160);

  go(): void {
    throw new Error('This panel has no cues.');
  }

  setFader(index: number, level: number): void {
    if (!Number.isInteger(index) || index < 0 || index >= FADERS)
      throw new Error(`Faders run from 0 to ${FADERS - 1}.`);
    if (!Number.isInteger(level) || level < 0 || level > 255) throw new Error('Levels run from 0 to 255.');
    this.faders[index] = level;
  }

  render(universes: ReadonlyMap<number, Uint8Array>, _seconds: number, master: number): void {
    for (const slots of universes.values())
      this.faders.forEach((level, i) => slots.fill(Math.round(level * master), i * DIMMERS, (i + 1) * DIMMERS));
  }
}
