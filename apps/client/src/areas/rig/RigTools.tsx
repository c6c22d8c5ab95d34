/** Ways on from the rig. */
import { usePathname } from 'expo-router';
import ArrowLeftRight from 'lucide-react-native/icons/arrow-left-right';
import Grip from 'lucide-react-native/icons/grip';
import Handshake from 'lucide-react-native/icons/handshake';
import Layers from 'lucide-react-native/icons/layers';
import MapIcon from 'lucide-react-native/icons/map';
import Rows3 from 'lucide-react-native/icons/rows-3';
import Shapes from 'lucide-react-native/icons/shapes';
import { Chips, type Chip } from '@/ui';

const TOOLS: readonly Chip[] = [
  { label: 'Plan', href: '/rig/plan', icon: MapIcon },
  { label: 'Universes', href: '/rig/universes', icon: Rows3 },
  { label: 'Types', href: '/rig/types', icon: Shapes },
  { label: 'Pixels', href: '/rig/pixels', icon: Grip },
  { label: 'Blocks', href: '/rig/blocks', icon: Layers },
  { label: 'Import, export', href: '/rig/files', icon: ArrowLeftRight },
  { label: 'Exchange', href: '/rig/exchange', icon: Handshake },
];

export const RigTools = () => <Chips label="Rig" chips={TOOLS} here={usePathname()} />;
