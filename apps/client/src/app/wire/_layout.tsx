import { Slot, usePathname } from 'expo-router';
import { MachineList } from '@/areas/lists';
import { WireTools } from '@/areas/wire/WireTools';
import { Split } from '@/ui';

export default function WireLayout() {
  return <Split list={<MachineList />} detail={<Slot />} inDetail={usePathname() !== '/wire'} tools={<WireTools />} />;
}
