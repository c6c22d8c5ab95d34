/** A row of a list that leads somewhere: at least 56 px high, hairline below. */
import { Link, type Href } from 'expo-router';
import type { ReactNode } from 'react';
import { Pressable } from 'react-native';

interface Props {
  href: Href;
  chosen?: boolean;
  children: ReactNode;
}

export function Row({ href, chosen = false, children }: Props) {
  return (
    <Link href={href} asChild>
      <Pressable
        className={`min-h-14 flex-row items-center gap-3 border-b border-line px-4 py-1 active:bg-raised ${chosen ? 'bg-raised' : ''}`}
      >
        {children}
      </Pressable>
    </Link>
  );
}
