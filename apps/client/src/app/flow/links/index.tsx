import { LinksPage } from '@/areas/flow/links/LinksPage';
import { Empty, useWide } from '@/ui';

export default function Links() {
  return useWide() ? <Empty>Choose a link to see what its doctor says.</Empty> : <LinksPage />;
}
