/** What this person did last, so that it can be taken back at once wherever they are. */
import { Followed, useFollowed } from './emitter';

/** Seconds in which the page was awake: a phone that slept in a pocket shows it still. */
const SHOWN_S = 20;
const sentence = new Followed('');
let timer: ReturnType<typeof setInterval> | undefined;

export function noteLastEdit(said: string): void {
  sentence.set(said);
  clearInterval(timer);
  if (said === '') return;
  let left = SHOWN_S;
  timer = setInterval(() => {
    left -= 1;
    if (left === 0) noteLastEdit('');
  }, 1000);
}

export const forgetLastEdit = (): void => noteLastEdit('');

/** The sentence of the last edit; empty after a while. */
export const useLastEdit = (): string => useFollowed(sentence);
