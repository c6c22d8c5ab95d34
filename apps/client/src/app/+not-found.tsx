import { Empty } from '@/ui';

export default function NotFound() {
  return <Empty act={{ label: 'How things stand', href: '/' }}>There is no page at this address.</Empty>;
}
