/** The rig imported and exported, in open formats. */
import { View } from 'react-native';
import { TABLE_FORMS, type TableForm } from '@taxiarch/core/whole/contract';
import { useState } from 'react';
import { useShow } from '@/data/show';
import { Button, Choice, Screen, Section, Sentence, Text, count } from '@/ui';
import { FileChoice } from './FileChoice';

const OUT = [
  { label: 'Rig as MVR', path: 'mvr', note: 'Lamps, pixels and machines, with all that came in from elsewhere.' },
  { label: 'Whole show', path: 'show', note: 'Everything in one JSON document, to be kept or opened elsewhere.' },
] as const;

const TABLES = [
  { label: 'Lamps', table: 'lamps', note: 'One line a lamp.' },
  { label: 'Channels', table: 'channels', note: 'One line a slot: whose it is and what it does.' },
  { label: 'Pixels', table: 'pixels', note: 'Runs with their first and last addresses.' },
] as const;

const FORMS = TABLE_FORMS.map((form) => ({ value: form, label: form.toUpperCase() }));

function Out({ label, path, note }: { label: string; path: string; note: string }) {
  return (
    <View className="flex-row items-center gap-3">
      <View className="flex-1">
        <Text>{label}</Text>
        <Text kind="small">{note}</Text>
      </View>
      <Button label={`Export ${label}`} short="Export" onPress={() => window.location.assign(`/api/export/${path}`)} />
    </View>
  );
}

export function FilesPage() {
  const { records } = useShow();
  const [form, setForm] = useState<TableForm>('csv');
  return (
    <Screen sentence={<Sentence>Import a rig, or export {count(records.lamp.length, 'lamp')}.</Sentence>}>
      <Section title="Import">
        <FileChoice />
      </Section>
      <Section title="Export">
        {OUT.map((one) => (
          <Out key={one.path} {...one} />
        ))}
        <Text kind="small">A fixture type is exported as GDTF from its own page, under Types.</Text>
      </Section>
      <Section title="Export tables">
        <Choice label="Kind of table" options={FORMS} value={form} onChange={setForm} />
        {TABLES.map(({ label, table, note }) => (
          <Out key={table} label={`${label} as ${form.toUpperCase()}`} path={`${form}/${table}`} note={note} />
        ))}
      </Section>
    </Screen>
  );
}
