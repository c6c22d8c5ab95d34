import { Empty } from '@/ui';

export default function NoLamp() {
  return <Empty>Choose a lamp to see its channels, with what is on the wire now.</Empty>;
}
