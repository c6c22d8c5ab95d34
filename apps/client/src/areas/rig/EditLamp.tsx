/** Changing a lamp's number, name, address and mode. A half-typed change is kept. */
import { useState } from 'react';
import { View } from 'react-native';
import type { PatchedLamp } from '@taxiarch/core/rig/patch';
import type { Lamp } from '@taxiarch/core/show/records';
import { hasDraft, useDraft } from '@/forms/draft';
import { propose } from '@/data/show';
import { Button, Choice, Field, Fold, Notice, Section, Text } from '@/ui';
import {
  changeOf,
  formOf,
  PAPER,
  PAPER_FIELDS,
  readForm,
  sentenceOf,
  type FormFaults,
  type PaperField,
} from './lampForm';

export function EditLamp({ patched }: { patched: PatchedLamp }) {
  const { lamp, type } = patched;
  const key = `lamp ${lamp.id}`;
  const [form, setForm, clear] = useDraft(key, formOf(lamp));
  const [faults, setFaults] = useState<FormFaults>({});
  const [trouble, setTrouble] = useState('');
  const [base, setBase] = useState<Lamp>(lamp);
  const typed = hasDraft(key);
  // What the form was begun from decides whether somebody else came between.
  if (!typed && base !== lamp) setBase(lamp);

  const save = () => {
    const read = readForm(base, form);
    setFaults('faults' in read ? read.faults : {});
    if ('faults' in read) return;
    const sentence = sentenceOf(base, read.lamp);
    if (!sentence) {
      clear();
      return;
    }
    setTrouble('');
    propose(sentence, [changeOf(base, read.lamp)]).then(clear, (error: Error) => setTrouble(error.message));
  };

  const field = (name: 'number' | 'name' | 'address' | PaperField, label: string, mono: boolean) => (
    <Field
      key={name}
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
      {field('address', 'Address, universe/channel; empty for none', true)}
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
      <Fold title="On papers and in files" of={lamp.name}>
        <View className="gap-2">
          {PAPER_FIELDS.map((name) => field(name, PAPER[name], false))}
          {lamp.uuid !== '' && <Text kind="monoSmall">Id in files: {lamp.uuid}</Text>}
        </View>
      </Fold>
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
