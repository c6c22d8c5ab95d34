/** List and detail: side by side on a wide screen, one after the other on a phone. */
import type { ReactNode } from 'react';
import { View } from 'react-native';
import { useWide } from './wide';

interface Props {
  list: ReactNode;
  detail: ReactNode;
  /** On a phone: show the detail instead of the list. */
  inDetail: boolean;
  /** Ways on from here; on a wide screen above the detail, on a phone the list has them itself. */
  tools?: ReactNode;
}

export function Split({ list, detail, inDetail, tools }: Props) {
  const wide = useWide();
  if (!wide) return <View className="flex-1">{inDetail ? detail : list}</View>;
  return (
    <View className="flex-1 flex-row">
      <View className="w-[352px] border-r border-line">{list}</View>
      <View className="flex-1">
        {tools && <View className="border-b border-line px-4 py-2">{tools}</View>}
        {detail}
      </View>
    </View>
  );
}
