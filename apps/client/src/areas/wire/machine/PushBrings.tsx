/** Before a push: which ports would be set otherwise than they say now, and the light that would come or go with that. */
import { View } from 'react-native';
import { usePushForecast } from '@/data/diagnosis';
import { KnownMark, Text, count } from '@/ui';

export function PushBrings({ machineIds }: { machineIds: readonly string[] }) {
  const told = usePushForecast(machineIds) ?? [];
  if (told.length === 0) return null;
  return (
    <View role="list" aria-label="What a push would bring" className="gap-2">
      {told.map(({ name, was, becomes, light, says, lamps }) => (
        <View
          key={name}
          role="listitem"
          className={`gap-1 border-l-4 pl-3 ${light === 'goes dark' ? 'border-fault' : 'border-line'}`}
        >
          <Text tone={light === 'goes dark' ? 'fault' : 'text'}>
            {name}: {was === becomes ? `${was}, merged otherwise` : `${was} → ${becomes}`}
            {says !== '' && `; ${says}`}
            {lamps > 0 && `, and ${count(lamps, 'lamp')} with it`}
          </Text>
          <KnownMark known={light === 'not known' ? 'not known' : 'worked out'} of={`push to ${name}`} />
        </View>
      ))}
    </View>
  );
}
