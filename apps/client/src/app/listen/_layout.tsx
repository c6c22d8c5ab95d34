import { Slot, usePathname } from 'expo-router';
import { UniverseList } from '@/areas/listen/UniverseList';
import { Split } from '@/ui';

export default function ListenLayout() {
  return <Split list={<UniverseList />} detail={<Slot />} inDetail={usePathname() !== '/listen'} />;
}
