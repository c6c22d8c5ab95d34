/** Ways to prove: take and look, walk, call the roll, match by eye, set addresses. */
import { usePathname } from 'expo-router';
import Eye from 'lucide-react-native/icons/eye';
import FileCheck from 'lucide-react-native/icons/file-check';
import Footprints from 'lucide-react-native/icons/footprints';
import Hand from 'lucide-react-native/icons/hand';
import Lightbulb from 'lucide-react-native/icons/lightbulb';
import ListOrdered from 'lucide-react-native/icons/list-ordered';
import Megaphone from 'lucide-react-native/icons/megaphone';
import Unplug from 'lucide-react-native/icons/unplug';
import { Chips, type Chip } from '@/ui';

const TOOLS: readonly Chip[] = [
  { label: 'Take', href: '/prove', icon: Hand },
  { label: 'Walk', href: '/prove/walks', icon: Footprints },
  { label: 'Pictures', href: '/prove/pictures', icon: Lightbulb },
  { label: 'Roll call', href: '/prove/roll', icon: Megaphone },
  { label: 'By eye', href: '/prove/eye', icon: Eye },
  { label: 'What if', href: '/prove/what-if', icon: Unplug },
  { label: 'Record', href: '/prove/proof', icon: FileCheck },
  { label: 'Addresses', href: '/prove/arrange', icon: ListOrdered },
];

export const ProveTools = () => <Chips label="Prove" chips={TOOLS} here={usePathname()} />;
