/** What a file would change, row by row and field by field: found by kind of change, chosen many at once. */
import { useMemo, useState } from 'react';
import { FlatList, Pressable, View } from 'react-native';
import { LAMP_FIELDS, DIFFERENCE_WORDS } from '@taxiarch/core/files/arrival';
import type { ImportRowReply } from '@taxiarch/core/whole/contract';
import { useListChoice } from '@/data/preferences';
import { giveBack, take } from '@/data/output';
import { Button, Check, CheckBox, Choice, Field, Fold, Notice, Pick, Text } from '@/ui';
import { fieldsIn, shownRows, STATE_WORDS, STATES, type RowState } from './rows';

/** So high a list, so that what stands below it stays in sight. */
const LIST_HEIGHT = 480;
/** Rows shown without a list of their own */
const FEW = 8;

interface Props {
  rows: readonly ImportRowReply[];
  state: RowState;
  onState: (state: RowState) => void;
  /** Keys of rows that are left out */
  out: ReadonlySet<string>;
  onOut: (out: ReadonlySet<string>) => void;
  /** Fields that stay as they are */
  fields: readonly string[];
  onFields: (fields: readonly string[]) => void;
}

function Changes({ row: { fields, differs }, leave }: { row: ImportRowReply; leave: ReadonlySet<string> }) {
  const few = fields.slice(0, 3);
  const line = ({ field, was, is }: ImportRowReply['fields'][number], i: number) => (
    <Text
      key={i}
      kind="small"
      tone={leave.has(field) ? undefined : 'text'}
      className={leave.has(field) ? 'line-through' : ''}
    >
      {field} {was || 'none'} → {is || 'none'}
    </Text>
  );
  return (
    <>
      {differs.length > 0 && <Text kind="small">{differs.map((one) => DIFFERENCE_WORDS[one]).join(', ')}</Text>}
      {few.map(line)}
      {fields.length > few.length && (
        <Fold title={`${fields.length - few.length} more`} of="changes">
          {fields.slice(few.length).map(line)}
        </Fold>
      )}
    </>
  );
}

export function ArrivalRows({ rows, state, onState, out, onOut, fields, onFields }: Props) {
  const [field, setField] = useState('');
  const [query, setQuery] = useListChoice('arrival search', '');
  const [lit, setLit] = useState<string>();
  const [trouble, setTrouble] = useState('');
  const inState = useMemo(() => rows.filter((row) => row.state === state), [rows, state]);
  const kinds = useMemo(() => fieldsIn(inState), [inState]);
  const shown = useMemo(() => shownRows(rows, { state, field, query }), [rows, state, field, query]);
  const leave = new Set(fields);
  const toggle = (keys: readonly string[], within: boolean) => {
    const next = new Set(out);
    for (const key of keys) {
      if (within) next.delete(key);
      else next.add(key);
    }
    onOut(next);
  };
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
  const leavable = kinds.filter((one) => (LAMP_FIELDS as readonly string[]).includes(one.field));
  const row = (item: ImportRowReply) => {
    const { key, subject, light } = item;
    const on = !out.has(key) && state !== 'same';
    return (
      <View key={key} className="flex-row items-start border-b border-line py-1">
        <Pressable
          role="checkbox"
          aria-checked={on}
          aria-label={subject}
          disabled={state === 'same'}
          onPress={() => toggle([key], out.has(key))}
          className="min-h-12 w-10 items-start justify-start pt-2"
        >
          {state !== 'same' && <CheckBox on={on} />}
        </Pressable>
        <View className="min-h-12 flex-1 justify-center py-1">
          <Text numberOfLines={1}>{subject}</Text>
          <Changes row={item} leave={leave} />
        </View>
        {light && (
          <Button
            label={lit === key ? `Give back ${subject}` : `Light both, ${subject}`}
            short={lit === key ? 'Give back' : 'Light both'}
            onPress={() => prove(key, light)}
          />
        )}
      </View>
    );
  };
  return (
    <View className="gap-3">
      <Choice
        label="Rows"
        options={STATES.map((one) => ({
          value: one,
          label: `${rows.filter((each) => each.state === one).length} ${STATE_WORDS[one]}`,
        }))}
        value={state}
        onChange={(next) => {
          setField('');
          onState(next);
        }}
      />
      {inState.length > FEW && (
        <View className="flex-row gap-2">
          <View className="flex-1">
            <Field label="Find rows" hideLabel value={query} onChange={setQuery} placeholder="Find rows" />
          </View>
          {kinds.length > 1 && (
            <View className="flex-1">
              <Pick
                label="Kind of change"
                hideLabel
                options={[
                  { value: '', label: 'Every change' },
                  ...kinds.map((one) => ({ value: one.field, label: `${one.field}, ${one.count}` })),
                ]}
                value={field}
                onChange={setField}
              />
            </View>
          )}
        </View>
      )}
      {state !== 'same' && shown.length > 1 && (
        <Button
          label={all ? `Leave out all ${shown.length}` : `Choose all ${shown.length}`}
          onPress={() =>
            toggle(
              shown.map(({ key }) => key),
              !all,
            )
          }
        />
      )}
      {state === 'changed' && leavable.length > 0 && (
        <Fold
          title={fields.length > 0 ? `Left as they are: ${fields.join(', ')}` : 'Leave some fields as they are'}
          of="changed lamps"
        >
          {leavable.map((one) => (
            <Check
              key={one.field}
              label={`Import ${one.field}, ${one.count}`}
              on={!leave.has(one.field)}
              onChange={(on) => onFields(on ? fields.filter((name) => name !== one.field) : [...fields, one.field])}
            />
          ))}
        </Fold>
      )}
      {shown.length === 0 && <Text kind="soft">None.</Text>}
      {shown.length <= FEW ? (
        <View>{shown.map(row)}</View>
      ) : (
        <View style={{ height: LIST_HEIGHT }}>
          <FlatList data={shown} keyExtractor={({ key }) => key} renderItem={({ item }) => row(item)} />
        </View>
      )}
      {trouble !== '' && <Notice state="must fix">{trouble}</Notice>}
      {lit !== undefined && (
        <Text kind="small">
          Lit where the show has it and where the file has it. See what moves, in Listen or on the stage.
        </Text>
      )}
    </View>
  );
}
