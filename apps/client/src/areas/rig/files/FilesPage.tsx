/** The rig imported and exported, in open formats. */
import { useState } from 'react';
import { TextInput, View } from 'react-native';
import { useShow } from '@/data/show';
import { Button, Screen, Section, Sentence, Text, count, useColour } from '@/ui';
import { FileImport } from './FileImport';
import { TableImport } from './TableImport';

const OUT = [
  { label: 'Rig as MVR', path: 'mvr', note: 'Lamps with types, modes, addresses, places, groups and positions.' },
  { label: 'Lamps as CSV', path: 'csv/lamps', note: 'One line a lamp.' },
  { label: 'Channels as CSV', path: 'csv/channels', note: 'One line a slot: whose it is and what it does.' },
  { label: 'Pixels as CSV', path: 'csv/pixels', note: 'Runs with their first and last addresses.' },
  { label: 'Whole show', path: 'show', note: 'Everything in one JSON document, to be kept or opened elsewhere.' },
] as const;

/** A rig from a file or a pasted table, compared with the show row by row. */
export function RigIn() {
  const colour = useColour();
  const [table, setTable] = useState<{ text: string; name: string }>();
  const [pasted, setPasted] = useState('');
  if (table) return <TableImport text={table.text} name={table.name} onLeave={() => setTable(undefined)} />;
  return (
    <>
      <FileImport onTable={(text, name) => setTable({ text, name })} />
      <Text kind="label">Or paste a table, with its heads in the first row</Text>
      <TextInput
        aria-label="Table to paste"
        multiline
        value={pasted}
        onChangeText={setPasted}
        placeholder={'Number, Name, Type, Mode, Address\n1, name of the lamp, type, mode, 2/1'}
        placeholderTextColor={colour('soft')}
        className="h-28 rounded border border-line bg-surface p-3 font-mono text-base text-text"
      />
      <Button
        label="Read the table"
        disabled={pasted.trim() === ''}
        onPress={() => setTable({ text: pasted, name: 'a pasted table' })}
      />
    </>
  );
}

export function FilesPage() {
  const { records } = useShow();
  return (
    <Screen sentence={<Sentence>Import a rig, or export {count(records.lamp.length, 'lamp')}.</Sentence>}>
      <Section title="Import">
        <RigIn />
      </Section>
      <Section title="Export">
        {OUT.map(({ label, path, note }) => (
          <View key={path} className="flex-row items-center gap-3">
            <View className="flex-1">
              <Text>{label}</Text>
              <Text kind="small">{note}</Text>
            </View>
            <Button
              label={`Export ${label}`}
              short="Export"
              onPress={() => window.location.assign(`/api/export/${path}`)}
            />
          </View>
        ))}
        <Text kind="small">A fixture type is exported as GDTF from its own page, under Types.</Text>
      </Section>
    </Screen>
  );
}
