import { PartsPage } from '@/areas/parts/PartsPage';
import NotFound from './+not-found';

export default function Parts() {
  return __DEV__ ? <PartsPage /> : <NotFound />;
}
