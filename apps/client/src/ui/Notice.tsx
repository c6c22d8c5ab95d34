/** A sentence that asks for attention, with what can be done about it on the same card. */
import type { ReactNode } from 'react';
import { View } from 'react-native';
import { StateWord, type StateName } from './StateWord';
import { Text } from './Text';

export function Notice({ state, children, act }: { state: StateName; children: ReactNode; act?: ReactNode }) {
  return (
    <View role="alert" className="gap-2 rounded border border-line bg-surface p-3">
      <StateWord state={state} />
      <Text>{children}</Text>
      {act}
    </View>
  );
}
