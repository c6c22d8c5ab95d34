/** Changing a lamp's number, name, address and mode. A half-typed change is kept. */
import { View } from 'react-native';
import type { PatchedLamp } from '@taxiarch/core/rig/patch';
import type { Lamp } from '@taxiarch/core/show/records';
import { propose } from '@/data/show';
import { useAct } from '@/forms/useAct';
import { useRecordForm } from '@/forms/useRecordForm';
import { Button, Choice, Field, Fold, Notice, Section, Text } from '@/ui';
import { changeOf, formOf, lampOf, PAPER, PAPER_FIELDS, RULES, sentenceOf, type LampForm } from './lampForm';

export function EditLamp({ patched }: { patched: PatchedLamp }) {
  const { lamp, type } = patched;
  const editing = useRecordForm<LampForm, Lamp>('lamp', lamp, (one) => formOf(one ?? lamp), RULES);
  const { form, set, text, clear, typed } = editing;
  const base = editing.base ?? lamp;
  const { act, trouble } = useAct();

  const save = editing.submit(() => {
    const next = lampOf(base, form);
    const sentence = sentenceOf(base, next);
    if (!sentence) return clear();
    void act(() => propose(sentence, [changeOf(base, next)]).then(clear));
  });

  /** What was refused is over with it. */
  const leave = () => void act(async () => clear());

  const field = (name: Exclude<keyof LampForm, 'mode'>, label: string, mono: boolean) => (
    <Field key={name} label={label} mono={mono} {...text(name)} onSubmitEditing={save} />
  );
  return (
    <Section title="Change">
      <View className="flex-row gap-2">
        <View className="w-24">{field('number', 'Number', true)}</View>
        <View className="flex-1">{field('name', 'Name', false)}</View>
      </View>
      {field('address', 'Address, universe/channel; empty for none', true)}
      {type.modes.length > 1 && (
        <View className="gap-1">
          <Text kind="label">Mode</Text>
          <Choice
            label="Mode"
            options={type.modes.map(({ name }) => ({ value: name, label: name }))}
            value={form.mode}
            onChange={(mode) => set({ mode })}
          />
        </View>
      )}
      <Fold title="On papers and in files" of={lamp.name}>
        <View className="gap-2">
          {PAPER_FIELDS.map((name) => field(name, PAPER[name], false))}
          {lamp.uuid !== '' && <Text kind="monoSmall">Id in files: {lamp.uuid}</Text>}
        </View>
      </Fold>
      {trouble !== '' && (
        <Notice state="must fix" act={<Button label="Show it as it is now" onPress={leave} />}>
          {trouble}
        </Notice>
      )}
      {typed && (
        <View className="flex-row gap-2">
          <Button label="Save" look="main" grow onPress={save} />
          <Button label="Leave as it was" onPress={leave} />
        </View>
      )}
    </Section>
  );
}
