/** Ways on from the ledger. */
import { usePathname } from 'expo-router';
import BookOpen from 'lucide-react-native/icons/book-open';
import Cast from 'lucide-react-native/icons/cast';
import Projector from 'lucide-react-native/icons/projector';
import SlidersVertical from 'lucide-react-native/icons/sliders-vertical';
import Split from 'lucide-react-native/icons/split';
import { Chips, type Chip } from '@/ui';

const TOOLS: readonly Chip[] = [
  { label: 'Ledger', href: '/flow', icon: BookOpen },
  { label: 'Senders', href: '/flow/senders', icon: Cast },
  { label: 'Routes', href: '/flow/routes', icon: Split },
  { label: 'Links', href: '/flow/links', icon: Projector },
  { label: 'Input map', href: '/flow/map', icon: SlidersVertical },
];

export const FlowTools = () => <Chips label="Flow" chips={TOOLS} here={usePathname()} />;
