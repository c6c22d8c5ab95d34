/** What would stand here, and the first act. */
import { useRouter, type Href } from 'expo-router';
import type { ReactNode } from 'react';
import { View } from 'react-native';
import { Button } from './Button';
import { PageShape } from './PageShape';
import { Text } from './Text';

interface Props {
  children: ReactNode;
  /** The way on from here */
  act?: { readonly label: string; readonly href: Href };
}

export function Empty({ children, act }: Props) {
  const router = useRouter();
  return (
    <View className="flex-1 items-center justify-center gap-4 bg-ground p-8">
      <Text kind="soft" role="heading" aria-level={1} className="max-w-[360px] text-center">
        {children}
      </Text>
      {act && <Button label={act.label} onPress={() => router.replace(act.href)} />}
    </View>
  );
}

interface MissingProps {
  /** The show has come; until then nobody knows whether the thing is in it. */
  loaded: boolean;
  /** “This lamp” */
  what: string;
  list: Href;
  /** “All lamps” */
  act: string;
}

/** The page of something that is not in the show, with the way to what is. */
export function Missing({ loaded, what, list, act }: MissingProps) {
  if (!loaded) return <PageShape />;
  return (
    <Empty act={{ label: act, href: list }}>{what} isn’t in the show. It was deleted, or the address is wrong.</Empty>
  );
}
