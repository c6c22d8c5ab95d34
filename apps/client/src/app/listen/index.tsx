import { Empty } from '@/ui';

export default function NoUniverse() {
  return <Empty>Choose a universe to see its 512 slots alive.</Empty>;
}
