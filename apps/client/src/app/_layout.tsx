import '../global.css';
import { useEffect } from 'react';
import { SWRConfig } from 'swr';
import { feed } from '@/data/feed';
import { Frame } from '@/ui/frame/Frame';

export default function Root() {
  useEffect(() => feed.begin(), []);
  return (
    <SWRConfig value={{ revalidateOnFocus: false, keepPreviousData: true }}>
      <Frame />
    </SWRConfig>
  );
}
