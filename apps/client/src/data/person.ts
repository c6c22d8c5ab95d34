/** Who sits at this device: a name for the history, kept here; and an id for each open page. */
import { useSyncExternalStore } from 'react';

const KEY = 'person';
const listeners = new Set<() => void>();

export const clientId: string = crypto.randomUUID?.() ?? `page-${Date.now()}-${Math.random().toString(36).slice(2)}`;

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
