/** Says that a part of the screen has not come yet; it comes by itself. */
import { View } from 'react-native';
import { useLate } from '@/data/parts';
import { Text } from '../Text';

export function OnItsWay() {
  if (!useLate()) return null;
  return (
    <View role="status" aria-label="On its way" className="border-b border-line bg-raised px-4 py-2">
      <Text>This screen has not come from the server yet. It is asked for again until it does.</Text>
    </View>
  );
}
