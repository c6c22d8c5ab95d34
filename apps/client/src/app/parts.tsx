import { PartsPage } from '@/areas/parts/PartsPage';
import { Empty } from '@/ui';

export default function Parts() {
  return __DEV__ ? <PartsPage /> : <Empty>There is nothing at this address. Choose an area, or jump.</Empty>;
}
