/** A file that the server reads: choosing it, watching it being read, choosing rows, writing. */
import { useRef, useState } from 'react';
import { View } from 'react-native';
import type { ImportKind, ImportReply } from '@taxiarch/core/contract';
import { noteLastEdit } from '@/data/lastEdit';
import { cancelImport, sendFile, useImport, writeImport } from '@/data/imports';
import { Button, Notice, Text } from '@/ui';
import { ImportRows } from './ImportRows';

const KINDS: Readonly<Record<string, ImportKind>> = { mvr: 'mvr', gdtf: 'gdtf', json: 'show' };

/** Which reader a file wants, by the end of its name; undefined if none. */
const kindOf = (name: string): ImportKind | undefined => KINDS[name.toLowerCase().split('.').pop() ?? ''];

interface Props {
  onTable: (text: string, name: string) => void;
}

export function FileImport({ onTable }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const [first, setFirst] = useState<ImportReply>();
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState('');
  const reply = useImport(first);

  const trying = async (act: () => Promise<void>) => {
    setTrouble('');
    setBusy(true);
    try {
      await act();
    } catch (error) {
      setTrouble((error as Error).message);
    }
    setBusy(false);
  };

  const take = (file: File) =>
    trying(async () => {
      if (/\.(csv|tsv|txt)$/i.test(file.name)) return onTable(await file.text(), file.name);
      const kind = kindOf(file.name);
      if (!kind) throw new Error(`“${file.name}” is of no kind that is read. Choose an MVR, GDTF, CSV or show file.`);
      setFirst(await sendFile(kind, file));
    });

  const forget = () => {
    if (first) void cancelImport(first.id);
    setFirst(undefined);
  };

  return (
    <View className="gap-3">
      <input
        ref={input}
        type="file"
        aria-label="File to import"
        accept=".mvr,.gdtf,.csv,.tsv,.txt,.json"
        style={{ display: 'none' }}
        onChange={({ target }) => {
          const file = target.files?.[0];
          target.value = '';
          if (file) void take(file);
        }}
      />
      {!reply && <Button label="Choose a file" look="main" disabled={busy} onPress={() => input.current?.click()} />}
      {!reply && <Text kind="small">MVR, GDTF, CSV or a show file. Nothing is written before you say so.</Text>}
      {reply?.state === 'working' && (
        <View className="gap-2" role="status">
          <Text>
            Reading {reply.name}
            {reply.of > 0 ? `: ${reply.done} of ${reply.of} lamps` : '…'}
          </Text>
          <View className="h-2 rounded bg-raised">
            <View
              className="h-2 rounded bg-press"
              style={{ width: `${reply.of > 0 ? (reply.done / reply.of) * 100 : 0}%` }}
            />
          </View>
          <Button label="Cancel" onPress={forget} />
        </View>
      )}
      {reply?.state === 'refused' && (
        <Notice state="must fix" act={<Button label="Choose another file" onPress={forget} />}>
          {reply.why}
        </Notice>
      )}
      {reply?.state === 'ready' && (
        <View className="gap-2">
          <Text kind="strong">{reply.name}</Text>
          {reply.notes.slice(0, 5).map((note) => (
            <Text key={note} kind="small" tone="warn">
              {note}
            </Text>
          ))}
          {reply.notes.length > 5 && <Text kind="small">and {reply.notes.length - 5} more notes.</Text>}
          <ImportRows
            key={reply.id}
            rows={reply.rows}
            busy={busy}
            onCancel={forget}
            onWrite={(keys) =>
              void trying(async () => {
                const { sentence } = await writeImport(reply.id, keys);
                setFirst(undefined);
                noteLastEdit(sentence);
              })
            }
          />
        </View>
      )}
      {trouble !== '' && <Notice state="must fix">{trouble}</Notice>}
    </View>
  );
}
