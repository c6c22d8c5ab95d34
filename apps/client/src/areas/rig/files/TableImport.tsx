/** A table of lamps: what its columns mean, in which units, which rows are bad and why, and what would change. */
import { useMemo, useState } from 'react';
import { ScrollView, View, type DimensionValue } from 'react-native';
import {
  COLUMNS,
  UNITS,
  compareRig,
  guessColumns,
  planImport,
  readLampTable,
  readTable,
  type Column,
  type LengthUnit,
  type Table,
  type TableChoices,
} from '@taxiarch/core/format';
import { propose, useShow } from '@/data/show';
import { Button, Check, Choice, Notice, Pick, Section, Text, count } from '@/ui';
import { newId } from '@/data/numbers';
import { useTypes } from '../types/choose';
import { ImportRows } from './ImportRows';

const WORDS: Readonly<Record<Column, string>> = {
  number: 'Number',
  name: 'Name',
  maker: 'Maker',
  type: 'Type',
  mode: 'Mode',
  address: 'Address',
  universe: 'Universe',
  channel: 'Channel',
  place: 'Place',
  group: 'Group',
  x: 'X, across',
  y: 'Y, along',
  z: 'Z, up',
};

const FROM = [
  { value: '1', label: '1' },
  { value: '0', label: '0' },
] as const;

/** The meanings as cards that can be dragged onto a column's head, or chosen there. */
function ColumnHeads({
  table,
  columns,
  onChange,
}: {
  table: Table;
  columns: TableChoices['columns'];
  onChange: (columns: TableChoices['columns']) => void;
}) {
  const set = (at: number, column: Column | null) =>
    onChange(columns.map((one, i) => (i === at ? column : one === column ? null : one)));
  const width: DimensionValue = 150;
  return (
    <View className="gap-2">
      <View className="flex-row flex-wrap gap-1">
        {COLUMNS.filter((column) => !columns.includes(column)).map((column) => (
          <div
            key={column}
            draggable
            onDragStart={(event) => event.dataTransfer.setData('text/plain', column)}
            style={{ padding: '6px 10px', borderRadius: 6, border: '1px dashed currentColor', cursor: 'grab' }}
          >
            <Text kind="small">{WORDS[column]}</Text>
          </div>
        ))}
      </View>
      <ScrollView horizontal>
        <View>
          <View className="flex-row gap-1">
            {table.heads.map((head, i) => (
              <div
                key={i}
                onDragOver={(event) => event.preventDefault()}
                onDrop={(event) => {
                  event.preventDefault();
                  const dropped = event.dataTransfer.getData('text/plain');
                  const column = COLUMNS.find((one) => one === dropped);
                  if (column) set(i, column);
                }}
                style={{ width }}
              >
                <Pick
                  label={head || `Column ${i + 1}`}
                  options={[
                    { value: '', label: 'left out' },
                    ...COLUMNS.map((column) => ({ value: column, label: WORDS[column] })),
                  ]}
                  value={columns[i] ?? ''}
                  onChange={(column) => set(i, column === '' ? null : (column as Column))}
                />
              </div>
            ))}
          </View>
          {table.rows.slice(0, 3).map((row, i) => (
            <View key={i} className="flex-row gap-1 border-b border-line py-1">
              {table.heads.map((_, at) => (
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

export function TableImport({ text, name, onLeave }: { text: string; name: string; onLeave: () => void }) {
  const table = useMemo(() => readTable(text), [text]);
  if (!table.ok)
    return (
      <Notice state="must fix" act={<Button label="Leave it" onPress={onLeave} />}>
        {table.why}
      </Notice>
    );
  return <TableChoicesView table={table.value} name={name} onLeave={onLeave} />;
}

function TableChoicesView({ table, name, onLeave }: { table: Table; name: string; onLeave: () => void }) {
  const show = useShow();
  const types = useTypes();
  const [choices, setChoices] = useState<TableChoices>(() => ({
    columns: guessColumns(table.heads),
    unit: 'm',
    channelBase: 1,
    universeBase: 1,
  }));
  const [skip, setSkip] = useState(false);
  /** How the table is read is asked for while nothing can be made of it; else the answer stands first. */
  const [asked, setReading] = useState<boolean>();
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState('');
  const { incoming, bad } = useMemo(
    () => readLampTable(table, choices, types, show.records),
    [table, choices, types, show.records],
  );
  const reading = asked ?? (incoming.lamps.length === 0 && table.rows.length > 0);
  const rows = useMemo(() => compareRig(show, incoming), [show, incoming]);
  const set = (part: Partial<TableChoices>) => setChoices({ ...choices, ...part });
  const write = async (keys: readonly string[]) => {
    setBusy(true);
    setTrouble('');
    try {
      const chosen = new Set(keys);
      const plan = planImport(
        show,
        incoming,
        rows.filter(({ key }) => chosen.has(key)),
        `Imported ${name}`,
        newId,
      );
      await propose(plan.sentence, plan.changes);
      onLeave();
    } catch (error) {
      setTrouble((error as Error).message);
    }
    setBusy(false);
  };
  return (
    <View className="gap-3">
      <Text kind="strong">
        {name}: {count(table.rows.length, 'row')}
      </Text>
      <View className="flex-row items-center gap-2">
        <Text kind="small" className="flex-1">
          Read as {choices.columns.flatMap((column) => (column ? WORDS[column].toLowerCase() : [])).join(', ')};
          channels from {choices.channelBase}, universes from {choices.universeBase}, lengths in {choices.unit}.
        </Text>
        <Button label={reading ? 'Done' : 'Read it otherwise'} onPress={() => setReading(!reading)} />
      </View>
      {reading && (
        <>
          <ColumnHeads table={table} columns={choices.columns} onChange={(columns) => set({ columns })} />
          <View className="flex-row gap-2">
            <View className="flex-1">
              <Pick
                label="Lengths in"
                options={Object.keys(UNITS).map((unit) => ({ value: unit, label: unit }))}
                value={choices.unit}
                onChange={(unit) => set({ unit: unit as LengthUnit })}
              />
            </View>
            <View className="flex-1 gap-1">
              <Text kind="label">Channels from</Text>
              <Choice
                label="Channels from"
                options={FROM}
                value={String(choices.channelBase) as '0' | '1'}
                onChange={(base) => set({ channelBase: base === '0' ? 0 : 1 })}
              />
            </View>
            <View className="flex-1 gap-1">
              <Text kind="label">Universes from</Text>
              <Choice
                label="Universes from"
                options={FROM}
                value={String(choices.universeBase) as '0' | '1'}
                onChange={(base) => set({ universeBase: base === '0' ? 0 : 1 })}
              />
            </View>
          </View>
        </>
      )}
      {bad.length > 0 && (
        <Section title={`${count(bad.length, 'row')} that cannot be taken`}>
          {bad.slice(0, 20).map(({ line, why }) => (
            <Text key={line} kind="small" tone="warn">
              Line {line}: {why}
            </Text>
          ))}
          {bad.length > 20 && <Text kind="small">and {bad.length - 20} more.</Text>}
          <Check label="Skip these rows and take the others" on={skip} onChange={setSkip} />
        </Section>
      )}
      {trouble !== '' && <Notice state="must fix">{trouble}</Notice>}
      {(bad.length === 0 || skip) && (
        <ImportRows
          key={`${JSON.stringify(choices)}`}
          rows={rows}
          busy={busy}
          onCancel={onLeave}
          onWrite={(keys) => void write(keys)}
        />
      )}
      {bad.length > 0 && !skip && <Button label="Leave it" onPress={onLeave} />}
    </View>
  );
}
