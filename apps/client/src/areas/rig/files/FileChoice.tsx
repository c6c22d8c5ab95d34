/** Files brought in: chosen, several at once, or a table that is pasted. Each is looked at on a page of its own. */
import { useRouter } from 'expo-router';
import { useRef, useState } from 'react';
import { TextInput, View } from 'react-native';
import { ACCEPTED, bringIn, useWaiting } from '@/data/imports';
import { Button, Notice, SentenceLink, Text, count, useColour } from '@/ui';

export function FileChoice() {
  const router = useRouter();
  const colour = useColour();
  const input = useRef<HTMLInputElement>(null);
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState('');
  const [pasted, setPasted] = useState('');
  const waiting = useWaiting();

  const take = async (files: readonly File[]) => {
    if (files.length === 0) return;
    setTrouble('');
    setBusy(true);
    try {
      const first = await bringIn(files);
      if (first) router.navigate(`/rig/arrivals/${first.id}`);
    } catch (error) {
      setTrouble((error as Error).message);
    }
    setBusy(false);
  };

  return (
    <View className="gap-3">
      <input
        ref={input}
        type="file"
        multiple
        aria-label="Files to import"
        accept={ACCEPTED}
        style={{ display: 'none' }}
        onChange={({ target }) => {
          const files = [...(target.files ?? [])];
          target.value = '';
          void take(files);
        }}
      />
      {waiting[0] && (
        <SentenceLink href={`/rig/arrivals/${waiting[0].id}`}>
          {`${count(waiting.length, 'file')} waiting to be looked at`}
        </SentenceLink>
      )}
      <Button label="Choose files" look="main" disabled={busy} onPress={() => input.current?.click()} />
      <Text kind="small">
        MVR, GDTF, tables (CSV, XLSX, ODS) or a show file; several at once. Nothing is written before you say so.
      </Text>
      {trouble !== '' && <Notice state="must fix">{trouble}</Notice>}
      <Text kind="label">Or paste a table, with its heads</Text>
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
        disabled={busy || pasted.trim() === ''}
        onPress={() => void take([new File([pasted], 'a pasted table.csv')])}
      />
    </View>
  );
}
