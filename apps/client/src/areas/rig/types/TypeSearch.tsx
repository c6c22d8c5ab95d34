/** Finding a fixture type by words in any order, kind, maker and footprint. */
import { useMemo, useState } from 'react';
import { Pressable, View } from 'react-native';
import { footprintOf } from '@taxiarch/core/rig/fixture';
import { FIXTURE_KINDS, type FixtureKind, type FixtureType } from '@taxiarch/core/show/records';
import { Field, Pick, Text } from '@/ui';
import { wholeFrom } from '@/data/numbers';
import { findTypes, useRecentTypes, useTypes, type TypeFilter } from './choose';
import { kindWord } from './words';

const NO_FILTER: TypeFilter = { query: '', kind: '', maker: '', footprint: undefined };

export function TypeSearch({ onChoose }: { onChoose: (type: FixtureType) => void }) {
  const types = useTypes();
  const recent = useRecentTypes();
  const [filter, setFilter] = useState(NO_FILTER);
  const [footprint, setFootprint] = useState('');
  const makers = useMemo(() => [...new Set(types.map(({ maker }) => maker))].sort(), [types]);
  const found = useMemo(() => findTypes(types, filter, recent), [types, filter, recent]);
  return (
    <View className="gap-3">
      <Field
        label="Search types"
        hideLabel
        placeholder="Search: maker, name, kind, mode"
        value={filter.query}
        onChange={(query) => setFilter({ ...filter, query })}
      />
      <View className="flex-row gap-2">
        <View className="flex-1">
          <Pick
            label="Kind"
            options={[
              { value: '', label: 'Any' },
              ...FIXTURE_KINDS.map((kind) => ({ value: kind, label: kindWord(kind) })),
            ]}
            value={filter.kind}
            onChange={(kind) => setFilter({ ...filter, kind: kind as FixtureKind | '' })}
          />
        </View>
        <View className="flex-1">
          <Pick
            label="Maker"
            options={[{ value: '', label: 'Any' }, ...makers.map((maker) => ({ value: maker, label: maker }))]}
            value={filter.maker}
            onChange={(maker) => setFilter({ ...filter, maker })}
          />
        </View>
        <View className="w-24">
          <Field
            label="Footprint"
            mono
            inputMode="numeric"
            value={footprint}
            onChange={(text) => {
              setFootprint(text);
              setFilter({ ...filter, footprint: wholeFrom(text) });
            }}
          />
        </View>
      </View>
      <View role="list" aria-label="Types">
        {found.map((type) => (
          <View key={type.id} role="listitem">
            <Pressable
              role="button"
              onPress={() => onChoose(type)}
              className="min-h-14 justify-center border-b border-line py-2 active:bg-raised"
            >
              <View className="flex-row items-center gap-2">
                <Text className="flex-1" numberOfLines={1}>
                  {type.maker} {type.name}
                </Text>
                <Text kind="small">{kindWord(type.kind)}</Text>
              </View>
              <Text kind="small" numberOfLines={1}>
                {type.modes.map((mode) => `${mode.name} ${footprintOf(mode)}`).join(' · ')}
              </Text>
            </Pressable>
          </View>
        ))}
        {found.length === 0 && <Text kind="soft">No type fits. Take a filter away, or make one under Types.</Text>}
      </View>
    </View>
  );
}
