/** The one way in which things here tell of changes: to listeners, and to React as a value that is followed. */
import { useSyncExternalStore } from 'react';

export type Listener<T> = (value: T) => void;

export class Emitter<T = void> {
  private readonly listeners = new Set<Listener<T>>();

  /** Returns what stops it. */
  on(listener: Listener<T>): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  emit(value: T): void {
    for (const listener of [...this.listeners]) listener(value);
  }
}

/** A value that is followed. */
export class Followed<T> {
  private readonly changed = new Emitter();

  constructor(private value: T) {}

  read = (): T => this.value;

  set = (value: T): void => {
    if (Object.is(value, this.value)) return;
    this.value = value;
    this.changed.emit();
  };

  on = (listener: () => void): (() => void) => this.changed.on(listener);
}

export const useFollowed = <T>(followed: Pick<Followed<T>, 'read' | 'on'>): T =>
  useSyncExternalStore(followed.on, followed.read);
