/** How a table is read: its sheet, what its columns mean, from where it counts. It stands behind the answer. */
import { useRef, useState } from 'react';
import { ScrollView, View, type DimensionValue } from 'react-native';
import type { ImportTableReply, TableChoiceBody } from '@taxiarch/core/whole/contract';
import { COLUMNS, UNITS, type Column, type LengthUnit } from '@taxiarch/core/files/format';
import { Button, Choice, Notice, Pick, Section, Text } from '@/ui';
import { Draggable, useDrop } from '@/ui/drag';

const WORDS: Readonly<Record<Column, string>> = {
  number: 'Number',
  written: 'Number as written',
  name: 'Name',
  maker: 'Maker',
  type: 'Type',
  mode: 'Mode',
  address: 'Address',
  universe: 'Universe',
  channel: 'Channel',
  place: 'Place',
  group: 'Group',
  unit: 'Unit number',
  position: 'Hanging position',
  class: 'Class',
  function: 'Function',
  x: 'X, across',
  y: 'Y, along',
  z: 'Z, up',
  gel: 'Gel',
  circuit: 'Circuit',
  notes: 'Notes',
};

const FROM = [
  { value: '1', label: '1' },
  { value: '0', label: '0' },
] as const;

interface Props {
  table: ImportTableReply;
  onChoose: (said: TableChoiceBody) => void;
}

/** A meaning as a card. */
function ColumnCard({ column }: { column: Column }) {
  return (
    <Draggable what={column} style={{ padding: '6px 10px', borderRadius: 6, border: '1px dashed currentColor' }}>
      <Text kind="small">{WORDS[column]}</Text>
    </Draggable>
  );
}

interface HeadProps {
  label: string;
  value: Column | null;
  width: DimensionValue;
  onSet: (column: Column | null) => void;
}

/** The head of a column: drop a card on it, or choose. */
function ColumnHead({ label, value, width, onSet }: HeadProps) {
  const target = useRef<HTMLDivElement>(null);
  const over = useDrop(target, (dropped) => {
    const column = COLUMNS.find((one) => one === dropped);
    if (column) onSet(column);
  });
  return (
    <div ref={target} style={{ width: width as number, outline: over ? '2px dashed currentColor' : 'none' }}>
      <Pick
        label={label}
        options={[
          { value: '', label: 'left out' },
          ...COLUMNS.map((column) => ({ value: column, label: WORDS[column] })),
        ]}
        value={value ?? ''}
        onChange={(column) => onSet(column === '' ? null : (column as Column))}
      />
    </div>
  );
}

/** The meanings as cards that can be dragged onto a column's head, or chosen there. */
function ColumnHeads({ table, onChoose }: Props) {
  const { columns, heads, sample } = table;
  const set = (at: number, column: Column | null) =>
    onChoose({
      columns: columns.map((one, i) => (i === at ? column : one === column ? null : one)).map((one) => one ?? ''),
    });
  const width: DimensionValue = 150;
  return (
    <View className="gap-2">
      <View className="flex-row flex-wrap gap-1">
        {COLUMNS.filter((column) => !columns.includes(column)).map((column) => (
          <ColumnCard key={column} column={column} />
        ))}
      </View>
      <ScrollView horizontal>
        <View>
          <View className="flex-row gap-1">
            {heads.map((head, i) => (
              <ColumnHead
                key={i}
                label={head || `Column ${i + 1}`}
                value={columns[i] ?? null}
                width={width}
                onSet={(column) => set(i, column)}
              />
            ))}
          </View>
          {sample.map((row, i) => (
            <View key={i} className="flex-row gap-1 border-b border-line py-1">
              {heads.map((_, at) => (
                <Text key={at} kind="small" numberOfLines={1} style={{ width }}>
                  {row[at] ?? ''}
                </Text>
              ))}
            </View>
          ))}
        </View>
      </ScrollView>
    </View>
  );
}

