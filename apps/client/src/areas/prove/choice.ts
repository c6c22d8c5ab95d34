/** The lamps chosen for a walk, in the order in which they were chosen; kept while the page is open. */
import { useSyncExternalStore } from 'react';

const KEY = 'walk';
const listeners = new Set<() => void>();
const read = (): readonly string[] => JSON.parse(sessionStorage.getItem(KEY) ?? '[]') as string[];
let chosen = read();

function set(next: readonly string[]): void {
  chosen = next;
  sessionStorage.setItem(KEY, JSON.stringify(next));
  listeners.forEach((listener) => listener());
}

export const chooseLamps = (ids: readonly string[]): void => set([...new Set(ids)]);

export const toggleLamp = (id: string): void =>
  set(chosen.includes(id) ? chosen.filter((one) => one !== id) : [...chosen, id]);

/** Ids of lamps, in the order chosen. */
export const useChosenLamps = (): readonly string[] =>
  useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => chosen,
  );
