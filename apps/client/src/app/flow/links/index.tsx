import { Empty } from '@/ui';

export default function NoLink() {
  return <Empty>Choose a link to see what its doctor says.</Empty>;
}
