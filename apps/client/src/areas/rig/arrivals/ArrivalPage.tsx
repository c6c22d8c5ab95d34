/** A file that arrives, beside the show: the answer first, then what is asked, then row by row. */
import { useLocalSearchParams, useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import type { ImportReady } from '@taxiarch/core/whole/contract';
import { noteLastEdit } from '@/data/lastEdit';
import { leaveArrival, useArrival, useWaiting, writeArrival, type Waiting } from '@/data/imports';
import { PageShape, Button, Fold, Notice, Screen, Section, Sentence, Text, count, dayAndTime } from '@/ui';
import { ArrivalRows } from './ArrivalRows';
import { ColumnsOf } from './ColumnsOf';
import { chosenFirst, STATE_WORDS, STATES, type RowState } from './rows';
import { UnknownTypes } from './UnknownTypes';

export function ArrivalPage() {
  const { arrival: id = '' } = useLocalSearchParams<{ arrival: string }>();
  return <Arrival key={id} id={id} />;
}

/** Lines that can be opened: the first of them, and all. */
function Lines({ title, lines, few = 2 }: { title: string; lines: readonly string[]; few?: number }) {
  if (lines.length === 0) return null;
  return (
    <Section title={title}>
      {lines.slice(0, few).map((line) => (
        <Text key={line} kind="small" tone="text">
          {line}
        </Text>
      ))}
      {lines.length > few && (
        <Fold title={`${lines.length - few} more`} of={title}>
          {lines.slice(few).map((line, i) => (
            <Text key={i} kind="small" tone="text" className="py-1">
              {line}
            </Text>
          ))}
        </Fold>
      )}
    </Section>
  );
}

function Arrival({ id }: { id: string }) {
  const router = useRouter();
  const waiting = useWaiting();
  const { reply, error, choose } = useArrival(id);
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState('');
  const goOn = (next: Waiting | undefined) => router.replace(next ? `/rig/arrivals/${next.id}` : '/rig/files');
  const trying = async (act: () => Promise<void>) => {
    setTrouble('');
    setBusy(true);
    try {
      await act();
    } catch (failed) {
      setTrouble((failed as Error).message);
    }
    setBusy(false);
  };
  const leave = () => void trying(async () => goOn(await leaveArrival(id)));
  if (!reply)
    return error ? (
      <Screen
        sentence={<Sentence>This file is not here.</Sentence>}
        acts={<Button label="Leave it" grow onPress={leave} />}
      >
        <Notice state="look at">{error.message}</Notice>
      </Screen>
    ) : (
      <PageShape />
    );
  const at = waiting.findIndex((one) => one.id === id);
  const which = waiting.length > 1 && at >= 0 ? `File ${at + 1} of ${waiting.length}. ` : '';
  if (reply.state === 'working')
    return (
      <Screen
        sentence={<Sentence>Reading {reply.name}…</Sentence>}
        acts={<Button label="Cancel" grow onPress={leave} />}
      >
        <View className="gap-2" role="status">
          <Text>{reply.of > 0 ? `${reply.done} of ${count(reply.of, 'fixture')}` : 'It has just begun.'}</Text>
          <View className="h-2 rounded bg-raised">
            <View
              className="h-2 rounded bg-press"
              style={{ width: `${reply.of > 0 ? (reply.done / reply.of) * 100 : 0}%` }}
            />
          </View>
        </View>
      </Screen>
    );
  if (reply.state === 'refused')
    return (
      <Screen
        sentence={<Sentence>{reply.name} cannot be imported.</Sentence>}
        acts={<Button label="Leave it" grow onPress={leave} />}
      >
        <Notice state="must fix">{reply.why}</Notice>
      </Screen>
    );
  return (
    <Ready
      which={which}
      name={reply.name}
      reply={reply}
      busy={busy}
      trouble={trouble}
      onChoose={(body) => void trying(() => choose(body))}
      onLeave={leave}
      onWrite={(keys, fields) =>
        void trying(async () => {
          const { sentence, next } = await writeArrival(id, keys, fields);
          noteLastEdit(sentence);
          goOn(next);
        })
      }
    />
  );
}

interface ReadyProps {
  which: string;
  name: string;
  reply: ImportReady;
  busy: boolean;
  trouble: string;
  onChoose: (body: Parameters<ReturnType<typeof useArrival>['choose']>[0]) => void;
  onWrite: (keys: readonly string[], fields: readonly string[]) => void;
  onLeave: () => void;
}

/** “12 new, 5 differ, 3 gone, 400 same”, each leading to its rows */
function Answer({
  which,
  name,
  reply,
  onShow,
}: Pick<ReadyProps, 'which' | 'name' | 'reply'> & { onShow: (state: RowState) => void }) {
  const counts = STATES.map((state) => ({ state, count: reply.rows.filter((row) => row.state === state).length }));
  const there = counts.filter((one) => one.count > 0);
  return (
    <View className="gap-1">
      <Sentence>
        {which}
        {name}: {there.length === 0 && 'nothing in it that could be imported.'}
        {there.map(({ state, count: many }, i) => (
          <Text key={state} kind="lead">
            <Text
              kind="lead"
              tone="press"
              role="button"
              aria-label={`Show ${many} ${STATE_WORDS[state]}`}
              className="underline"
              onPress={() => onShow(state)}
            >
              {many} {STATE_WORDS[state]}
            </Text>
            {i < there.length - 1 ? ', ' : '.'}
          </Text>
        ))}
      </Sentence>
      {reply.known !== '' && (
        <Text kind="soft">
          An earlier version was imported on {dayAndTime(reply.known)}; what was decided then is chosen already.
        </Text>
      )}
    </View>
  );
}

function Ready({ which, name, reply, busy, trouble, onChoose, onWrite, onLeave }: ReadyProps) {
  const { rows, notes, brings, unknown, table } = reply;
  const [state, setState] = useState<RowState>();
  const [out, setOut] = useState<ReadonlySet<string>>();
  const [fields, setFields] = useState<readonly string[]>(reply.fields);
  const leftOut = out ?? chosenFirst(rows);
  const chosen = rows.filter((row) => row.state !== 'same' && !leftOut.has(row.key)).map(({ key }) => key);
  const first = STATES.find((one) => rows.some((row) => row.state === one)) ?? 'same';
  const open = unknown.filter(({ settled }) => !settled).length;
  return (
    <Screen
      sentence={<Answer which={which} name={name} reply={reply} onShow={setState} />}
      acts={
        <>
          <Button label="Leave it" onPress={onLeave} />
          <Button
            label={`Import ${count(chosen.length, 'row')}`}
            look="main"
            grow
            disabled={busy || chosen.length === 0}
            onPress={() => onWrite(chosen, fields)}
          />
        </>
      }
    >
      {trouble !== '' && <Notice state="must fix">{trouble}</Notice>}
      {unknown.length > 0 && <UnknownTypes unknown={unknown} open={open} onChoose={(types) => onChoose({ types })} />}
      <Lines title={`${count(brings.length, 'fault')} that importing it all would bring`} lines={brings} />
      {table && (
        <Lines
          title={`${count(table.bad.length, 'cell')} that cannot be read, and ${table.bad.length === 1 ? 'is' : 'are'} left as if empty`}
          lines={table.bad.map(({ line, why }) => `Line ${line}: ${why}`)}
        />
      )}
      <ArrivalRows
        rows={rows}
        state={state ?? first}
        onState={setState}
        out={leftOut}
        onOut={setOut}
        fields={fields}
        onFields={setFields}
      />
      <Lines title={`${count(notes.length, 'note')}: left out, or read otherwise`} lines={notes} few={3} />
      {table && <ColumnsOf table={table} onChoose={(said) => onChoose({ table: said })} />}
    </Screen>
  );
}
