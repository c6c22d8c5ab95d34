/** Half-typed forms: kept while the page is open, so that leaving a screen loses nothing. */
import { useCallback, useState } from 'react';

const drafts = new Map<string, unknown>();

/** State that outlives its screen under `key`; `clear` goes back to the initial value. */
export function useDraft<T>(key: string, initial: T): [T, (value: T) => void, () => void] {
  const [, redraw] = useState(0);
  const value = drafts.has(key) ? (drafts.get(key) as T) : initial;
  const set = useCallback(
    (next: T) => {
      drafts.set(key, next);
      redraw((count) => count + 1);
    },
    [key],
  );
  const clear = useCallback(() => {
    drafts.delete(key);
    redraw((count) => count + 1);
  }, [key]);
  return [value, set, clear];
}

export const hasDraft = (key: string): boolean => drafts.has(key);
