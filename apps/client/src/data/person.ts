/** Who sits at this device: a name for the history, kept here; and an id for each tab. */
import { useSyncExternalStore } from 'react';

const KEY = 'person';
const listeners = new Set<() => void>();

function keptId(): string {
  const kept = sessionStorage.getItem('client');
  if (kept) return kept;
  const made = `page-${Array.from(crypto.getRandomValues(new Uint32Array(4)), (word) => word.toString(36)).join('')}`;
  sessionStorage.setItem('client', made);
  return made;
}

/** The same for one tab through all reloads, so that what it took stays its own. */
export const clientId: string = keptId();

export const personName = (): string => localStorage.getItem(KEY) ?? 'Technician';

export function setPersonName(name: string): void {
  localStorage.setItem(KEY, name.trim() || 'Technician');
  listeners.forEach((listener) => listener());
}

export const usePersonName = (): string =>
  useSyncExternalStore((listener) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  }, personName);
