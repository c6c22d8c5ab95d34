/** Before a take: which ports would not follow, and the way out; told by the model that the stand-in nodes run. */
import { View } from 'react-native';
import { forecastTake } from '@taxiarch/core/simulate';
import { useLive, useSettings } from '@/data/live';
import { useMachines } from '@/data/machines';
import { useShow } from '@/data/show';
import { KnownMark, Text } from '@/ui';

export function Forecast({ universe }: { universe: number }) {
  const { records, patch } = useShow();
  const live = useLive();
  const entries = useMachines();
  const settings = useSettings().data;
  if (!live || !settings) return null;
  const told = forecastTake(records, patch, universe, settings.outputPriority, live.universes, entries).filter(
    ({ says }) => says !== '',
  );
  if (told.length === 0) return null;
  return (
    <View role="list" aria-label="What a take would bring" className="gap-2">
      {told.map(({ name, follows, says, mend }) => (
        <View key={name} role="listitem" className="gap-1 border-l-4 border-warn pl-3">
          <Text tone={follows === false ? 'fault' : 'text'}>
            {name} {follows === false ? 'would not follow: it ' : ''}
            {follows === false ? says.replace(/^it /, '') : says}
          </Text>
          {mend !== '' && <Text kind="small">{mend}</Text>}
          <KnownMark known={follows === undefined ? 'not known' : 'worked out'} of={name} />
        </View>
      ))}
    </View>
  );
}
