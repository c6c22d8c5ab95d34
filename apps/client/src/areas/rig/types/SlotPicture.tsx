/** What each slot of a mode carries, as small boxes in order, each address block by itself. */
import { View } from 'react-native';
import { attributeShort, blocksOf, layoutOf } from '@taxiarch/core/rig/fixture';
import type { FixtureMode } from '@taxiarch/core/show/records';
import { Text, count } from '@/ui';

/** Slots drawn of one block; the rest are counted. */
const MOST = 128;

export function SlotPicture({ mode }: { mode: FixtureMode }) {
  const blocks = blocksOf(mode);
  return (
    <View className="gap-2">
      {blocks.map((length, block) => (
        <View key={block} className="gap-1">
          {blocks.length > 1 && <Text kind="small">{`Block ${block + 1}, ${count(length, 'channel')}`}</Text>}
          <View className="flex-row flex-wrap gap-1" role="img" aria-label={count(length, 'slot')}>
            {layoutOf(mode, block + 1)
              .slice(0, MOST)
              .map((found, i) => (
                <View
                  key={i}
                  className={`h-10 w-11 items-center justify-center rounded-sm border border-line ${found ? 'bg-raised' : ''}`}
                >
                  <Text kind="monoSmall" style={{ fontSize: 13 }} tone={found ? 'text' : 'soft'} numberOfLines={1}>
                    {found ? (found[1] > 0 ? 'fine' : attributeShort(found[0].attribute) + (found[0].cell ?? '')) : '–'}
                  </Text>
                  <Text kind="monoSmall" style={{ fontSize: 11, lineHeight: 12 }}>
                    {i + 1}
                  </Text>
                </View>
              ))}
          </View>
          {length > MOST && <Text kind="small">and {length - MOST} more.</Text>}
        </View>
      ))}
    </View>
  );
}
