/** Mend all that is certain: what packets can mend, in one push, after a look at what it would bring. */
import { useState } from 'react';
import { View } from 'react-native';
import type { Trouble } from '@taxiarch/core/truth/known';
import type { MachineEntry } from '@taxiarch/core/network/node';
import { PushBrings } from '@/areas/wire/machine/PushBrings';
import { useMachines } from '@/data/machines';
import { PushButton, PushOutcome, usePush } from '@/areas/wire/machine/PushPanel';
import { Button, Text, count } from '@/ui';

interface Item {
  readonly says: string;
  readonly repair: string;
  readonly machineId: string;
}

/** Certain causes that a push repairs, and nodes that report other settings than planned and take packets. */
function itemsOf(troubles: readonly Trouble[], entries: readonly MachineEntry[]): readonly Item[] {
  const certain = troubles.flatMap(({ says, repair, sure, act }) =>
    sure === 'certain' && act.kind === 'push' ? [{ says, repair, machineId: act.machineId }] : [],
  );
  const named = new Set(certain.map(({ machineId }) => machineId));
  const drifted = entries.flatMap(({ plan, heard, state, drift }) => {
    const settable = drift.filter(({ way }) => way !== 'panel').length;
    if (state !== 'drifted' || !plan || plan.locked || !heard?.node || heard.gone) return [];
    if (settable === 0 || named.has(plan.id)) return [];
    const differ = `${count(settable, 'setting')} ${settable === 1 ? 'differs' : 'differ'}`;
    return [{ says: `${plan.name}: ${differ} from the plan.`, repair: `Push to ${plan.name}.`, machineId: plan.id }];
  });
  return [...certain, ...drifted];
}

/** What is mended is what was looked at; its outcome stays to be read when all of it is mended. */
export function MendAll({ troubles }: { troubles: readonly Trouble[] }) {
  const [chosen, setChosen] = useState<readonly Item[]>([]);
  const certain = itemsOf(troubles, useMachines());
  if (chosen.length === 0)
    return certain.length < 2 ? null : (
      <View className="flex-row">
        <Button label={`Mend all that is certain (${certain.length})`} look="main" onPress={() => setChosen(certain)} />
      </View>
    );
  return <Chosen items={chosen} onClose={() => setChosen([])} />;
}

function Chosen({ items, onClose }: { items: readonly Item[]; onClose: () => void }) {
  const push = usePush();
  const machineIds = [...new Set(items.map(({ machineId }) => machineId))];
  const pushed = push.results.length > 0;
  return (
    <View role="region" aria-label="Mend all that is certain" className="gap-3 rounded border border-line p-3">
      <Text kind="label">
        {count(machineIds.length, 'node')} {pushed ? 'pushed to' : 'would be set as planned'}
      </Text>
      {items.map(({ says, repair }) => (
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
