/** List and detail: side by side on a wide screen, one after the other on a phone. */
import type { ReactNode } from 'react';
import { View } from 'react-native';
import { useWide } from './wide';

interface Props {
  list: ReactNode;
  detail: ReactNode;
  /** On a phone: show the detail instead of the list. */
  inDetail: boolean;
}

export function Split({ list, detail, inDetail }: Props) {
  const wide = useWide();
  if (!wide) return <View className="flex-1">{inDetail ? detail : list}</View>;
  return (
    <View className="flex-1 flex-row">
      <View className="w-[352px] border-r border-line">{list}</View>
      <View className="flex-1">{detail}</View>
    </View>
  );
}
