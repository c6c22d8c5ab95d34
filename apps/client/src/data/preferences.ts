/** Small choices of one person at one device, kept in the browser's storage and followed by every screen. */
import { useMemo } from 'react';
import { Emitter, useFollowed } from './emitter';

const changed = new Emitter();

export class Preference {
  constructor(
    private readonly storage: Storage,
    private readonly key: string,
    private readonly first: string,
  ) {}

  read = (): string => this.storage.getItem(this.key) ?? this.first;

  write(value: string): void {
    this.storage.setItem(this.key, value);
    changed.emit();
  }

  on = (listener: () => void): (() => void) => changed.on(listener);
}

export const usePreference = (preference: Preference): string => useFollowed(preference);

/**
 * How a list is shown: search, filter, order. It outlives its screen and a reload of this tab, so that a list comes back
 * as it was left, whatever way leads to it.
 */
export function useListChoice<T extends string = string>(key: string, first: NoInfer<T>): [T, (value: T) => void] {
  const choice = useMemo(() => new Preference(sessionStorage, `list ${key}`, first), [key, first]);
  return [usePreference(choice) as T, (value) => choice.write(value)];
}

/** Who sits here, for the history; empty until this device has been asked. */
export const personName = new Preference(localStorage, 'person', '');

/** `yes`: what is taken here goes on being sent when this device goes away. */
export const staysTaken = new Preference(localStorage, 'stays', 'no');

/** Keys that walk without hands, by what they do: `proved=PageDown;failed=PageUp` */
export const walkKeys = new Preference(
  localStorage,
  'walkKeys',
  'proved=PageDown;failed=PageUp;skipped=.;back=Backspace',
);

/** `yes`: names of lamps are spoken in a walk. */
export const walkSpeaks = new Preference(localStorage, 'walkSpeaks', 'no');

/** Id of the place that lists are held to; empty for all of them. */
export const placeFilter = new Preference(sessionStorage, 'place', '');

/** `0` or `1`: what this person calls Art-Net's first universe. */
export const countsFrom = new Preference(localStorage, 'countsFrom', '0');

/** Paper of what is printed here. Letter is usual where the language is that of the United States or Canada. */
export const paperSize = new Preference(
  localStorage,
  'paper',
  /^(en-US|en-CA|fr-CA|es-US)$/.test(navigator.language) ? 'Letter' : 'A4',
);
