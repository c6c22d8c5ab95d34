import { LinksPage } from '@/areas/lists';
import { Empty, useWide } from '@/ui';

export default function Links() {
  return useWide() ? <Empty>Choose a link to see what its doctor says.</Empty> : <LinksPage />;
}
