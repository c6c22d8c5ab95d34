/** The input map: which channel of another desk moves what here. */
import { removed } from '@taxiarch/core/edit';
import { useMemo, useState } from 'react';
import { Pressable, View } from 'react-native';
import { formatWire } from '@taxiarch/core/address';
import { controlText, movesNothing } from '@taxiarch/core/flow';
import type { Control, ControlTarget } from '@taxiarch/core/records';
import { useLive } from '@/data/live';
import { newId } from '@/data/numbers';
import { learnFader } from '@/data/routes';
import { useShow } from '@/data/show';
import { PlanPreview } from '@/forms/PlanPreview';
import { Delete } from '@/forms/Delete';
import { Button, Choice, Field, Notice, Opened, Pick, Screen, Section, Sentence, Text, count } from '@/ui';
import { NEW_CONTROL, controlFormOf, controlPlan, type ControlForm } from './controlForm';

const DOES = [
  { value: 'master', label: 'Scales' },
  { value: 'switch', label: 'Switches' },
] as const;
const KINDS = [
  { value: 'route', label: 'a route' },
  { value: 'universe', label: 'all routes into a universe' },
  { value: 'group', label: 'a group’s intensities' },
];

export function MapPage() {
  const { records, patch, loaded } = useShow();
  const live = useLive();
  const levels = new Map(live?.controls.map((one) => [one.id, one.level]));
  const [chosen, setChosen] = useState<Control | 'new'>();
  const controls = [...records.control].sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }));
  const editing = chosen === 'new' ? undefined : controls.find(({ id }) => id === chosen?.id);
  return (
    <Screen
      sentence={
        <Sentence>
          {!loaded
            ? 'Reading the show…'
            : controls.length === 0
              ? 'No channel of another desk moves anything here yet.'
              : `${count(controls.length, 'channel')} of other desks ${controls.length === 1 ? 'moves' : 'move'} something here.`}
        </Sentence>
      }
      acts={<Button label="Add a channel" look="main" grow onPress={() => setChosen('new')} />}
    >
      <View>
        {controls.map((control) => {
          const level = levels.get(control.id) ?? null;
          const nothing = movesNothing(control, records, patch);
          return (
            <Pressable
              key={control.id}
              role="button"
              aria-label={`${control.name}, ${controlText(control, records)}`}
              onPress={() => setChosen(control)}
              className="min-h-14 flex-row items-center gap-3 border-b border-line py-2"
            >
              <Text kind="mono" className="w-28">
                {control.name}
              </Text>
              <View className="flex-1">
                <Text>{controlText(control, records)}</Text>
                {nothing !== undefined && (
                  <Text kind="small" tone="fault">
                    {nothing}
                  </Text>
                )}
              </View>
              <Text kind="mono" tone={level === null ? 'soft' : 'text'}>
                {level ?? 'not heard'}
              </Text>
            </Pressable>
          );
        })}
      </View>
      {chosen && (
        <Opened key={editing?.id ?? 'new'}>
          <Editor base={editing} onDone={() => setChosen(undefined)} />
        </Opened>
      )}
    </Screen>
  );
}

function Editor({ base, onDone }: { base: Control | undefined; onDone: () => void }) {
  const { records, patch } = useShow();
  const [id] = useState(newId);
  const [form, setForm] = useState<ControlForm>(base ? controlFormOf(base) : NEW_CONTROL);
  const [learning, setLearning] = useState(false);
  const [why, setWhy] = useState('');
  const set = (next: Partial<ControlForm>) => setForm((before) => ({ ...before, ...next }));
  const plan = useMemo(() => controlPlan(form, base, id, records), [form, base, id, records]);
  const groups = useMemo(() => [...new Set(patch.all().flatMap(({ lamp }) => lamp.groups))].sort(), [patch]);
  const learn = () => {
    setLearning(true);
    setWhy('');
    learnFader()
      .then(({ wire, channel }) => set({ universe: formatWire(wire), channel: String(channel) }))
      .catch((error: Error) => setWhy(error.message))
      .finally(() => setLearning(false));
  };
  const targets = {
    route: records.route.map((one) => ({ value: one.id, label: one.name })),
    group: groups.map((name) => ({ value: name, label: name })),
    universe: records.universe.map(({ number, name }) => ({ value: String(number), label: `${number} ${name}` })),
  }[form.kind];
  return (
    <Section title={base ? base.name : 'A new channel'}>
      <View className="flex-row gap-2">
        <View className="flex-1">
          <Field
            label="Universe"
            mono
            placeholder="41"
            value={form.universe}
            onChange={(universe) => set({ universe })}
          />
        </View>
        <View className="flex-1">
          <Field label="Channel" mono value={form.channel} onChange={(channel) => set({ channel })} />
        </View>
      </View>
      <Button
        label={learning ? 'Listening… move the fader from bottom to top' : 'Learn by moving the fader'}
        disabled={learning}
        onPress={learn}
      />
      {why !== '' && <Notice state="look at">{why}</Notice>}
      <Choice
        label="What it does"
        options={DOES}
        value={form.does}
        onChange={(does) => set(does === 'switch' ? { does, kind: 'route', target: '' } : { does })}
      />
      <View className="flex-row gap-2">
        {form.does === 'master' && (
          <View className="flex-1">
            <Pick
              label="What"
              options={KINDS}
              value={form.kind}
              onChange={(kind) => set({ kind: kind as ControlTarget['kind'], target: '' })}
            />
          </View>
        )}
        <View className="flex-1">
          <Pick
            label="Which"
            options={[{ value: '', label: 'choose' }, ...targets]}
            value={form.target}
            onChange={(target) => set({ target })}
          />
        </View>
        {form.does === 'switch' && (
          <View className="w-28">
            <Field label="On from" mono value={form.threshold} onChange={(threshold) => set({ threshold })} />
          </View>
        )}
      </View>
      <PlanPreview plan={plan} act={base ? 'Change it' : 'Add it'} onDone={onDone} />
      <View className="flex-row gap-2">
        <Button label="Leave it" grow onPress={onDone} />
      </View>
      {base && <Delete change={removed('control', base)} what={`${base.name} of the input map`} onDone={onDone} />}
    </Section>
  );
}
