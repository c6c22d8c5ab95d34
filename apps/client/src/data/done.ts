/** What this person did last, so that it can be taken back at once wherever they are. */
import { useSyncExternalStore } from 'react';

const SHOWN_MS = 20_000;
const listeners = new Set<() => void>();
let sentence = '';
let timer: ReturnType<typeof setTimeout> | undefined;

function set(next: string): void {
  sentence = next;
  clearTimeout(timer);
  if (next !== '') timer = setTimeout(() => set(''), SHOWN_MS);
  listeners.forEach((listener) => listener());
}

export const noteDone = set;
export const forgetDone = (): void => set('');

/** The sentence of the last edit; empty after a while. */
export const useDone = (): string =>
  useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => sentence,
  );
