/** The Purser's desk: twenty-four old faders on a DMX cable, moved slowly by nobody. */
import { SLOTS } from '@taxiarch/core/base/address';

const FADERS = 24;
const FRAME_MS = 50;

/** Calls `feed` with a frame of DMX for as long as the program runs. */
export function pursersDesk(feed: (levels: Uint8Array) => void): void {
  const frame = () => {
    const levels = new Uint8Array(SLOTS);
    const seconds = performance.now() / 1000;
    for (let i = 0; i < FADERS; i += 1) levels[i] = Math.round(110 + 90 * Math.sin(seconds / 4 + (i * Math.PI) / 6));
    feed(levels);
  };
  frame();
  setInterval(frame, FRAME_MS);
}
