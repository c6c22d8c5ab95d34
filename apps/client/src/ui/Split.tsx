/** List and detail: side by side on a wide screen, one after the other on a phone. */
import type { ReactNode } from 'react';
import { View } from 'react-native';
import { useWide } from './wide';

interface Props {
  /** Nothing where the detail has the screen to itself */
  list: ReactNode;
  detail: ReactNode;
  /** On a phone: show the detail instead of the list. */
  inDetail: boolean;
  /** Ways on from here; on a wide screen above the detail, on a phone the list has them itself. */
  tools?: ReactNode;
}

/** The detail keeps its place in the tree, so that what it holds lives on when a list joins it. */
export function Split({ list, detail, inDetail, tools }: Props) {
  const wide = useWide();
  return (
    <View className="flex-1 flex-row">
      {list && (wide || !inDetail) && (
        <View className={wide ? 'w-[352px] border-r border-line' : 'flex-1'}>{list}</View>
      )}
      {(wide || inDetail) && (
        <View className="flex-1">
          {wide && list && tools && <View className="border-b border-line px-4 py-2">{tools}</View>}
          {detail}
        </View>
      )}
    </View>
  );
}
