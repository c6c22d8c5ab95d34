/** Input channels: which channel of another desk moves what here, as a table that is edited in place. */
import { removed } from '@taxiarch/core/show/edit';
import Radio from 'lucide-react-native/icons/radio';
import Trash from 'lucide-react-native/icons/trash';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { formatWire } from '@taxiarch/core/base/address';
import { movesNothing } from '@taxiarch/core/network/flow';
import type { Control } from '@taxiarch/core/show/records';
import { useLive } from '@/data/live';
import { newId } from '@/data/numbers';
import { learnFader } from '@/data/routes';
import { propose, useShow } from '@/data/show';
import { Button, Field, PageShape, Pick, Screen, Sentence, Text, count, useWide } from '@/ui';
import { NEW_CONTROL, controlFormOf, controlPlan, isSwitch, movesOptions, type ControlForm } from './controlForm';

export function MapPage() {
  const { records, patch, loaded } = useShow();
  const wide = useWide();
  const live = useLive();
  const [next, setNext] = useState(newId);
  const levels = new Map(live?.controls.map((one) => [one.id, one.level]));
  const groups = useMemo(() => [...new Set(patch.all().flatMap(({ lamp }) => lamp.groups))].sort(), [patch]);
  const options = useMemo(() => movesOptions(records, groups), [records, groups]);
  const controls = [...records.control].sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }));
  if (!loaded) return <PageShape />;
  return (
    <Screen
      sentence={
        <Sentence>
          {controls.length === 0
            ? 'No channels mapped from another desk yet.'
            : `${count(controls.length, 'input channel')} mapped from other desks.`}
        </Sentence>
      }
    >
      <View role="list" aria-label="Input channels">
        {wide && (
          <View aria-hidden className="flex-row gap-3 border-b border-line pb-1">
            <Text kind="small" className="w-44">
              Input channel
            </Text>
            <Text kind="small" className="flex-1">
              Moves
            </Text>
            <Text kind="small" className="w-24">
              On from
            </Text>
            <Text kind="small" className="w-20">
              Level now
            </Text>
            <View className="w-[104px]" />
          </View>
        )}
        {controls.map((control) => (
          <ControlRow
            key={control.id}
            base={control}
            id={control.id}
            options={options}
            level={levels.get(control.id) ?? null}
            trouble={movesNothing(control, records, patch)}
          />
        ))}
        <ControlRow key={next} base={undefined} id={next} options={options} onSaved={() => setNext(newId())} />
      </View>
    </Screen>
  );
}

interface RowProps {
  /** Undefined in the row that adds one */
  base: Control | undefined;
  id: string;
  options: readonly { readonly value: string; readonly label: string }[];
  level?: number | null;
  /** Why it moves nothing as things are planned */
  trouble?: string | undefined;
  onSaved?: () => void;
}

function ControlRow({ base, id, options, level, trouble, onSaved }: RowProps) {
  const { records } = useShow();
  const wide = useWide();
  const read = base ? controlFormOf(base) : NEW_CONTROL;
  const [typed, setTyped] = useState<Partial<ControlForm>>({});
  const [learning, setLearning] = useState(false);
  const [why, setWhy] = useState('');
  const form = { ...read, ...typed };
  const dirty = (Object.keys(typed) as (keyof ControlForm)[]).some((key) => form[key] !== read[key]);
  const name = base?.name ?? 'a new channel';
  const set = (change: Partial<ControlForm>) => {
    setWhy('');
    setTyped((before) => ({ ...before, ...change }));
  };
  const attempt = async (act: () => Promise<unknown>) => {
    setWhy('');
    try {
      await act();
    } catch (error) {
      setWhy((error as Error).message);
    }
  };
  const save = () =>
    attempt(async () => {
      const plan = controlPlan(form, base, id, records);
      if (!plan.ok) throw new Error(plan.why);
      await propose(plan.value.sentence, plan.value.changes);
      setTyped({});
      onSaved?.();
    });
  const learn = () => {
    setLearning(true);
    void attempt(async () => {
      const { wire, channel } = await learnFader();
      set({ at: `${formatWire(wire)}/${channel}` });
    }).finally(() => setLearning(false));
  };
  const at = (
    <Field
      label={`Input channel, ${name}`}
      hideLabel
      mono
      placeholder="41/3"
      value={form.at}
      onChange={(text) => set({ at: text })}
      onSubmitEditing={() => void save()}
    />
  );
  const moves = (
    <Pick
      label={`Moves, ${name}`}
      hideLabel
      options={[{ value: '', label: 'Choose what it moves' }, ...options]}
      value={form.moves}
      onChange={(value) => set({ moves: value })}
    />
  );
  const threshold = isSwitch(form) && (
    <Field
      label={`On from, ${name}`}
      hideLabel
      mono
      inputMode="numeric"
      value={form.threshold}
      onChange={(text) => set({ threshold: text })}
      onSubmitEditing={() => void save()}
    />
  );
  const now = base && (
    <Text kind="mono" tone={level == null ? 'soft' : 'text'}>
      {level ?? 'no signal'}
    </Text>
  );
  const acts = (
    <>
      <Button label={`Learn ${name} by moving its fader`} icon={Radio} iconOnly disabled={learning} onPress={learn} />
      {base && (
        <Button
          label={`Delete ${name}`}
          icon={Trash}
          iconOnly
          onPress={() =>
            void attempt(() => propose(`Deleted ${base.name} from the input map`, [removed('control', base)]))
          }
        />
      )}
    </>
  );
  return (
    <View role="listitem" aria-label={name} className="gap-2 border-b border-line py-2">
      {wide ? (
        <View className="flex-row items-center gap-3">
          <View className="w-44">{at}</View>
          <View className="flex-1">{moves}</View>
          <View className="w-24">{threshold}</View>
          <View className="w-20">{now}</View>
          <View className="w-[104px] flex-row gap-2">{acts}</View>
        </View>
      ) : (
        <>
          <View className="flex-row items-center gap-2">
            <View className="flex-1">{at}</View>
            {now}
            {acts}
          </View>
          <View className="flex-row items-center gap-2">
            <View className="flex-1">{moves}</View>
            {threshold && <Text kind="small">on from</Text>}
            {threshold && <View className="w-20">{threshold}</View>}
          </View>
        </>
      )}
      {learning && <Text kind="small">Move the fader from bottom to top…</Text>}
      {(why || trouble) && (
        <Text kind="small" tone="fault" role="alert">
          {why || trouble}
        </Text>
      )}
      {dirty && (
        <View className="flex-row gap-2">
          <Button
            label="Cancel"
            onPress={() => {
              setTyped({});
              setWhy('');
            }}
          />
          <Button
            label={base ? `Save ${name}` : 'Add channel'}
            short={base ? 'Save' : 'Add channel'}
            look="main"
            onPress={() => void save()}
          />
        </View>
      )}
    </View>
  );
}
