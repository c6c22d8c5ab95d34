/** Half-typed forms: kept while the page is open, so that leaving a screen loses nothing. */
import { useCallback, useSyncExternalStore } from 'react';
import { Emitter } from '@/data/emitter';

const drafts = new Map<string, unknown>();
const changed = new Emitter();

function keep(key: string, value: unknown): void {
  if (value === undefined) drafts.delete(key);
  else drafts.set(key, value);
  changed.emit();
}

/** State that outlives its screen under `key`; `clear` goes back to the initial value. */
export function useDraft<T>(key: string, initial: T): [T, (value: T) => void, () => void] {
  const draft = useSyncExternalStore(
    (listener) => changed.on(listener),
    () => drafts.get(key),
  ) as T | undefined;
  const set = useCallback((next: T) => keep(key, next), [key]);
  const clear = useCallback(() => keep(key, undefined), [key]);
  return [draft ?? initial, set, clear];
}

export const hasDraft = (key: string): boolean => drafts.has(key);
