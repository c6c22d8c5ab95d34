/** All lamps, by universe and channel or by place, with search. */
import { usePathname, useRouter } from 'expo-router';
import { useMemo } from 'react';
import { FlatList, View } from 'react-native';
import { useSelectedThere } from '@/data/exchange';
import { rigSelection, useSelection } from '@/data/selection';
import { placeFilter, useListChoice, usePreference } from '@/data/preferences';
import { useShow } from '@/data/show';
import { Button, Choice, Field, ListKeys, Screen, Text, useWide } from '@/ui';
import { Draggable } from '@/ui/drag';
import { SelectedThere } from './exchange/SelectedThere';
import { LampRow } from './LampRow';
import { RigSentence } from './RigSentence';
import { RigTools } from './RigTools';
import { itemsOf, type Order } from './lampItems';

const ORDERS = [
  { value: 'universe', label: 'By universe' },
  { value: 'place', label: 'By place' },
] as const;
/** Heads and lamps are equally high, so that a long list knows where each is. */
const ROW_HEIGHT = 56;

/** By lamp number, the programs in which it is selected. */
function useThere(): ReadonlyMap<number, string> {
  const programs = useSelectedThere();
  return useMemo(() => {
    const by = new Map<number, string>();
    for (const { name, selected } of programs)
      for (const number of selected) by.set(number, by.has(number) ? `${by.get(number)}, ${name}` : name);
    return by;
  }, [programs]);
}

export function LampList() {
  const show = useShow();
  const router = useRouter();
  const here = usePathname();
  const wide = useWide();
  const [order, setOrder] = useListChoice<Order>('lamps order', 'universe');
  const [query, setQuery] = useListChoice('lamps search', '');
  const [picking, setPicking] = useListChoice<'yes' | ''>('lamps choosing', '');
  const chosen = useSelection(rigSelection);
  const chosenSet = useMemo(() => new Set(chosen), [chosen]);
  const there = useThere();
  const place = usePreference(placeFilter);
  const items = useMemo(() => itemsOf(show, order, query, place), [show, order, query, place]);
  const shown = () => items.flatMap((item) => (item.kind === 'lamp' && !item.lamp.run ? item.lamp.lamp.id : []));
  const endPicking = () => {
    setPicking('');
    rigSelection.set([]);
  };
  return (
    <Screen
      fixed
      sentence={<RigSentence {...show} />}
      acts={
        picking ? (
          <>
            <Button label="Done" onPress={endPicking} />
            <Button label="All" onPress={() => rigSelection.set([...chosen, ...shown()])} />
            <Button
              label={`Change ${chosen.length}`}
              look="main"
              grow
              disabled={chosen.length === 0}
              onPress={() => router.navigate('/rig/change')}
            />
          </>
        ) : (
          <>
            <Button label="Choose lamps" grow onPress={() => setPicking('yes')} />
            <Button label="Add lamps" look="main" grow onPress={() => router.navigate('/rig/add')} />
          </>
        )
      }
    >
      <View className="gap-2 px-4 pb-2">
        {!wide && <RigTools />}
        <Field
          label="Search lamps"
          hideLabel
          placeholder="Search: number, name, type, group, 3/47"
          value={query}
          onChange={setQuery}
        />
        <Choice label="Order" options={ORDERS} value={order} onChange={setOrder} />
        <SelectedThere />
      </View>
      <ListKeys
        ids={shown}
        chosen={chosen}
        onChoose={(ids) => rigSelection.set(ids)}
        onBegin={() => setPicking('yes')}
        onEnd={endPicking}
      >
        <FlatList
          data={items}
          keyExtractor={(item) => (item.kind === 'head' ? item.title : `${item.under} ${item.lamp.lamp.id}`)}
          initialNumToRender={16}
          windowSize={5}
          maxToRenderPerBatch={5}
          updateCellsBatchingPeriod={16}
          getItemLayout={(_, index) => ({ length: ROW_HEIGHT, offset: ROW_HEIGHT * index, index })}
          renderItem={({ item }) =>
            item.kind === 'head' ? (
              <View className="h-14 flex-row items-end justify-between border-b border-line px-4 pb-1">
                <Text kind="label" role="heading" aria-level={2} className="flex-1" numberOfLines={1}>
                  {item.title}
                </Text>
                <Text kind="small">{item.note}</Text>
              </View>
            ) : (
              <Draggable
                what={item.lamp.run ? undefined : item.lamp.lamp.id}
                style={{ height: ROW_HEIGHT }}
                row={item.lamp.run ? undefined : item.lamp.lamp.id}
              >
                <LampRow
                  patched={item.lamp}
                  here={here.endsWith(`/${item.lamp.lamp.id}`)}
                  picking={picking === 'yes'}
                  on={chosenSet.has(item.lamp.lamp.id)}
                  there={there.get(item.lamp.lamp.number) ?? ''}
                />
              </Draggable>
            )
          }
          ListEmptyComponent={
            <Text kind="soft" className="px-4 py-3">
              {query || place
                ? `No lamp fits ${query ? `“${query}”` : 'here'}${place ? ', in this place' : ''}.`
                : 'The lamps of the show will stand here, with their addresses.'}
            </Text>
          }
        />
      </ListKeys>
    </Screen>
  );
}
