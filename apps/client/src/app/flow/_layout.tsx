import { Slot, usePathname } from 'expo-router';
import type { ReactNode } from 'react';
import { FlowTools } from '@/areas/flow/FlowTools';
import { LinksPage } from '@/areas/flow/links/LinksPage';
import { RoutesPage } from '@/areas/flow/routes/RoutesPage';
import { SendersPage } from '@/areas/flow/senders/SendersPage';
import { Split } from '@/ui';

/** What stands in the list beside each part's details; the ledger has the screen to itself. */
const LISTS: Readonly<Record<string, ReactNode>> = {
  senders: <SendersPage />,
  routes: <RoutesPage />,
  links: <LinksPage />,
  map: <RoutesPage />,
};

export default function FlowLayout() {
  const [, , part = '', detail] = usePathname().split('/');
  const list = LISTS[part];
  if (!list) return <Slot />;
  return (
    <Split list={list} detail={<Slot />} inDetail={detail !== undefined || part === 'map'} tools={<FlowTools />} />
  );
}
