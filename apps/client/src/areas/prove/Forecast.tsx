/** Before a take: which ports would not follow, and the way out; told by the model that the stand-in nodes run. */
import { View } from 'react-native';
import { useForecast } from '@/data/diagnosis';
import { useSettings } from '@/data/live';
import { KnownMark, Text } from '@/ui';

export function Forecast({ universe }: { universe: number }) {
  const told = useForecast(universe, useSettings().data?.outputPriority)?.filter(({ says }) => says !== '') ?? [];
  if (told.length === 0) return null;
  return (
    <View role="list" aria-label="What a take would bring" className="gap-2">
      {told.map(({ name, follows, says, mend }) => (
        <View key={name} role="listitem" className="gap-1 border-l-4 border-warn pl-3">
          <Text tone={follows === false ? 'fault' : 'text'}>
            {follows === false ? `Would not follow: ${name} ${says}` : `${name} ${says}`}
          </Text>
          {mend !== '' && <Text kind="small">{mend}</Text>}
          <KnownMark known={follows === null ? 'not known' : 'worked out'} of={name} />
        </View>
      ))}
    </View>
  );
}
