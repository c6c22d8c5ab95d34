/** Time code that is heard by Art-Net (Art-Net 4, ArtTimeCode): who sends it, and whether it runs. */
import type { AlsoHeardReport } from './report';

export interface TimeCode {
  readonly address: string;
  /** “01:02:03:04” */
  readonly time: string;
  /** “EBU, 25 a second” */
  readonly format: string;
  /** Its packets come, and tell another time than before */
  readonly runs: boolean;
  /** Its packets come, and the time stands */
  readonly stands: boolean;
  /** When it was last heard, Unix time in ms */
  readonly lastSeen: number;
}

/** Longer than the slowest format's frame, by far: 24 a second. */
const STANDS_MS = 500;
/** A sender of time code that was silent for so long is not heard any more. */
const SILENT_MS = 2000;

/** Everybody who sends time code, those that run first; `at` is when all this was so, Unix time in ms. */
export const timeCodesOf = (heard: readonly AlsoHeardReport[], at: number): TimeCode[] =>
  heard
    .filter(({ kind }) => kind === 'timecode')
    .map(({ address, says, changedAt, lastSeen }) => {
      const [time = '', ...format] = says.split(', ');
      const here = at - lastSeen < SILENT_MS;
      const moves = lastSeen - changedAt < STANDS_MS;
      return { address, time, format: format.join(', '), runs: here && moves, stands: here && !moves, lastSeen };
    })
    .sort((a, b) => Number(b.runs) - Number(a.runs));

/** The time code that runs, to be written beside what happens; empty if none does. */
export const timeCodeOf = (all: readonly TimeCode[]): string => all.find(({ runs }) => runs)?.time ?? '';
