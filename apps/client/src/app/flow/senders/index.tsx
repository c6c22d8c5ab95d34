import { Empty } from '@/ui';

export default function NoSender() {
  return <Empty>Choose a sender to see what it sends, line by line.</Empty>;
}
