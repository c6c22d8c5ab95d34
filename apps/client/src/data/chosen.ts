/** Lamps that a person chose, in the order in which they were chosen; kept for the tab through reloads. */
import { useSyncExternalStore } from 'react';

const listeners = new Set<() => void>();

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

export class Chosen {
  private ids: readonly string[];

  constructor(private readonly key: string) {
    this.ids = JSON.parse(sessionStorage.getItem(key) ?? '[]') as string[];
  }

  read = (): readonly string[] => this.ids;

  set(ids: readonly string[]): void {
    this.ids = [...new Set(ids)];
    sessionStorage.setItem(this.key, JSON.stringify(this.ids));
    listeners.forEach((listener) => listener());
  }

  toggle(id: string): void {
    this.set(this.ids.includes(id) ? this.ids.filter((one) => one !== id) : [...this.ids, id]);
  }
}

/** Ids of lamps, in the order chosen. */
export const useChosen = (chosen: Chosen): readonly string[] => useSyncExternalStore(subscribe, chosen.read);

/** Lamps and runs for a walk. */
export const walkChosen = new Chosen('walk');

/** Lamps to be changed together. */
export const rigChosen = new Chosen('rig');

/** Machines to be pushed to, or given settings, together. */
export const machinesChosen = new Chosen('machines');
