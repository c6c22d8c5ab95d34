import { Slot, usePathname } from 'expo-router';
import { LampList } from '@/areas/lists';
import { useSelectThere } from '@/data/exchange';
import { RigTools } from '@/areas/rig/RigTools';
import { Split } from '@/ui';

export default function RigLayout() {
  useSelectThere();
  return <Split list={<LampList />} detail={<Slot />} inDetail={usePathname() !== '/rig'} tools={<RigTools />} />;
}
