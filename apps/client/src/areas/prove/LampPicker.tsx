/** Choosing lamps for a walk: all of a place, or one by one. */
import Check from 'lucide-react-native/icons/check';
import { useMemo } from 'react';
import { FlatList, Pressable, View } from 'react-native';
import { formatAddress } from '@taxiarch/core/base/address';
import { matchesWords } from '@taxiarch/core/network/jump';
import type { Lamp } from '@taxiarch/core/show/records';
import { useSelection, walkSelection } from '@/data/selection';
import { placeFilter, usePreference, useListChoice } from '@/data/preferences';
import { useShow } from '@/data/show';
import { Button, Field, ListKeys, Screen, Sentence, Text, count, useColour } from '@/ui';

function PickRow({ lamp, on }: { lamp: Lamp; on: boolean }) {
  const colour = useColour();
  return (
    <Pressable
      role="checkbox"
      aria-checked={on}
      aria-label={`${lamp.number} ${lamp.name}`}
      onPress={() => walkSelection.toggle(lamp.id)}
      className={`min-h-12 flex-row items-center gap-3 border-b border-line px-4 ${on ? 'bg-raised' : ''}`}
    >
      <View
        className={`h-6 w-6 items-center justify-center rounded border ${on ? 'border-press bg-press' : 'border-line'}`}
      >
        {on && <Check size={18} color={colour('onpress')} />}
      </View>
      <Text kind="mono" className="w-12">
        {lamp.number}
      </Text>
      <Text numberOfLines={1} className="flex-1">
        {lamp.name}
      </Text>
      <Text kind="monoSmall">{formatAddress(lamp)}</Text>
    </Pressable>
  );
}

export function LampPicker({ onBegin }: { onBegin: () => void }) {
  const { patch } = useShow();
  const [query, setQuery] = useListChoice('lamps to prove search', '');
  const place = usePreference(placeFilter);
  const chosen = useSelection(walkSelection);
  const chosenSet = useMemo(() => new Set(chosen), [chosen]);
  const lamps = useMemo(
    () =>
      [...patch.all()]
        .map(({ lamp }) => lamp)
        .filter(
          (lamp) =>
            (place === '' || lamp.placeId === place) &&
            (query === '' || matchesWords(`${lamp.number} ${lamp.name}`, query)),
        )
        .sort((a, b) => a.number - b.number),
    [patch, place, query],
  );
  return (
    <Screen
      fixed
      sentence={
        <Sentence>
          {chosen.length === 0 ? 'Choose the lamps to walk through.' : `${count(chosen.length, 'lamp')} chosen.`}
        </Sentence>
      }
      acts={
        <>
          <Button
            label={`Choose ${lamps.length} shown`}
            disabled={lamps.length === 0}
            onPress={() => walkSelection.set([...chosen, ...lamps.map(({ id }) => id)])}
          />
          <Button label="None" disabled={chosen.length === 0} onPress={() => walkSelection.set([])} />
          <Button label="Walk" look="main" grow disabled={chosen.length === 0} onPress={onBegin} />
        </>
      }
    >
      <View className="gap-2 px-4 pb-2">
        <Field
          label="Search by number or name"
          hideLabel
          placeholder="Search by number or name"
          value={query}
          onChange={setQuery}
        />
      </View>
      <ListKeys
        ids={() => lamps.map(({ id }) => id)}
        chosen={chosen}
        onChoose={(ids) => walkSelection.set(ids)}
        onEnd={() => walkSelection.set([])}
      >
        <FlatList
          data={lamps}
          keyExtractor={({ id }) => id}
          renderItem={({ item }) => (
            <div data-row={item.id}>
              <PickRow lamp={item} on={chosenSet.has(item.id)} />
            </div>
          )}
          extraData={chosenSet}
          initialNumToRender={16}
          ListEmptyComponent={
            <Text kind="soft" className="px-4 py-3">
              No lamp fits.
            </Text>
          }
        />
      </ListKeys>
    </Screen>
  );
}
