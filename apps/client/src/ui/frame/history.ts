/**
 * The browser's history as the frame needs it. Each opened page is one entry, so Back of the header, the browser,
 * Android and the swipe all do the same.
 */
import type { Href } from 'expo-router';
import { useNavigation, useRouter } from 'expo-router';
import { useSyncExternalStore } from 'react';

/** The parts of the Navigation API that are used; not every browser has it. */
interface BrowserNavigation extends EventTarget {
  readonly canGoBack: boolean;
}
const browser = (): BrowserNavigation | undefined => (globalThis as { navigation?: BrowserNavigation }).navigation;

const follow = (listener: () => void): (() => void) => {
  const events = browser();
  events?.addEventListener('currententrychange', listener);
  return () => events?.removeEventListener('currententrychange', listener);
};

/** True when this tab has an earlier page of Taxiarch; also after a reload. */
export function useCanGoBack(): boolean {
  const router = useRouter();
  return useSyncExternalStore(follow, () => browser()?.canGoBack ?? router.canGoBack());
}

/** Addresses of the pages in the stack, without what stands behind `?`, by the router's key of each. */
const addresses = new Map<string, string>();

/** Notes the address that a page of the stack has now. */
export const noteAddress = (key: string, address: string): void => void addresses.set(key, address);

export const addressOf = (key: string): string | undefined => addresses.get(key);

/** How many entries back `address` was opened; undefined if it is not in the stack. */
export function stepsBackTo(address: string, keys: readonly string[]): number | undefined {
  const at = keys.slice(0, -1).findLastIndex((key) => addressOf(key) === address);
  return at === -1 ? undefined : keys.length - 1 - at;
}

/**
 * Leaves a page that is finished (saved, deleted, ended) for another: back to it if the person came from there,
 * otherwise in its place. Back never leads to a finished form.
 */
export function useLeaveFor(): (href: Extract<Href, string>) => void {
  const router = useRouter();
  const navigation = useNavigation();
  return (href) => {
    const [path = href] = href.split('?');
    const keys = (navigation.getState()?.routes ?? []).map(({ key }) => key);
    const steps = stepsBackTo(path, keys);
    if (steps === undefined) router.replace(href);
    else history.go(-steps);
  };
}
