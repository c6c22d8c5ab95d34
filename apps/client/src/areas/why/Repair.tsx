/** What mends a cause: one tap where a packet can, words where a hand must. */
import { View } from 'react-native';
import type { RepairAct } from '@taxiarch/core/truth/known';
import { PushBrings } from '@/areas/wire/machine/PushBrings';
import { PushButton, PushOutcome, usePush } from '@/areas/wire/machine/PushPanel';
import { useShow } from '@/data/show';
import { Text } from '@/ui';

export function Repair({ says, act }: { says: string; act: RepairAct }) {
  const push = usePush();
  const { records } = useShow();
  const machine = act.kind === 'push' ? records.machine.find(({ id }) => id === act.machineId) : undefined;
  return (
    <View className="gap-2">
      <Text>{says}</Text>
      {machine && (
        <>
          <View className="flex-row">
            <PushButton push={push} machineIds={[machine.id]} label={`Push to ${machine.name}`} />
          </View>
          {push.results.length === 0 && <PushBrings machineIds={[machine.id]} />}
          <PushOutcome push={push} />
        </>
      )}
    </View>
  );
}
