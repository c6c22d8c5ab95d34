import { Empty } from '@/ui';

export default function NoRoute() {
  return <Empty>Choose a route to see what comes in, what goes out, and who owns each slot.</Empty>;
}
