/** Mend all that is certain: what packets can mend, in one push, after a look at what it would bring. */
import { useState } from 'react';
import { View } from 'react-native';
import type { Trouble } from '@taxiarch/core/known';
import { PushBrings } from '@/areas/wire/machine/PushBrings';
import { PushButton, PushOutcome, usePush } from '@/areas/wire/machine/PushPanel';
import { Button, Section, Text, count } from '@/ui';

export function MendAll({ troubles }: { troubles: readonly Trouble[] }) {
  const push = usePush();
  const [looking, setLooking] = useState(false);
  const certain = troubles.filter(({ sure, act }) => sure === 'certain' && act.kind === 'push');
  const machineIds = [...new Set(certain.flatMap(({ act }) => (act.kind === 'push' ? [act.machineId] : [])))];
  if (certain.length < 2 && push.results.length === 0) return null;
  return (
    <View className="gap-2">
      {!looking && (
        <View className="flex-row">
          <Button label={`Mend all that is certain (${certain.length})`} look="main" onPress={() => setLooking(true)} />
        </View>
      )}
      {looking && (
        <View role="region" aria-label="Mend all that is certain" className="gap-3 rounded border border-line p-3">
          <Section title={`${count(machineIds.length, 'node')} would be set as planned`}>
            {certain.map(({ says, repair }) => (
              <View key={says} className="gap-1">
                <Text kind="strong">{says}</Text>
                <Text kind="small">{repair}</Text>
              </View>
            ))}
            {push.results.length === 0 && <PushBrings machineIds={machineIds} />}
          </Section>
          <View className="flex-row gap-2">
            <Button label="Leave it" grow onPress={() => setLooking(false)} />
            <PushButton push={push} machineIds={machineIds} label={`Push to ${count(machineIds.length, 'node')}`} />
          </View>
          <PushOutcome push={push} />
        </View>
      )}
    </View>
  );
}
