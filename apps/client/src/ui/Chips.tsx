/** Ways on from here, in one row that scrolls sideways. */
import { Link, type Href } from 'expo-router';
import type { LucideIcon } from 'lucide-react-native';
import { Pressable, ScrollView } from 'react-native';
import { Text } from './Text';
import { useColour } from './theme';

export interface Chip {
  readonly label: string;
  readonly href: string;
  readonly icon: LucideIcon;
}

export function Chips({ label, chips, here }: { label: string; chips: readonly Chip[]; here: string }) {
  const colour = useColour();
  return (
    <ScrollView
      horizontal
      showsHorizontalScrollIndicator={false}
      role="navigation"
      aria-label={label}
      className="grow-0"
    >
      {chips.map(({ label: text, href, icon: Icon }) => {
        const on = here === href || here.startsWith(`${href}/`);
        return (
          <Link key={href} href={href as Href} asChild>
            <Pressable
              aria-current={on ? 'page' : undefined}
              className={`mr-2 h-11 flex-row items-center gap-2 rounded border border-line px-3 ${on ? 'bg-raised' : 'bg-surface'}`}
            >
              <Icon size={18} color={colour('press')} />
              <Text kind={on ? 'strong' : 'body'} tone="press">
                {text}
              </Text>
            </Pressable>
          </Link>
        );
      })}
    </ScrollView>
  );
}
