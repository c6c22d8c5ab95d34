/** Adding lamps: what, how many, where; all addresses are shown before anything is written. */
import { useMemo } from 'react';
import { View } from 'react-native';
import { refuse, type Read } from '@taxiarch/core/address';
import { footprintOf } from '@taxiarch/core/fixture';
import { addLamps, type Plan } from '@taxiarch/core/patch';
import { hasDraft, useDraft } from '@/data/form';
import { placeFilter, useKept } from '@/data/kept';
import { useShow } from '@/data/show';
import { Button, Field, Pick, Screen, Sentence, Text, count, PlanPreview } from '@/ui';
import { PlaceChoice, FIRST_PLACE, readPlace, type PlaceForm } from './PlaceChoice';
import { newId, wholeFrom } from '@/data/numbers';
import { TypeSearch } from './types/TypeSearch';
import { noteUsed, useTypes } from './types/choose';

interface Form {
  readonly typeId: string;
  readonly mode: string;
  readonly count: string;
  readonly number: string;
  readonly pattern: string;
  readonly placeId: string;
  readonly group: string;
  readonly place: PlaceForm;
}

export function AddLamps() {
  const show = useShow();
  const place = useKept(placeFilter);
  const types = useTypes();
  const highest = [...show.records.lamp, ...show.records.run].reduce((most, { number }) => Math.max(most, number), 0);
  const [form, setForm, clear] = useDraft<Form>('add lamps', {
    typeId: '',
    mode: '',
    count: '4',
    number: String(Math.floor(highest / 100) * 100 + 101),
    pattern: '',
    placeId: place,
    group: '',
    place: FIRST_PLACE,
  });
  const type = types.find(({ id }) => id === form.typeId);
  const mode = type?.modes.find(({ name }) => name === form.mode) ?? type?.modes[0];

  const plan = useMemo((): Read<Plan> => {
    if (!type || !mode) return refuse('Choose a fixture type.');
    const request = readPlace(form.place);
    if (!request.ok) return request;
    const numberFrom = wholeFrom(form.number);
    if (numberFrom === undefined || numberFrom < 1) return refuse('The first number is a whole number from 1.');
    return addLamps(
      show,
      {
        type,
        mode,
        count: wholeFrom(form.count) ?? 0,
        numberFrom,
        pattern: form.pattern || `${type.name} #`,
        place: request.value,
        placeId: form.placeId || null,
        groups: form.group.trim() === '' ? [] : [form.group.trim()],
      },
      newId,
    );
  }, [show, type, mode, form]);

  const set = (part: Partial<Form>) => setForm({ ...form, ...part });
  const total = mode ? footprintOf(mode) * (wholeFrom(form.count) ?? 0) : 0;
  return (
    <Screen
      sentence={
        <Sentence>
          {type && mode
            ? `${count(wholeFrom(form.count) ?? 0, 'lamp')} of ${type.maker} ${type.name}, ${total} channels.`
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
                  label: `${one.name}, ${footprintOf(one)} channels`,
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
                  ...show.records.place.map(({ id, name }) => ({ value: id, label: name })),
                ]}
                value={form.placeId}
                onChange={(placeId) => set({ placeId })}
              />
            </View>
            <View className="flex-1">
              <Field label="Group" value={form.group} onChange={(group) => set({ group })} />
            </View>
          </View>
          <PlanPreview
            plan={plan}
            act={`Add ${count(wholeFrom(form.count) ?? 0, 'lamp')}`}
            onDone={() => {
              noteUsed(type.id);
              clear();
            }}
          />
          {hasDraft('add lamps') && <Button label="Begin anew" look="bare" onPress={clear} />}
        </>
      ) : (
        <TypeSearch onChoose={(chosen) => set({ typeId: chosen.id, mode: chosen.modes[0]!.name })} />
      )}
      {types.length === 0 && <Text kind="soft">Reading the types…</Text>}
    </Screen>
  );
}
