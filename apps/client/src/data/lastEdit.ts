/** What this person did last, so that it can be taken back at once wherever they are. */
import { Followed, useFollowed } from './emitter';

/** Seconds in which the page was awake: a phone that slept in a pocket shows it still. */
const SHOWN_S = 20;
interface LastEdit {
  /** Empty after a while */
  readonly sentence: string;
  /** It was an edit, so that it can be taken back. */
  readonly isEdit: boolean;
}
const NOTHING: LastEdit = { sentence: '', isEdit: false };

const last = new Followed(NOTHING);
let timer: ReturnType<typeof setInterval> | undefined;

function show(next: LastEdit): void {
  last.set(next);
  clearInterval(timer);
  if (next.sentence === '') return;
  let left = SHOWN_S;
  timer = setInterval(() => {
    left -= 1;
    if (left === 0) show(NOTHING);
  }, 1000);
}

export const noteLastEdit = (sentence: string): void => show({ sentence, isEdit: true });

/** Says something in the same place that is no edit. */
export const noteToPerson = (sentence: string): void => show({ sentence, isEdit: false });

export const forgetLastEdit = (): void => show(NOTHING);

export const useLastEdit = (): LastEdit => useFollowed(last);
