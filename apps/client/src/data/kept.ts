/** Small choices of one person at one device, kept in the browser's storage and followed by every screen. */
import { useSyncExternalStore } from 'react';

const listeners = new Set<() => void>();

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

export class Kept {
  constructor(
    private readonly storage: Storage,
    private readonly key: string,
    private readonly first: string,
  ) {}

  read = (): string => this.storage.getItem(this.key) ?? this.first;

  write(value: string): void {
    this.storage.setItem(this.key, value);
    listeners.forEach((listener) => listener());
  }
}

export const useKept = (kept: Kept): string => useSyncExternalStore(subscribe, kept.read);

/** Who sits here, for the history. */
export const personName = new Kept(localStorage, 'person', 'Technician');

/** `yes`: what is taken here goes on being sent when this device goes away. */
export const staysTaken = new Kept(localStorage, 'stays', 'no');

/** Id of the place that lists are held to; empty for all of them. */
export const placeFilter = new Kept(sessionStorage, 'place', '');
