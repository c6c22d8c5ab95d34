import { UniverseList } from '@/areas/lists';
import { Empty, useWide } from '@/ui';

export default function Listen() {
  return useWide() ? <Empty>Choose a universe to see its 512 slots alive.</Empty> : <UniverseList />;
}
