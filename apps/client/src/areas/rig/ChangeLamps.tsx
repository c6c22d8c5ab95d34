/** What can be done to the lamps that are chosen, in the order in which they were chosen. */
import { useLocalSearchParams, useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { formatAddress } from '@taxiarch/core/base/address';
import { refuse, type Result } from '@taxiarch/core/base/result';
import {
  changeMode,
  copyLamps,
  lampsOf,
  makeTwins,
  moveToNewPlace,
  partTwins,
  readdress,
  removeLamps,
  rename,
  renumber,
  setGroup,
  setPlace,
  setTag,
  shift,
  unaddress,
} from '@taxiarch/core/rig/patch';
import type { Plan } from '@taxiarch/core/show/edit';
import { type Tag, TAGS } from '@taxiarch/core/show/records';
import { rigSelection, useSelection, walkSelection } from '@/data/selection';
import { useShow, type Show } from '@/data/show';
import { PlanPreview } from '@/forms/PlanPreview';
import { Button, Check, Empty, Field, Pick, Screen, Section, Sentence, Text, count } from '@/ui';
import { FIRST_PLACE, PlaceChoice, readPlace } from './PlaceChoice';
import { newId, wholeFrom } from '@/data/numbers';

const ACTS = [
  { value: 'address', label: 'Give new addresses' },
  { value: 'shift', label: 'Shift by channels' },
  { value: 'unaddress', label: 'Take addresses away' },
  { value: 'copy', label: 'Copy' },
  { value: 'mode', label: 'Change mode' },
  { value: 'number', label: 'Number anew' },
  { value: 'name', label: 'Name by pattern' },
  { value: 'place', label: 'Move to a place' },
  { value: 'group', label: 'Put into a group' },
  { value: 'ungroup', label: 'Remove from a group' },
  { value: 'tag', label: 'Mark with a colour' },
  { value: 'twin', label: 'Make twins' },
  { value: 'part', label: 'Make twins no more' },
  { value: 'remove', label: 'Delete' },
] as const;
type Act = (typeof ACTS)[number]['value'];

interface Form {
  readonly place: typeof FIRST_PLACE;
  readonly number: string;
  readonly step: string;
  readonly text: string;
  readonly mode: string;
  readonly follow: boolean;
  readonly placeId: string;
  readonly tag: Tag;
}

const FIRST: Form = {
  place: FIRST_PLACE,
  number: '1',
  step: '1',
  text: '',
  mode: '',
  follow: true,
  placeId: '',
  tag: 'teal',
};

const NO_NUMBER = refuse('not-understood', 'Type a whole number.');

function planOf(show: Show, ids: readonly string[], act: Act, form: Form): Result<Plan> {
  const number = wholeFrom(form.number);
  const place = readPlace(form.place);
  switch (act) {
    case 'address':
      return place.ok ? readdress(show, ids, place.value, newId) : place;
    case 'unaddress':
      return unaddress(show, ids, newId);
    case 'copy':
      if (number === undefined) return NO_NUMBER;
      return place.ok ? copyLamps(show, ids, number, place.value, newId) : place;
    case 'shift':
      return number === undefined ? NO_NUMBER : shift(show, ids, number, newId);
    case 'mode':
      return changeMode(show, ids, form.mode, form.follow, newId);
    case 'number':
      return renumber(show, ids, number ?? NaN, wholeFrom(form.step) ?? NaN);
    case 'name':
      return rename(show, ids, form.text, number ?? 1);
    case 'place':
      return form.text.trim() === ''
        ? setPlace(show, ids, form.placeId || null)
        : moveToNewPlace(show, ids, form.text, newId);
    case 'group':
      return setGroup(show, ids, form.text, true);
    case 'ungroup':
      return setGroup(show, ids, form.text, false);
    case 'tag':
      return setTag(show, ids, form.tag);
    case 'twin':
      return makeTwins(show, ids, newId);
    case 'part':
      return partTwins(show, ids);
    case 'remove':
      return removeLamps(show, ids);
  }
}

export function ChangeLamps() {
  const show = useShow();
  const router = useRouter();
  const chosen = useSelection(rigSelection);
  const lamps = useMemo(() => lampsOf(show, chosen), [show, chosen]);
  const { act: asked } = useLocalSearchParams<{ act?: string }>();
  const [act, setAct] = useState<Act>(ACTS.find(({ value }) => value === asked)?.value ?? 'address');
  const [form, setForm] = useState(FIRST);
  const set = (part: Partial<Form>) => setForm({ ...form, ...part });
  const ids = useMemo(() => lamps.map(({ lamp }) => lamp.id), [lamps]);
  const modes = useMemo(() => [...new Set(lamps.flatMap(({ type }) => type.modes.map(({ name }) => name)))], [lamps]);
  const mode = modes.includes(form.mode) ? form.mode : (modes[0] ?? '');
  const groups = useMemo(
    () => [...new Set(show.records.lamp.flatMap((lamp) => lamp.groups))].sort(),
    [show.records.lamp],
  );
  const plan = useMemo(() => planOf(show, ids, act, { ...form, mode }), [show, ids, act, form, mode]);
  if (lamps.length === 0)
    return (
      <Empty>
        Choose lamps in the list: press Choose, then tap them in the order in which they shall be addressed.
      </Empty>
    );

  const number = (label: string) => (
    <Field label={label} mono value={form.number} onChange={(text) => set({ number: text })} />
  );
  const placing = <PlaceChoice form={form.place} onChange={(place) => set({ place })} />;
  return (
    <Screen
      sentence={
        <View className="gap-1">
          <Sentence>{count(lamps.length, 'lamp')} chosen.</Sentence>
          <Text kind="small" numberOfLines={2}>
            In this order:{' '}
            {lamps
              .slice(0, 12)
              .map(({ lamp }) => `${lamp.number} at ${formatAddress(lamp)}`)
              .join(', ')}
            {lamps.length > 12 && ` and ${lamps.length - 12} more`}
          </Text>
        </View>
      }
      acts={
        <>
          <Button label="None" onPress={() => rigSelection.set([])} />
          <Button label="Switches" onPress={() => router.navigate('/rig/dip')} />
          <Button
            label="Prove"
            grow
            onPress={() => {
              walkSelection.set(ids);
              router.navigate('/prove');
            }}
          />
        </>
      }
    >
      <Pick label="What to do" options={ACTS} value={act} onChange={(next) => setAct(next as Act)} />
      {act === 'address' && placing}
      {act === 'copy' && (
        <>
          {number('Number of the first copy')}
          {placing}
        </>
      )}
      {act === 'shift' && number('Channels, with − to move back')}
      {act === 'number' && (
        <View className="flex-row gap-2">
          <View className="flex-1">{number('First number')}</View>
          <View className="flex-1">
            <Field label="Step" mono value={form.step} onChange={(step) => set({ step })} />
          </View>
        </View>
      )}
      {act === 'name' && (
        <View className="flex-row gap-2">
          <View className="flex-1">
            <Field label="Name, # is the running number" value={form.text} onChange={(text) => set({ text })} />
          </View>
          <View className="w-28">{number('From')}</View>
        </View>
      )}
      {act === 'mode' && (
        <>
          <Pick
            label="Mode"
            options={modes.map((name) => ({ value: name, label: name }))}
            value={mode}
            onChange={(next) => set({ mode: next })}
          />
          <Check
            label="Let the addresses follow, one lamp after the other"
            on={form.follow}
            onChange={(follow) => set({ follow })}
          />
        </>
      )}
      {act === 'place' && (
        <>
          <Pick
            label="Place"
            options={[
              { value: '', label: 'No place' },
              ...show.records.place.map(({ id, name }) => ({ value: id, label: name })),
            ]}
            value={form.placeId}
            onChange={(placeId) => set({ placeId, text: '' })}
          />
          <Field label="Or a new place" value={form.text} onChange={(text) => set({ text })} />
        </>
      )}
      {(act === 'group' || act === 'ungroup') && (
        <>
          <Field label="Group" value={form.text} onChange={(text) => set({ text })} />
          <Pick
            label="One that is there"
            options={[{ value: '', label: '–' }, ...groups.map((name) => ({ value: name, label: name }))]}
            value={groups.includes(form.text) ? form.text : ''}
            onChange={(text) => set({ text })}
          />
        </>
      )}
      {act === 'tag' && (
        <Pick
          label="Colour"
          options={TAGS.map((tag) => ({ value: tag, label: tag || 'no tag' }))}
          value={form.tag}
          onChange={(tag) => set({ tag: tag as Tag })}
        />
      )}
      <Section title="Preview">
        <PlanPreview key={act} plan={plan} act={ACTS.find(({ value }) => value === act)!.label} />
      </Section>
    </Screen>
  );
}
