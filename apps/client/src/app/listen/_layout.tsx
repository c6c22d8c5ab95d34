import { Slot, usePathname } from 'expo-router';
import { UniverseList } from '@/areas/lists';
import { Split } from '@/ui';

export default function ListenLayout() {
  return <Split list={<UniverseList />} detail={<Slot />} inDetail={usePathname() !== '/listen'} />;
}
