/** The shape of a page whose content is on its way: a headline and rows, so that nothing jumps when it comes. */
import { View } from 'react-native';

const ROWS = ['w-3/4', 'w-1/2', 'w-2/3', 'w-3/5', 'w-1/2'];

export function PageShape() {
  return (
    <View role="status" aria-label="Loading" className="flex-1 gap-6 bg-ground p-4">
      <View className="h-7 w-4/5 rounded bg-raised" />
      {ROWS.map((width, i) => (
        <View key={i} className="gap-2">
          <View className={`h-4 rounded bg-raised ${width}`} />
          <View className="h-3 w-1/3 rounded bg-surface" />
        </View>
      ))}
    </View>
  );
}
