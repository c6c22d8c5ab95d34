/** Adding lamps: what, how many, where; all addresses are shown before anything is written. */
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { flowOf, viewOf } from '@taxiarch/core/truth/check';
import type { Plan } from '@taxiarch/core/show/edit';
import { footprintOf } from '@taxiarch/core/rig/fixture';
import type { Lamp } from '@taxiarch/core/show/records';
import { useShow } from '@/data/show';
import { PlanPreview } from '@/forms/PlanPreview';
import { useLeaveFor, Button, Field, Pick, Screen, Sentence, Text, count, useWide } from '@/ui';
import { lampsText, useAdding } from './adding';
import { PlaceChoice } from './PlaceChoice';
import { TypeSearch } from './types/TypeSearch';
import { useTypes } from './types/choose';

/** The universe of the first lamp that a plan adds. */
const firstUniverse = ({ changes }: Plan): number | undefined =>
  (changes.find(({ kind }) => kind === 'lamp')?.after as Lamp | undefined)?.universe;

export function AddLamps() {
  const router = useRouter();
  const leaveFor = useLeaveFor();
  const wide = useWide();
  const { records } = useShow();
  const types = useTypes();
  const adding = useAdding();
  const { form, set, type, mode, plan } = adding;
  const universe = plan.ok ? firstUniverse(plan.value) : undefined;

  const added = () => {
    adding.done();
    // What they lie on may not be sent by anybody yet, nor leave anywhere: that is next.
    const { senders, inputs, routed, carriers } = flowOf(viewOf(records));
    const goesOn = (of: number) => (senders.has(of) || inputs.has(of) || routed.has(of)) && carriers.has(of);
    leaveFor(universe === undefined || goesOn(universe) ? '/rig' : `/rig/universes/${universe}?view=way`);
  };
  return (
    <Screen
      sentence={
        <Sentence>
          {type && mode
            ? `${lampsText(adding)} of ${type.maker} ${type.name}, ${count(adding.channels, 'channel')}.`
            : 'Add lamps: choose a type first.'}
        </Sentence>
      }
    >
      {type && mode ? (
        <>
          <View className="flex-row items-end gap-2">
            <View className="flex-1">
              <Pick
                label="Mode"
                options={type.modes.map((one) => ({
                  value: one.name,
                  label: `${one.name}, ${count(footprintOf(one), 'channel')}`,
                }))}
                value={mode.name}
                onChange={(name) => set({ mode: name })}
              />
            </View>
            <Button label="Other type" onPress={() => set({ typeId: '', mode: '' })} />
          </View>
          <View className="flex-row gap-2">
            <View className="flex-1">
              <Field
                label="How many"
                mono
                inputMode="numeric"
                value={form.count}
                onChange={(text) => set({ count: text })}
              />
            </View>
            <View className="flex-1">
              <Field
                label="Number from"
                mono
                inputMode="numeric"
                value={form.number}
                onChange={(number) => set({ number })}
              />
            </View>
          </View>
          <Field
            label="Name, # is the running number"
            placeholder={`${type.name} #`}
            value={form.pattern}
            onChange={(pattern) => set({ pattern })}
          />
          <PlaceChoice form={form.place} onChange={(next) => set({ place: next })} />
          <View className="flex-row gap-2">
            <View className="flex-1">
              <Pick
                label="Place"
                options={[
                  { value: '', label: 'No place' },
                  ...records.place.map(({ id, name }) => ({ value: id, label: name })),
                ]}
                value={form.placeId}
                onChange={(placeId) => set({ placeId })}
              />
            </View>
            <View className="flex-1">
              <Field label="Group" value={form.group} onChange={(group) => set({ group })} />
            </View>
          </View>
          <PlanPreview plan={plan} act={`Add ${lampsText(adding)}`} onDone={added} />
          {wide && universe !== undefined && (
            <Button label="Put them on slots by hand" onPress={() => router.navigate(`/rig/universes/${universe}`)} />
          )}
          {adding.typed && <Button label="Begin anew" look="bare" onPress={adding.clear} />}
        </>
      ) : (
        <TypeSearch onChoose={(chosen) => set({ typeId: chosen.id, mode: chosen.modes[0]!.name })} />
      )}
      {types.length === 0 && <Text kind="soft">Reading the types…</Text>}
    </Screen>
  );
}
