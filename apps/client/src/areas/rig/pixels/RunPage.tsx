/** One run of pixels: made or changed, with its addresses as they would be. */
import { useLocalSearchParams, useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { type Result, ok } from '@taxiarch/core/base/result';
import { putRun, removeRun } from '@taxiarch/core/rig/patch';
import type { Plan } from '@taxiarch/core/show/edit';
import type { PixelRun } from '@taxiarch/core/show/records';
import { walkSelection } from '@/data/selection';
import { RecordFoot } from '@/forms/RecordFoot';
import { rulesOf } from '@/forms/rules';
import { useRecordForm } from '@/forms/useRecordForm';
import { useShow } from '@/data/show';
import { PlanPreview } from '@/forms/PlanPreview';
import { useLeaveFor, Button, Check, Choice, Field, Pick, Screen, Section, Sentence, Text, Missing } from '@/ui';
import { newId } from '@/data/numbers';
import { newRun, readRunForm, runForm, type RunForm } from './runForm';

const STARTS = [
  { value: 'after', label: 'After the run before' },
  { value: 'at', label: 'At an address' },
  { value: 'controller', label: 'At its controller' },
] as const;
const BITS = [
  { value: '8', label: '8 bit' },
  { value: '16', label: '16 bit' },
] as const;
const WIDTHS = [
  { value: '510', label: '510 a universe' },
  { value: '512', label: '512 a universe' },
] as const;
const ORDERS = ['RGB', 'GRB', 'BGR', 'RBG', 'GBR', 'BRG', 'RGBW', 'GRBW', 'RGBWA', 'W'];

const RULES = rulesOf('run', ['number', 'name', 'count']);

export function RunPage() {
  const { run: id = '' } = useLocalSearchParams<{ run: string }>();
  const { records, loaded } = useShow();
  const run = records.run.find((one) => one.id === id);
  if (id === 'new') return <RunEditor key="new" run={undefined} />;
  if (run) return <RunEditor key={id} run={run} />;
  return <Missing loaded={loaded} what="This run of pixels" list="/rig/pixels" act="All runs" />;
}

function RunEditor({ run }: { run: PixelRun | undefined }) {
  const show = useShow();
  const router = useRouter();
  const leaveFor = useLeaveFor();
  const { records } = show;
  const next = [...records.run, ...records.lamp].reduce((most, { number }) => Math.max(most, number), 800) + 1;
  const editing = useRecordForm<RunForm, PixelRun>('run', run, (one) => runForm(one ?? newRun('', next)), RULES);
  const { id, base, form, set, text } = editing;
  const [removing, setRemoving] = useState(false);
  const plan = useMemo((): Result<Plan> => {
    const read = readRunForm(form, base ?? { id, rev: 0 });
    return read.ok ? ok(putRun(show, read.value, base, newId)) : read;
  }, [form, base, id, show]);
  const controllers = records.machine.filter(({ controller }) => controller !== null);
  return (
    <Screen
      sentence={<Sentence>{run ? `Run ${run.number} ${run.name}` : 'A new run of pixels'}.</Sentence>}
      acts={
        run && (
          <>
            <Button label="Remove" onPress={() => setRemoving(true)} />
            <Button
              label="Prove pixel by pixel"
              look="main"
              grow
              onPress={() => {
                walkSelection.set([run.id]);
                router.navigate('/prove');
              }}
            />
          </>
        )
      }
    >
      {removing && base && <PlanPreview plan={ok(removeRun(base))} act="Remove the run" />}
      <View className="flex-row gap-2">
        <View className="w-24">
          <Field label="Number" mono {...text('number')} />
        </View>
        <View className="flex-1">
          <Field label="Name" {...text('name')} />
        </View>
      </View>
      <View className="flex-row gap-2">
        <View className="flex-1">
          <Field label="Pixels" mono {...text('count')} />
        </View>
        <View className="flex-1">
          <Pick
            label="Order"
            options={[...new Set([...ORDERS, form.order])].map((order) => ({ value: order, label: order }))}
            value={form.order}
            onChange={(order) => set({ order })}
          />
        </View>
      </View>
      <Choice label="Resolution" options={BITS} value={form.bits} onChange={(bits) => set({ bits })} />
      <Choice
        label="Channels a universe"
        options={WIDTHS}
        value={form.perUniverse}
        onChange={(perUniverse) => set({ perUniverse })}
      />
      <Check label="Keep each pixel within one universe" on={form.whole} onChange={(whole) => set({ whole })} />
      <Check
        label="Reversed: pixel 1 is the last one sent"
        on={form.reversed}
        onChange={(reversed) => set({ reversed })}
      />
      <Section title="Where it begins">
        <Pick
          label="Begin"
          hideLabel
          options={STARTS}
          value={form.start}
          onChange={(start) => set({ start: start as RunForm['start'] })}
        />
        {form.start === 'at' && <Field label="Address" mono {...text('at')} />}
        <View className="flex-row gap-2">
          <View className="flex-1">
            <Pick
              label="Controller"
              options={[
                { value: '', label: 'none' },
                ...controllers.map(({ id, name }) => ({ value: id, label: name })),
              ]}
              value={form.machineId}
              onChange={(machineId) => set({ machineId })}
            />
          </View>
          <View className="w-24">
            <Field label="Output" mono {...text('output')} />
          </View>
          <View className="w-28">
            <Field label="Null pixels" mono {...text('nulls')} />
          </View>
        </View>
        <Check label="Null pixels take channels too" on={form.nullsSent} onChange={(nullsSent) => set({ nullsSent })} />
      </Section>
      <Section title="Where it hangs, in metres">
        <Pick
          label="Place"
          options={[
            { value: '', label: 'No place' },
            ...records.place.map(({ id, name }) => ({ value: id, label: name })),
          ]}
          value={form.placeId}
          onChange={(placeId) => set({ placeId })}
        />
        <View className="flex-row gap-2">
          <View className="flex-1">
            <Field label="First pixel: across; along; up" mono {...text('from')} />
          </View>
          <View className="flex-1">
            <Field label="Last pixel: across; along; up" mono {...text('to')} />
          </View>
        </View>
      </Section>
      <RecordFoot
        of={editing}
        plan={plan}
        act={run ? 'Change the run' : 'Add the run'}
        onDone={() => !run && leaveFor(`/rig/pixels/${id}`)}
      />
      {run && <Text kind="small">Its channels stand in Listen, in the universes that it runs through.</Text>}
    </Screen>
  );
}
