import { Slot, usePathname } from 'expo-router';
import type { ReactNode } from 'react';
import { FlowTools } from '@/areas/flow/FlowTools';
import { LinksPage, RoutesPage, SendersPage } from '@/areas/lists';
import { Split, useWide } from '@/ui';

/** What stands in the list beside each part's details; the ledger has the screen to itself. */
const LISTS: Readonly<Record<string, ReactNode>> = {
  senders: <SendersPage />,
  routes: <RoutesPage />,
  links: <LinksPage />,
  map: <RoutesPage />,
};

export default function FlowLayout() {
  const [, , part = ''] = usePathname().split('/');
  // On a phone each part's own page is its list.
  return <Split list={useWide() && LISTS[part]} detail={<Slot />} inDetail tools={<FlowTools />} />;
}
