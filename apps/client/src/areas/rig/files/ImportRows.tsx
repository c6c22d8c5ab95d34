/** What a file would change, row by row; each can be left out. */
import { useMemo, useState } from 'react';
import { FlatList, Pressable, View } from 'react-native';
import type { ImportRowReply } from '@taxiarch/core/contract';
import { DIFFERENCE_WORDS } from '@taxiarch/core/format';
import { giveBack, take } from '@/data/output';
import { Button, CheckBox, Choice, Notice, Text, count } from '@/ui';

const STATES = ['added', 'changed', 'gone', 'same'] as const;
type State = (typeof STATES)[number];
const WORDS: Readonly<Record<State, string>> = { added: 'new', changed: 'differ', gone: 'gone', same: 'same' };
const ROW = 56;
/** So high a list, so that the acts below it stay in sight. */
const LIST_HEIGHT = 420;

interface Props {
  rows: readonly ImportRowReply[];
  busy: boolean;
  onWrite: (keys: readonly string[]) => void;
  onCancel: () => void;
}

export function ImportRows({ rows, busy, onWrite, onCancel }: Props) {
  const counts = useMemo(() => {
    const found: Record<State, number> = { added: 0, changed: 0, gone: 0, same: 0 };
    for (const { state } of rows) found[state] += 1;
    return found;
  }, [rows]);
  const [state, setState] = useState<State>(STATES.find((one) => counts[one] > 0) ?? 'same');
  // What is gone stays in the show unless a person says otherwise.
  const [out, setOut] = useState<ReadonlySet<string>>(
    () => new Set(rows.filter((row) => row.state === 'gone' || row.state === 'same').map(({ key }) => key)),
  );
  const shown = useMemo(() => rows.filter((row) => row.state === state), [rows, state]);
  const chosen = rows.filter(({ key, state: is }) => is !== 'same' && !out.has(key)).map(({ key }) => key);
  const toggle = (keys: readonly string[], within: boolean) => {
    const next = new Set(out);
    for (const key of keys) {
      if (within) next.delete(key);
      else next.add(key);
    }
    setOut(next);
  };
  const [lit, setLit] = useState<string>();
  const [trouble, setTrouble] = useState('');
  /** Lights a lamp where the show has it and where the file has it: whichever moves is right. */
  const prove = (key: string, light: Readonly<Record<string, number>>) => {
    setTrouble('');
    const was = rows.find((row) => row.key === lit)?.light;
    setLit(lit === key ? undefined : key);
    void (was ? giveBack(Object.keys(was)) : Promise.resolve())
      .then(() => (lit === key ? undefined : take(light)))
      .catch((error: Error) => {
        setLit(undefined);
        setTrouble(error.message);
      });
  };
  const all = shown.every(({ key }) => !out.has(key));
  return (
    <View className="gap-3">
      <Choice
        label="Rows"
        options={STATES.map((one) => ({ value: one, label: `${counts[one]} ${WORDS[one]}` }))}
        value={state}
        onChange={setState}
      />
      {state !== 'same' && shown.length > 0 && (
        <Button
          label={all ? `Leave out all ${shown.length}` : `Take all ${shown.length}`}
          onPress={() =>
            toggle(
              shown.map(({ key }) => key),
              !all,
            )
          }
        />
      )}
      <View style={{ height: Math.min(LIST_HEIGHT, Math.max(1, shown.length) * ROW) }}>
        <FlatList
          data={shown}
          keyExtractor={({ key }) => key}
          getItemLayout={(_, index) => ({ length: ROW, offset: ROW * index, index })}
          ListEmptyComponent={<Text kind="soft">None.</Text>}
          renderItem={({ item: { key, subject, says, differs, light } }) => {
            const on = !out.has(key) && state !== 'same';
            return (
              <View className="h-14 flex-row items-center border-b border-line">
                <Pressable
                  role="checkbox"
                  aria-checked={on}
                  aria-label={subject}
                  disabled={state === 'same'}
                  onPress={() => toggle([key], out.has(key))}
                  className="h-14 min-w-0 flex-1 flex-row items-center gap-3"
                >
                  {state !== 'same' && <CheckBox on={on} />}
                  <View className="flex-1">
                    <Text numberOfLines={1}>{subject}</Text>
                    <Text kind="small" numberOfLines={1}>
                      {differs.length > 0 && `${differs.map((one) => DIFFERENCE_WORDS[one]).join(', ')}: `}
                      {says.join('; ')}
                    </Text>
                  </View>
                </Pressable>
                {light && (
                  <Button
                    label={lit === key ? `Give back ${subject}` : `Light both, ${subject}`}
                    short={lit === key ? 'Give back' : 'Light both'}
                    onPress={() => prove(key, light)}
                  />
                )}
              </View>
            );
          }}
        />
      </View>
      {trouble !== '' && <Notice state="must fix">{trouble}</Notice>}
      {lit !== undefined && (
        <Text kind="small">
          Lit where the show has it and where the file has it. See what moves, in Listen or on the stage.
        </Text>
      )}
      <View className="flex-row gap-2">
        <Button label="Leave it" onPress={onCancel} />
        <Button
          label={chosen.length === 1 && rows.length === 1 ? 'Write it' : `Write ${count(chosen.length, 'row')}`}
          look="main"
          grow
          disabled={busy || chosen.length === 0}
          onPress={() => onWrite(chosen)}
        />
      </View>
    </View>
  );
}
