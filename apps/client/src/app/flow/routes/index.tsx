import { RoutesPage } from '@/areas/lists';
import { Empty, useWide } from '@/ui';

export default function Routes() {
  return useWide() ? (
    <Empty>Choose a route to see what comes in, what goes out, and who owns each slot.</Empty>
  ) : (
    <RoutesPage />
  );
}
