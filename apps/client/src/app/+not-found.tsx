import { Empty } from '@/ui';

export default function NotFound() {
  return <Empty>There is nothing at this address. Choose an area, or jump.</Empty>;
}
