/** Pushing to nodes: what was sent, field by field how it came out, and what is left to set by hand. */
import { useState } from 'react';
import { View } from 'react-native';
import type { PushResult } from '@taxiarch/core/network/node';
import { useHot } from '@/data/live';
import { pushToNodes } from '@/data/machines';
import { makeHot } from '@/data/output';
import { useShow } from '@/data/show';
import { Button, Notice, Section, StateWord, Text } from '@/ui';

/** State of a push, for a screen that shows its button and its outcome apart. */
export function usePush() {
  const [results, setResults] = useState<readonly PushResult[]>([]);
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const hot = useHot();
  const push = async (machineIds: readonly string[], snapshotId?: string) => {
    setBusy(true);
    setTrouble('');
    setResults([]);
    try {
      if (!hot) await makeHot(true);
      setResults((await pushToNodes(machineIds, snapshotId)).results);
    } catch (error) {
      setTrouble((error as Error).message);
    }
    setBusy(false);
  };
  return { results, trouble, busy, hot, push };
}

export type Push = ReturnType<typeof usePush>;

export function PushButton({ push, machineIds, label }: { push: Push; machineIds: readonly string[]; label: string }) {
  const word = push.busy
    ? 'Pushing…'
    : push.hot
      ? label
      : `Make hot and ${label.charAt(0).toLowerCase()}${label.slice(1)}`;
  return (
    <Button
      label={word}
      look={push.hot ? 'main' : 'hot'}
      grow
      disabled={push.busy || machineIds.length === 0}
      onPress={() => void push.push(machineIds)}
    />
  );
}

function Outcome({ result, name }: { result: PushResult; name: string }) {
  if (result.trouble !== '' && result.fields.length === 0) return <Notice state="must fix">{result.trouble}</Notice>;
  return (
    <View className="gap-1">
      <Text kind="strong">{name}</Text>
      {result.trouble !== '' && <Notice state="must fix">{result.trouble}</Notice>}
      {result.fields.length === 0 && <Text>It was as planned already; nothing was sent.</Text>}
      {result.fields.map(({ what, planned, seen, state, panel }) => (
        <View key={what} className="gap-1 border-b border-line py-2">
          <View className="flex-row items-center gap-2">
            <Text className="flex-1">{what}</Text>
            <StateWord state={state} />
          </View>
          <Text kind="monoSmall">
            {state === 'done' ? `${seen} → ${planned}` : `${planned} planned, ${seen} there`}
          </Text>
          {state !== 'done' && panel !== '' && <Text>{panel}</Text>}
        </View>
      ))}
      {result.byHand.length > 0 && (
        <View className="gap-1 py-2">
          <StateWord state="not supported" />
          <Text>No packet sets or tells these. Set them at the front panel:</Text>
          {result.byHand.map((sentence) => (
            <Text key={sentence}>{sentence}</Text>
          ))}
        </View>
      )}
    </View>
  );
}

export function PushOutcome({ push: { results, trouble } }: { push: Push }) {
  const { records } = useShow();
  if (trouble !== '') return <Notice state="must fix">{trouble}</Notice>;
  if (results.length === 0) return null;
  return (
    <Section title="What the push did">
      {results.map((result) => (
        <Outcome
          key={result.machineId}
          result={result}
          name={records.machine.find(({ id }) => id === result.machineId)?.name ?? 'A machine'}
        />
      ))}
    </Section>
  );
}
