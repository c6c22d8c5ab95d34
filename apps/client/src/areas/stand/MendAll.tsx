/** Mend all that is certain: what packets can mend, in one push, after a look at what it would bring. */
import { useState } from 'react';
import { View } from 'react-native';
import type { Trouble } from '@taxiarch/core/known';
import { PushBrings } from '@/areas/wire/machine/PushBrings';
import { PushButton, PushOutcome, usePush } from '@/areas/wire/machine/PushPanel';
import { Button, Text, count } from '@/ui';

/** What is mended is what was looked at; its outcome stays to be read when all of it is mended. */
export function MendAll({ troubles }: { troubles: readonly Trouble[] }) {
  const [chosen, setChosen] = useState<readonly Trouble[]>([]);
  const certain = troubles.filter(({ sure, act }) => sure === 'certain' && act.kind === 'push');
  if (chosen.length === 0)
    return certain.length < 2 ? null : (
      <View className="flex-row">
        <Button label={`Mend all that is certain (${certain.length})`} look="main" onPress={() => setChosen(certain)} />
      </View>
    );
  return <Chosen troubles={chosen} onClose={() => setChosen([])} />;
}

function Chosen({ troubles, onClose }: { troubles: readonly Trouble[]; onClose: () => void }) {
  const push = usePush();
  const machineIds = [...new Set(troubles.flatMap(({ act }) => (act.kind === 'push' ? [act.machineId] : [])))];
  const pushed = push.results.length > 0;
  return (
    <View role="region" aria-label="Mend all that is certain" className="gap-3 rounded border border-line p-3">
      <Text kind="label">
        {count(machineIds.length, 'node')} {pushed ? 'pushed to' : 'would be set as planned'}
      </Text>
      {troubles.map(({ says, repair }) => (
        <View key={says} className="gap-1">
          <Text kind="strong">{says}</Text>
          <Text kind="small">{repair}</Text>
        </View>
      ))}
      {!pushed && <PushBrings machineIds={machineIds} />}
      <View className="flex-row gap-2">
        <Button label={pushed ? 'Close' : 'Leave it'} grow onPress={onClose} />
        {!pushed && (
          <PushButton push={push} machineIds={machineIds} label={`Push to ${count(machineIds.length, 'node')}`} />
        )}
      </View>
      <PushOutcome push={push} />
    </View>
  );
}
