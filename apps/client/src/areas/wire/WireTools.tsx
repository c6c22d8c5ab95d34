/** Ways on from the machines. */
import { usePathname } from 'expo-router';
import Archive from 'lucide-react-native/icons/archive';
import Boxes from 'lucide-react-native/icons/boxes';
import FlaskConical from 'lucide-react-native/icons/flask-conical';
import Monitor from 'lucide-react-native/icons/monitor';
import Network from 'lucide-react-native/icons/network';
import Route from 'lucide-react-native/icons/route';
import TableIcon from 'lucide-react-native/icons/table';
import Usb from 'lucide-react-native/icons/usb';
import { Chips, type Chip } from '@/ui';

const TOOLS: readonly Chip[] = [
  { label: 'Addresses', href: '/wire/addresses', icon: Network },
  { label: 'Reach', href: '/wire/reach', icon: Route },
  { label: 'Ports', href: '/wire/table', icon: TableIcon },
  { label: 'Adapters', href: '/wire/adapters', icon: Usb },
  { label: 'Kept settings', href: '/wire/kept', icon: Archive },
  { label: 'Models', href: '/wire/models', icon: Boxes },
  { label: 'This computer', href: '/wire/here', icon: Monitor },
  { label: 'Stand-ins', href: '/wire/stand-ins', icon: FlaskConical },
];

export const WireTools = () => <Chips label="Wire" chips={TOOLS} here={usePathname()} />;
