/** The sentence that a screen opens with. */
import type { ReactNode } from 'react';
import { Text } from './Text';

export function Sentence({ children }: { children: ReactNode }) {
  return (
    <Text kind="lead" role="heading" aria-level={1}>
      {children}
    </Text>
  );
}
