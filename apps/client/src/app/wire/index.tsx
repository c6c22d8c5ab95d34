import { Empty } from '@/ui';

export default function NoMachine() {
  return <Empty>Choose a machine to see its settings, planned beside what is on the wire.</Empty>;
}
