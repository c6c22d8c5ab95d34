import { Slot } from 'expo-router';
import { View } from 'react-native';
import { ProveTools } from '@/areas/prove/ProveTools';

export default function ProveLayout() {
  return (
    <View className="flex-1">
      <View className="border-b border-line px-4 py-2">
        <ProveTools />
      </View>
      <Slot />
    </View>
  );
}
