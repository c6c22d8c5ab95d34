import '../global.css';
import { Stack } from 'expo-router';
import { useEffect } from 'react';
import { SWRConfig } from 'swr';
import { AreaList, AreaTools } from '@/areas/AreaList';
import { feed } from '@/data/feed';
import { SWR_CONFIG } from '@/data/swr';
import { Frame } from '@/ui/frame/Frame';
import { Page } from '@/ui/frame/Page';

/** Pages have no header of their own: the frame has one for all. */
const OPTIONS = { headerShown: false, animation: 'none' } as const;

export default function Root() {
  useEffect(() => feed.begin(), []);
  return (
    <SWRConfig value={SWR_CONFIG}>
      <Frame list={<AreaList />} tools={<AreaTools />}>
        <Stack
          screenOptions={OPTIONS}
          screenLayout={({ route, children }) => <Page routeKey={route.key}>{children}</Page>}
        />
      </Frame>
    </SWRConfig>
  );
}
