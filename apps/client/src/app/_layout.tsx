import '../global.css';
import { useEffect } from 'react';
import { SWRConfig } from 'swr';
import { feed } from '@/data/feed';
import { SWR_CONFIG } from '@/data/swr';
import { Frame } from '@/ui/frame/Frame';

export default function Root() {
  useEffect(() => feed.begin(), []);
  return (
    <SWRConfig value={SWR_CONFIG}>
      <Frame />
    </SWRConfig>
  );
}
