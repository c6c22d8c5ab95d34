import { RoutesPage } from '@/areas/flow/routes/RoutesPage';
import { Empty, useWide } from '@/ui';

export default function Routes() {
  return useWide() ? (
    <Empty>Choose a route to see what comes in, what goes out, and who owns each slot.</Empty>
  ) : (
    <RoutesPage />
  );
}
