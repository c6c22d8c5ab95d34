/** One page of the stack: shown when it is on top; further down it waits as it was left, and costs nothing. */
import { useIsFocused, useNavigation, usePathname } from 'expo-router';
import { Activity, useLayoutEffect, useState, type ReactNode, type RefObject } from 'react';
import { View } from 'react-native';
import { ErrorBoundary } from './ErrorBoundary';
import { addressOf, noteAddress } from './history';
import { useScrollMemory } from './scrollMemory';
import { isList } from './upFrom';

/** Pages further down than this are built again when the person comes back to them. */
const KEPT_PAGES = 8;

interface Props {
  /** The router's key of this page */
  routeKey: string;
  children: ReactNode;
}

/** The address of this page, also while another is on top. */
function useOwnPath(focused: boolean): string {
  const path = usePathname();
  const [own, setOwn] = useState(path);
  if (focused && own !== path) setOwn(path);
  return focused ? path : own;
}

function Scrolled({ path, children }: { path: string; children: ReactNode }) {
  const root = useScrollMemory(path, isList(path));
  return (
    <View ref={root as unknown as RefObject<View>} className="min-h-0 min-w-0 flex-1 bg-ground">
      {children}
    </View>
  );
}

export function Page({ routeKey, children }: Props) {
  const focused = useIsFocused();
  const path = useOwnPath(focused);
  const keys = (useNavigation().getState()?.routes ?? []).map(({ key }) => key);
  const above = keys.slice(keys.indexOf(routeKey) + 1);
  useLayoutEffect(() => noteAddress(routeKey, path), [routeKey, path]);
  // The same page is not kept twice.
  if (above.length > KEPT_PAGES || above.some((key) => addressOf(key) === path)) return null;
  return (
    <Activity mode={focused ? 'visible' : 'hidden'}>
      <Scrolled path={path}>
        <ErrorBoundary path={path}>{children}</ErrorBoundary>
      </Scrolled>
    </Activity>
  );
}
