/** Ways on from here: all in sight on a wide screen, on a phone in one row that scrolls sideways. */
import { Link, type Href } from 'expo-router';
import type { LucideIcon } from 'lucide-react-native';
import { Pressable, ScrollView, View } from 'react-native';
import { Text } from './Text';
import { useColour } from './theme';
import { useWide } from './wide';

export interface Chip {
  readonly label: string;
  readonly href: Extract<Href, string>;
  readonly icon: LucideIcon;
}

export function Chips({ label, chips, here }: { label: string; chips: readonly Chip[]; here: string }) {
  const colour = useColour();
  const wide = useWide();
  // Of those that lead to here or above, the nearest.
  const [at] = chips
    .filter(({ href }) => here === href || here.startsWith(`${href}/`))
    .sort((a, b) => b.href.length - a.href.length);
  const row = chips.map(({ label: text, href, icon: Icon }) => {
    const on = href === at?.href;
    return (
      <Link key={href} href={href} asChild>
        <Pressable
          aria-current={on ? 'page' : undefined}
          className={`h-11 flex-row items-center gap-2 rounded border border-line px-3 ${on ? 'bg-raised' : 'bg-surface'}`}
        >
          <Icon size={18} color={colour('press')} />
          <Text kind={on ? 'strong' : 'body'} tone="press">
            {text}
          </Text>
        </Pressable>
      </Link>
    );
  });
  if (wide)
    return (
      <View role="navigation" aria-label={label} className="flex-row flex-wrap gap-2">
        {row}
      </View>
    );
  return (
    <ScrollView
      horizontal
      showsHorizontalScrollIndicator={false}
      role="navigation"
      aria-label={label}
      className="grow-0"
      contentContainerClassName="gap-2"
    >
      {row}
    </ScrollView>
  );
}
