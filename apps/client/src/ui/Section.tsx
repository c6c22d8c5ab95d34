/** A part of a screen under its heading, set off by a hairline. */
import type { ReactNode } from 'react';
import { View } from 'react-native';
import { Text } from './Text';

export function Section({ title, children }: { title: string; children: ReactNode }) {
  return (
    <View className="gap-2 border-t border-line pt-3">
      <Text kind="label" role="heading" aria-level={2}>
        {title}
      </Text>
      {children}
    </View>
  );
}
