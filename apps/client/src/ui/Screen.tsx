/** A screen: its sentence first, then what it is about; acts stand below, under the thumb. */
import { Children, type ReactNode } from 'react';
import { ScrollView, View } from 'react-native';
import { useShort } from './wide';

interface Props {
  sentence: ReactNode;
  children: ReactNode;
  /** Stays at the foot of the screen. */
  acts?: ReactNode;
  /** Stands above the acts and stays in sight too: what is asked right now. */
  foot?: ReactNode;
  /** The content scrolls by itself (a list, a field). */
  fixed?: boolean;
  /** The content is a table or picture and uses whatever width there is; text and forms keep to a readable one. */
  across?: boolean;
}

const READABLE = 'w-full max-w-[880px]';

/** A list on a phone that lies on its side: what belongs to it stands to its left, so that rows are in sight. */
function Lying({ sentence, children, acts, foot }: Props) {
  const parts = Children.toArray(children);
  return (
    <View className="flex-1 flex-row bg-ground">
      <View className="w-[360px] border-r border-line">
        <ScrollView contentContainerClassName="pb-3">
          <View className="px-4 pb-2 pt-3">{sentence}</View>
          {parts.slice(0, -1)}
          {foot && <View className="gap-2 px-4 py-2">{foot}</View>}
          {acts && <View className="flex-row flex-wrap gap-2 px-4 py-2">{acts}</View>}
        </ScrollView>
      </View>
      <View className="flex-1">{parts.at(-1)}</View>
    </View>
  );
}

export function Screen(props: Props) {
  const { sentence, children, acts, foot, fixed = false, across = false } = props;
  const short = useShort();
  if (fixed && short) return <Lying {...props} />;
  return (
    <View className="flex-1 bg-ground">
      {fixed ? (
        <View className="flex-1">
          <View className="px-4 pb-2 pt-3">{sentence}</View>
          {children}
        </View>
      ) : (
        <ScrollView className="flex-1" contentContainerClassName={`gap-4 px-4 pb-6 pt-3 ${across ? '' : READABLE}`}>
          {sentence}
          {children}
        </ScrollView>
      )}
      {foot && (
        <ScrollView
          className="max-h-[50%] grow-0 border-t border-line bg-surface"
          contentContainerClassName={`gap-2 px-4 py-3 ${READABLE}`}
        >
          {foot}
        </ScrollView>
      )}
      {acts && (
        <View className="border-t border-line bg-surface px-4 py-2">
          <View className={`flex-row gap-2 ${READABLE}`}>{acts}</View>
        </View>
      )}
    </View>
  );
}
