/** The five areas: along the foot on a phone, a narrow rail on a wide screen. */
import { Link, usePathname } from 'expo-router';
import Cable from 'lucide-react-native/icons/cable';
import Ear from 'lucide-react-native/icons/ear';
import LampCeiling from 'lucide-react-native/icons/lamp-ceiling';
import ListChecks from 'lucide-react-native/icons/list-checks';
import Route from 'lucide-react-native/icons/route';
import { Pressable, View } from 'react-native';
import { Text } from '../Text';
import { useColour } from '../theme';

const AREAS = [
  { path: '/rig', label: 'Rig', icon: LampCeiling },
  { path: '/wire', label: 'Wire', icon: Cable },
  { path: '/flow', label: 'Flow', icon: Route },
  { path: '/listen', label: 'Listen', icon: Ear },
  { path: '/prove', label: 'Prove', icon: ListChecks },
] as const;

export function AreaBar({ upright = false }: { upright?: boolean }) {
  const colour = useColour();
  const here = usePathname();
  return (
    <View
      role="navigation"
      aria-label="Areas"
      className={
        upright
          ? 'w-[88px] gap-1 border-r border-line bg-surface py-2'
          : 'h-14 flex-row border-t border-line bg-surface'
      }
    >
      {AREAS.map(({ path, label, icon: Icon }) => {
        const on = here.startsWith(path);
        return (
          <Link key={path} href={path} asChild>
            <Pressable
              aria-current={on ? 'page' : undefined}
              className={`items-center justify-center gap-0.5 ${upright ? 'h-16' : 'flex-1'} ${on ? 'bg-raised' : ''}`}
            >
              <Icon size={22} color={colour(on ? 'press' : 'soft')} strokeWidth={on ? 2.4 : 1.8} />
              <Text kind={on ? 'label' : 'small'} tone={on ? 'press' : 'soft'}>
                {label}
              </Text>
            </Pressable>
          </Link>
        );
      })}
    </View>
  );
}
