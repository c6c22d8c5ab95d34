/** Lamps that are selected in other programs: to be marked here, or walked. */
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import type { CitpPeerReport } from '@taxiarch/core/whole/contract';
import { useSelectedThere } from '@/data/exchange';
import { rigSelection, walkSelection } from '@/data/selection';
import { useShow } from '@/data/show';
import { Button, Text } from '@/ui';

const FIRST = 8;

export function SelectedThere() {
  const there = useSelectedThere();
  if (there.length === 0) return null;
  return (
    <View role="list" aria-label="Selected in other programs" className="gap-2">
      {there.map((one) => (
        <Selected key={one.id} one={one} />
      ))}
    </View>
  );
}

function Selected({ one: { name, selected } }: { one: CitpPeerReport }) {
  const router = useRouter();
  const { records } = useShow();
  const numbers = new Set(selected);
  const ids = records.lamp.filter(({ number }) => numbers.has(number)).map(({ id }) => id);
  const unknown = selected.length - ids.length;
  const named =
    selected.slice(0, FIRST).join(', ') + (selected.length > FIRST ? ` and ${selected.length - FIRST} more` : '');
  return (
    <View role="listitem" aria-label={`Selected in ${name}`} className="gap-2 rounded bg-raised p-3">
      <Text>
        {name} has selected {named}.{unknown > 0 && ` ${unknown} of them are not in the show.`}
      </Text>
      <View className="flex-row gap-2">
        <Button label="Choose them here" grow disabled={ids.length === 0} onPress={() => rigSelection.set(ids)} />
        <Button
          label="Walk them"
          grow
          disabled={ids.length === 0}
          onPress={() => {
            walkSelection.set(ids);
            router.navigate('/prove');
          }}
        />
      </View>
    </View>
  );
}
