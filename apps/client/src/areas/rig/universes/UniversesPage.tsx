/** All universes as strips of what is used, and where so many channels would fit. */
import { useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { FlatList, View } from 'react-native';
import { SLOTS, formatAddress, formatUniverses } from '@taxiarch/core/base/address';
import { Occupancy } from '@taxiarch/core/rig/patch';
import { useShow } from '@/data/show';
import { Button, Field, Row, Screen, Sentence, Text, count } from '@/ui';
import { UniverseStrip } from './UniverseStrip';
import { wholeFrom } from '@/data/numbers';

export function UniversesPage() {
  const router = useRouter();
  const { records, patch } = useShow();
  const [typed, setTyped] = useState('24');
  const wanted = wholeFrom(typed);
  const occupancy = useMemo(() => new Occupancy(patch), [patch]);
  const numbers = useMemo(
    () => [...new Set([...records.universe.map(({ number }) => number), ...patch.universes()])].sort((a, b) => a - b),
    [records.universe, patch],
  );
  const rows = useMemo(
    () =>
      numbers.map((number) => {
        const runs = occupancy.freeRuns(number);
        return {
          number,
          name: records.universe.find((one) => one.number === number)?.name,
          spans: patch.universe(number),
          free: runs.reduce((sum, { length }) => sum + length, 0),
          longest: runs.reduce((most, { length }) => Math.max(most, length), 0),
          fits: runs.find(({ length }) => wanted !== undefined && wanted > 0 && length >= wanted)?.channel,
        };
      }),
    [numbers, occupancy, patch, records.universe, wanted],
  );
  const first = rows.find(({ fits }) => fits !== undefined);
  return (
    <Screen
      fixed
      acts={
        <>
          <Button
            label="Change some universes"
            short="Change some"
            grow
            onPress={() => router.navigate(`/rig/universes/change?universes=${formatUniverses(numbers)}`)}
          />
          <Button label="Add universes" look="main" grow onPress={() => router.navigate('/rig/universes/add')} />
        </>
      }
      sentence={
        <Sentence>
          {wanted === undefined || wanted < 1 || wanted > SLOTS
            ? `${count(numbers.length, 'universe')}.`
            : first
              ? `${count(wanted, 'channel')} would fit at ${formatAddress({ universe: first.number, channel: first.fits! })}.`
              : `${count(wanted, 'channel')} ${wanted === 1 ? 'fits' : 'fit'} in no universe of the show.`}
        </Sentence>
      }
    >
      <View className="px-4 pb-2">
        <Field label="Where would so many channels fit?" mono inputMode="numeric" value={typed} onChange={setTyped} />
      </View>
      <FlatList
        data={rows}
        keyExtractor={({ number }) => String(number)}
        renderItem={({ item: { number, name, spans, free, longest, fits } }) => (
          <Row href={`/rig/universes/${number}`}>
            <View className="flex-1 gap-1">
              <View className="flex-row items-center gap-2">
                <Text kind="mono" className="w-8 font-medium">
                  {number}
                </Text>
                <Text className="flex-1" numberOfLines={1} tone={name === undefined ? 'fault' : undefined}>
                  {name ?? 'not in the show'}
                </Text>
                <Text kind="monoSmall">{fits === undefined ? `${free} free` : `fits at ${fits}`}</Text>
              </View>
              <UniverseStrip spans={spans} />
              <Text kind="small">
                {SLOTS - free} used, {free} free{longest === free ? '' : `, ${longest} of them together`}
              </Text>
            </View>
          </Row>
        )}
      />
    </Screen>
  );
}
