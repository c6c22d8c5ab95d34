import { SendersPage } from '@/areas/lists';
import { Empty, useWide } from '@/ui';

export default function Senders() {
  return useWide() ? <Empty>Choose a sender to see what it sends, line by line.</Empty> : <SendersPage />;
}
