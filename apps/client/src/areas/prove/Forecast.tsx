/** Before a take or a route: which ports would not follow, and the way out; told by the model that the stand-in nodes run. */
import { View } from 'react-native';
import { useForecast } from '@/data/diagnosis';
import { useSettings } from '@/data/live';
import { KnownMark, Text } from '@/ui';

/** `priority`: at which sACN would be sent; else that of what is taken. */
export function Forecast({ universe, priority }: { universe: number; priority?: number }) {
  const usual = useSettings().data?.outputPriority;
  const told = useForecast(universe, priority ?? usual)?.filter(({ says }) => says !== '') ?? [];
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
