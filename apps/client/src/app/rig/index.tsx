import { LampList } from '@/areas/lists';
import { Empty, useWide } from '@/ui';

export default function Rig() {
  return useWide() ? <Empty>Choose a lamp to see its channels, with what is on the wire now.</Empty> : <LampList />;
}
