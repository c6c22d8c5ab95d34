/** The sentence that a screen opens with. */
import { Link, type Href } from 'expo-router';
import type { ReactNode } from 'react';
import { Text } from './Text';

export function Sentence({ children }: { children: ReactNode }) {
  return (
    <Text kind="lead" role="heading" aria-level={1}>
      {children}
    </Text>
  );
}

/** A number in a sentence, leading to what it counts. */
export function SentenceLink({ href, children }: { href: Href; children: ReactNode }) {
  return (
    <Link href={href} asChild>
      <Text kind="lead" tone="press" className="underline">
        {children}
      </Text>
    </Link>
  );
}
