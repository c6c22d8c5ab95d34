/** Walking without hands: by itself every few seconds, by keys of a wired or wireless button, and by the browser's voice. */
import { useEffect, useRef, useState } from 'react';
import { usePreference, walkKeys, walkSpeaks } from '@/data/preferences';

export const KEY_ACTS = ['proved', 'failed', 'skipped', 'back'] as const;
export type KeyAct = (typeof KEY_ACTS)[number];

export interface WalkActs extends Readonly<Record<KeyAct | 'next', () => void>> {}

/** `proved=PageDown;failed=PageUp` */
export const readKeys = (text: string): Partial<Record<KeyAct, string>> =>
  Object.fromEntries(
    text
      .split(';')
      .map((one) => [one.slice(0, one.indexOf('=')), one.slice(one.indexOf('=') + 1)] as const)
      .filter(([act, key]) => (KEY_ACTS as readonly string[]).includes(act) && key !== ''),
  );
/** A key does one thing: whatever had it before has none. */
export const withKey = (text: string, act: KeyAct, key: string): string =>
  Object.entries({ ...readKeys(text), [act]: key })
    .filter(([one, its]) => one === act || its !== key)
    .map(([one, its]) => `${one}=${its}`)
    .join(';');

export interface HandsFreeNow {
  /** Seconds at each lamp; 0 for by hand */
  readonly every: number;
  setEvery(seconds: number): void;
  /** The next key is for this */
  readonly learning: KeyAct | undefined;
  learn(act: KeyAct | undefined): void;
  readonly canSpeak: boolean;
}

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName);

/** `spoken`: what is said of what is in hand; `key` tells one from the next. While `held`, nothing goes by itself. */
export function useHandsFree(now: WalkActs, spoken: string, key: string, held: boolean): HandsFreeNow {
  const acts = useRef(now);
  useEffect(() => {
    acts.current = now;
  });
  const [every, setEvery] = useState(0);
  const [learning, learn] = useState<KeyAct>();
  const keys = usePreference(walkKeys);
  const speaks = usePreference(walkSpeaks) === 'yes';
  const canSpeak = 'speechSynthesis' in globalThis;

  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (isTyping(event.target) || event.repeat) return;
      if (learning) {
        if (event.key !== 'Escape') walkKeys.write(withKey(keys, learning, event.key));
        learn(undefined);
      } else {
        const act = KEY_ACTS.find((one) => readKeys(keys)[one] === event.key);
        if (!act || held) return;
        acts.current[act]();
      }
      event.preventDefault();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [keys, learning, held]);

  useEffect(() => {
    if (every === 0 || key === '' || held) return;
    const timer = setTimeout(() => acts.current.next(), every * 1000);
    return () => clearTimeout(timer);
  }, [every, key, held]);

  useEffect(() => {
    if (!speaks || !canSpeak || spoken === '') return;
    speechSynthesis.cancel();
    const says = new SpeechSynthesisUtterance(spoken);
    says.lang = 'en-GB';
    speechSynthesis.speak(says);
    return () => speechSynthesis.cancel();
  }, [speaks, canSpeak, spoken, key]);

  return { every, setEvery, learning, learn, canSpeak };
}
