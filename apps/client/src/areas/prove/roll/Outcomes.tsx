/** How setting lamps came out, each by itself: what was not done stands first. */
import { View } from 'react-native';
import type { LampOutcome, RollRow } from '@taxiarch/core/truth/roll';
import { Button, Section, StateWord, Text } from '@/ui';
import { OUTCOME_MARKS } from './words';

interface Props {
  readonly results: readonly LampOutcome[];
  readonly rows: readonly RollRow[];
  readonly onClose: () => void;
}

export function Outcomes({ results, rows, onClose }: Props) {
  const named = new Map(rows.map((row) => [row.uid, row.number > 0 ? `${row.number} ${row.name}` : row.name]));
  const done = results.filter(({ state }) => state === 'done').length;
  const sorted = [...results].sort((a, b) => Number(a.state === 'done') - Number(b.state === 'done'));
  return (
    <Section title={`${done} of ${results.length} done`}>
      <View role="list" aria-label="How it came out" className="max-h-60 overflow-scroll">
        {sorted.map(({ uid, state, says }) => (
          <View key={uid} role="listitem" className="min-h-10 flex-row items-center gap-3 border-b border-line py-1">
            <StateWord state={OUTCOME_MARKS[state]} />
            <Text className="flex-1">
              {named.get(uid) ?? uid}: {says}
            </Text>
          </View>
        ))}
      </View>
      <Button label="Close" onPress={onClose} />
    </Section>
  );
}
