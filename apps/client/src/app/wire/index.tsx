import { MachineList } from '@/areas/lists';
import { Empty, useWide } from '@/ui';

export default function Wire() {
  return useWide() ? (
    <Empty>Choose a machine to see its settings, planned beside what is on the wire.</Empty>
  ) : (
    <MachineList />
  );
}
