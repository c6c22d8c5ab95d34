/** What this person did last, so that it can be taken back at once wherever they are. */
import { Followed, useFollowed } from './emitter';

const SHOWN_MS = 20_000;
const sentence = new Followed('');
let timer: ReturnType<typeof setTimeout> | undefined;

export function noteLastEdit(said: string): void {
  sentence.set(said);
  clearTimeout(timer);
  if (said !== '') timer = setTimeout(() => sentence.set(''), SHOWN_MS);
}

export const forgetLastEdit = (): void => noteLastEdit('');

/** The sentence of the last edit; empty after a while. */
export const useLastEdit = (): string => useFollowed(sentence);
