/** What happened in the last hour: the newest first. */
import { View } from 'react-native';
import { useHappened } from '@/data/diagnosis';
import { Section, Text, clockTime } from '@/ui';

const MOST = 30;

export function Happened() {
  const happened = useHappened();
  if (!happened) return null;
  return (
    <Section title="What happened in the last hour">
      {happened.length === 0 && (
        <Text kind="soft">Nothing: no sender was lost, no box went, and Taxiarch stayed as it was.</Text>
      )}
      <View role="list" aria-label="What happened">
        {happened.slice(0, MOST).map(({ at, says, timeCode }, i) => (
          <View key={`${at} ${i}`} role="listitem" className="flex-row gap-3 border-b border-line py-2">
            <Text kind="monoSmall">{clockTime(at)}</Text>
            <View className="flex-1">
              <Text>{says}</Text>
              {timeCode !== undefined && <Text kind="monoSmall">time code {timeCode}</Text>}
            </View>
          </View>
        ))}
      </View>
      {happened.length > MOST && <Text kind="small">and {happened.length - MOST} more</Text>}
    </Section>
  );
}
