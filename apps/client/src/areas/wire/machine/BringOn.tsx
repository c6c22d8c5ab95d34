/** Bringing a machine on, step by step: what can be seen on the wire is seen, the rest is ticked off by a person. */
import { View } from 'react-native';
import { bringOnSteps, type MachineEntry } from '@taxiarch/core/network/node';
import { changed } from '@taxiarch/core/show/edit';
import type { Machine } from '@taxiarch/core/show/records';
import { propose } from '@/data/show';
import { Check, Section, StateWord, Text } from '@/ui';

export function BringOn({ entry }: { entry: MachineEntry & { plan: Machine } }) {
  const { plan } = entry;
  const steps = bringOnSteps(entry);
  const done = steps.filter((step) => step.done).length;
  const tick = (id: string, title: string, on: boolean) => {
    const ticks = on ? [...plan.ticks, id] : plan.ticks.filter((one) => one !== id);
    return propose(`${plan.name}: ${title.toLowerCase()} ${on ? 'ticked off' : 'open again'}`, [
      changed('machine', plan, { ...plan, ticks }),
    ]);
  };
  return (
    <Section title={`Bringing it on: ${done} of ${steps.length} steps`}>
      {steps.map(({ id, title, how, seen, done: fine }) =>
        seen === undefined ? (
          <View key={id}>
            <Check label={`${title}, by eye`} on={fine} onChange={(on) => void tick(id, title, on)} />
            {!fine && <Text kind="small">{how}</Text>}
          </View>
        ) : (
          <View key={id} className="min-h-12 justify-center">
            <View className="flex-row items-center gap-3">
              <Text className="flex-1">{title}</Text>
              <StateWord state={fine ? 'done' : 'look at'} />
            </View>
            {!fine && <Text kind="small">{how}</Text>}
          </View>
        ),
      )}
    </Section>
  );
}
