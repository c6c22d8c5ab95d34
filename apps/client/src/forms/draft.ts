/** Half-typed forms: kept for the tab, so that neither leaving a screen nor a reload loses anything. */
import { useCallback, useSyncExternalStore } from 'react';
import { Emitter } from '@/data/emitter';

const STORED = 'drafts';

const drafts = new Map<string, unknown>(JSON.parse(sessionStorage.getItem(STORED) ?? '[]') as [string, unknown][]);
const changed = new Emitter();

function keep(key: string, value: unknown): void {
  if (value === undefined) drafts.delete(key);
  else drafts.set(key, value);
  sessionStorage.setItem(STORED, JSON.stringify([...drafts]));
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
