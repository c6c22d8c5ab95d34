/** Changing a lamp's number, name, address and mode. A half-typed change is kept. */
import { useState } from 'react';
import { View } from 'react-native';
import type { PatchedLamp } from '@taxiarch/core/patch';
import type { Lamp } from '@taxiarch/core/show';
import { Refusal } from '@/data/api';
import { hasDraft, useDraft } from '@/data/form';
import { propose, takeBack } from '@/data/show';
import { Button, Choice, Field, Notice, Section, Text } from '@/ui';
import { changeOf, formOf, readForm, sentenceOf, type FormFaults } from './lampForm';

export function EditLamp({ patched }: { patched: PatchedLamp }) {
  const { lamp, type } = patched;
  const key = `lamp ${lamp.id}`;
  const [form, setForm, clear] = useDraft(key, formOf(lamp));
  const [faults, setFaults] = useState<FormFaults>({});
  const [trouble, setTrouble] = useState('');
  const [done, setDone] = useState('');
  const [base, setBase] = useState<Lamp>(lamp);
  const typed = hasDraft(key);
  // What the form was begun from decides whether somebody else came between.
  if (!typed && base !== lamp) setBase(lamp);

  const trying = async (act: () => Promise<string>) => {
    setTrouble('');
    setDone('');
    try {
      setDone(await act());
    } catch (error) {
      setTrouble(error instanceof Refusal ? error.message : String(error));
    }
  };

  const save = () => {
    const read = readForm(base, form);
    setFaults('faults' in read ? read.faults : {});
    if ('faults' in read) return;
    const sentence = sentenceOf(base, read.lamp);
    if (!sentence) {
      clear();
      return;
    }
    void trying(async () => {
      await propose(sentence, [changeOf(base, read.lamp)]);
      clear();
      return sentence;
    });
  };

  const field = (name: 'number' | 'name' | 'address', label: string, mono: boolean) => (
    <Field
      label={label}
      mono={mono}
      value={form[name]}
      fault={faults[name]}
      onChange={(text) => setForm({ ...form, [name]: text })}
      onSubmitEditing={save}
    />
  );
  return (
    <Section title="Change">
      <View className="flex-row gap-2">
        <View className="w-24">{field('number', 'Number', true)}</View>
        <View className="flex-1">{field('name', 'Name', false)}</View>
      </View>
      {field('address', 'Address, universe/channel', true)}
      {type.modes.length > 1 && (
        <View className="gap-1">
          <Text kind="label">Mode</Text>
          <Choice
            label="Mode"
            options={type.modes.map(({ name }) => ({ value: name, label: name }))}
            value={form.mode}
            onChange={(mode) => setForm({ ...form, mode })}
          />
        </View>
      )}
      {trouble !== '' && (
        <Notice
          state="must fix"
          act={
            <Button
              label="Show it as it is now"
              onPress={() => {
                clear();
                setTrouble('');
              }}
            />
          }
        >
          {trouble}
        </Notice>
      )}
      {done !== '' && (
        <View className="flex-row items-center gap-2">
          <Text kind="small" className="flex-1">
            {done}.
          </Text>
          <Button label="Undo" onPress={() => void trying(async () => (await takeBack('undo')).sentence)} />
        </View>
      )}
      {typed && (
        <View className="flex-row gap-2">
          <Button label="Save" look="main" grow onPress={save} />
          <Button
            label="Leave as it was"
            onPress={() => {
              clear();
              setFaults({});
            }}
          />
        </View>
      )}
    </Section>
  );
}
