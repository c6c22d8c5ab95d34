/** What would stand here, and the first act. */
import type { ReactNode } from 'react';
import { View } from 'react-native';
import { Text } from './Text';

export function Empty({ children }: { children: ReactNode }) {
  return (
    <View className="flex-1 items-center justify-center bg-ground p-8">
      <Text kind="soft" role="heading" aria-level={1} className="max-w-[360px] text-center">
        {children}
      </Text>
    </View>
  );
}