/** What can be read in two ways is asked, and not read before it is answered. */
function Questions({ table: { questions, bad }, onChoose }: Props) {
  if (questions.length === 0) return null;
  const why = (part: RegExp) => bad.find((one) => part.test(one.why))?.why ?? '';
  return (
    <View className="gap-2">
      {questions.includes('dates') && (
        <Notice
          state="must fix"
          act={
            <>
              <Button label="Day first" onPress={() => onChoose({ dates: 'day first' })} />
              <Button label="Month first" onPress={() => onChoose({ dates: 'month first' })} />
            </>
          }
        >
          {why(/made a date of this address/)}
        </Notice>
      )}
      {questions.includes('decimals') && (
        <Notice
          state="must fix"
          act={<Button label="Numbers mean what they show" onPress={() => onChoose({ decimals: 'as shown' })} />}
        >
          {why(/is a number: it may have been/)}
        </Notice>
      )}
      {questions.includes('commas') && (
        <Notice
          state="must fix"
          act={
            <>
              <Button label="Decimal comma" onPress={() => onChoose({ commas: 'decimal' })} />
              <Button label="Thousands" onPress={() => onChoose({ commas: 'thousands' })} />
            </>
          }
        >
          {why(/Say what the comma is/)}
        </Notice>
      )}
    </View>
  );
}

export function ColumnsOf({ table, onChoose }: Props) {
  const { columns, unit, channelBase, universeBase, sheets, sheet, also } = table;
  // While nothing can be made of the table, how it is read is what is asked.
  const [open, setOpen] = useState(!columns.some((column) => column !== null));
  return (
    <Section title="How it is read">
      <Questions table={table} onChoose={onChoose} />
      <View className="flex-row items-center gap-2">
        <Text kind="small" className="flex-1">
          {table.headLine > 0 ? `Heads in line ${table.headLine}` : 'No heads'}:{' '}
          {columns.flatMap((column) => (column ? WORDS[column].toLowerCase() : [])).join(', ')}; channels from{' '}
          {channelBase}, universes from {universeBase}, lengths in {unit}.
        </Text>
        <Button label={open ? 'Done' : 'Read it otherwise'} onPress={() => setOpen(!open)} />
      </View>
      {open && (
        <>
          {sheets.length > 1 && (
            <Pick
              label="Sheet"
              options={sheets.map((name, i) => ({ value: String(i), label: name || `Sheet ${i + 1}` }))}
              value={String(sheet)}
              onChange={(at) => onChoose({ sheet: Number(at) })}
            />
          )}
          {sheets.length > 1 && (
            <View className="flex-row flex-wrap gap-2">
              {sheets.map((name, i) =>
                i === sheet ? null : (
                  <Button
                    key={i}
                    label={
                      also.includes(i)
                        ? `Leave out ${name || `sheet ${i + 1}`}`
                        : `Read ${name || `sheet ${i + 1}`} too`
                    }
                    onPress={() =>
                      onChoose({ also: also.includes(i) ? also.filter((one) => one !== i) : [...also, i] })
                    }
                  />
                ),
              )}
            </View>
          )}
          <ColumnHeads table={table} onChoose={onChoose} />
          <View className="flex-row gap-2">
            <View className="flex-1">
              <Pick
                label="Lengths in"
                options={Object.keys(UNITS).map((one) => ({ value: one, label: one }))}
                value={unit}
                onChange={(next) => onChoose({ unit: next as LengthUnit })}
              />
            </View>
            <View className="flex-1 gap-1">
              <Text kind="label">Channels from</Text>
              <Choice
                label="Channels from"
                options={FROM}
                value={String(channelBase) as '0' | '1'}
                onChange={(base) => onChoose({ channelBase: base === '0' ? 0 : 1 })}
              />
            </View>
            <View className="flex-1 gap-1">
              <Text kind="label">Universes from</Text>
              <Choice
                label="Universes from"
                options={FROM}
                value={String(universeBase) as '0' | '1'}
                onChange={(base) => onChoose({ universeBase: base === '0' ? 0 : 1 })}
              />
            </View>
          </View>
        </>
      )}
    </Section>
  );
}
