/** The two themes: which one is on, and its colours for what draws on a canvas. */
import { useSyncExternalStore } from 'react';

export type ThemeChoice = 'system' | 'backstage' | 'daylight';

const KEY = 'theme';
const listeners = new Set<() => void>();
const system = matchMedia('(prefers-color-scheme: light)');

export const themeChoice = (): ThemeChoice => (localStorage.getItem(KEY) as ThemeChoice | null) ?? 'system';

const themeNow = (): 'backstage' | 'daylight' => {
  const choice = themeChoice();
  if (choice !== 'system') return choice;
  return system.matches ? 'daylight' : 'backstage';
};

function apply(): void {
  document.documentElement.dataset['theme'] = themeNow();
  palettes.clear();
  listeners.forEach((listener) => listener());
}

system.addEventListener('change', apply);

export function pinTheme(choice: ThemeChoice): void {
  if (choice === 'system') localStorage.removeItem(KEY);
  else localStorage.setItem(KEY, choice);
  apply();
}

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

export const useThemeChoice = (): ThemeChoice => useSyncExternalStore(subscribe, themeChoice);

export type Tone =
  | 'ground'
  | 'surface'
  | 'raised'
  | 'line'
  | 'text'
  | 'soft'
  | 'press'
  | 'onpress'
  | 'fine'
  | 'warn'
  | 'fault'
  | 'stray'
  | 'hot';

const palettes = new Map<string, string>();

/** The present colour of a tone, for SVG and canvas. */
export function colour(tone: Tone): string {
  let found = palettes.get(tone);
  if (found === undefined) {
    const channels = getComputedStyle(document.documentElement).getPropertyValue(`--${tone}`).trim();
    found = `rgb(${channels.split(/\s+/).join(', ')})`;
    palettes.set(tone, found);
  }
  return found;
}

/** Draws again when the theme changes; returns {@link colour}. */
export function useColour(): typeof colour {
  useSyncExternalStore(subscribe, themeNow);
  return colour;
}
