/** The table of what a sender sends: lines shown, added, changed one by one or many at once, taken out. */
import { useState } from 'react';
import { Pressable, View } from 'react-native';
import { goesBySacn, lineGoesTo, lineSays, rangeText } from '@taxiarch/core/network/flow';
import { DELIVERIES, type SendLine, type Universe } from '@taxiarch/core/show/records';
import { Button, CheckBox, Field, Notice, Pick, Text } from '@/ui';
import { SAME, UNTOUCHED, lineFormOf, linesFrom, newLine, setLines, type LineForm } from './lineForm';

const asTheyAre = { value: SAME, label: 'as they are' };
const YES_NO = [
  { value: 'yes', label: 'yes' },
  { value: 'no', label: 'no' },
];
const PROTOCOLS = [
  { value: 'planned', label: 'as planned' },
  { value: 'sacn', label: 'sACN from' },
  { value: 'artnet', label: 'Art-Net from' },
];

interface Props {
  lines: readonly SendLine[];
  onChange: (lines: readonly SendLine[]) => void;
  planned: ReadonlyMap<number, Universe>;
  /** Frames a second of a new line */
  rate: number;
  interfaces: readonly string[];
}

export function SenderLines({ lines, onChange, planned, rate, interfaces }: Props) {
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  const [form, setForm] = useState<LineForm>();
  const [why, setWhy] = useState('');
  const many = chosen.size > 1;

  const choose = (next: ReadonlySet<number>) => {
    const [only, ...others] = next;
    setChosen(next);
    setWhy('');
    setForm(only === undefined ? undefined : others.length > 0 ? UNTOUCHED : lineFormOf(lines[only]!));
  };
  const done = (next: readonly SendLine[]) => {
    onChange(next);
    setChosen(new Set());
    setForm(undefined);
    setWhy('');
  };
  const put = () => {
    if (!form) return;
    const made = many ? setLines(lines, chosen, form) : linesFrom(form);
    if (!made.ok) return setWhy(made.why);
    if (many) return done(made.value);
    const [only] = chosen;
    done(
      only === undefined
        ? [...lines, ...made.value]
        : [...lines.slice(0, only), ...made.value, ...lines.slice(only + 1)],
    );
  };

  return (
    <View className="gap-2">
      {lines.length === 0 && <Text kind="small">It sends nothing yet.</Text>}
      {lines.map((line, i) => (
        <Pressable
          key={i}
          role="checkbox"
          aria-checked={chosen.has(i)}
          aria-label={`Universes ${rangeText(line)}`}
          onPress={() => {
            const next = new Set(chosen);
            if (!next.delete(i)) next.add(i);
            choose(next);
          }}
          className="min-h-12 flex-row items-center gap-3 border-b border-line py-2"
        >
          <CheckBox on={chosen.has(i)} />
          <View className="flex-1">
            <Text tone={line.on ? 'text' : 'soft'}>
              {rangeText(line)} → {lineGoesTo(line, planned)}
            </Text>
            <Text kind="small">{lineSays(line, goesBySacn(line, planned))}</Text>
          </View>
        </Pressable>
      ))}
      <View className="flex-row gap-2">
        {form === undefined && <Button label="Add a line" grow onPress={() => setForm(newLine(rate))} />}
        {lines.length > 1 && chosen.size < lines.length && (
          <Button label="Choose all lines" grow onPress={() => choose(new Set(lines.keys()))} />
        )}
        {chosen.size > 0 && (
          <Button label="Delete lines" grow onPress={() => done(lines.filter((_, i) => !chosen.has(i)))} />
        )}
      </View>
      {form && (
        <View className="gap-2 rounded border border-line p-3" role="group" aria-label="Line">
          <Text kind="strong">
            {many ? `Set on ${chosen.size} lines at once` : chosen.size === 1 ? 'This line' : 'A new line'}
          </Text>
          <LineFields form={form} set={(next) => setForm({ ...form, ...next })} many={many} interfaces={interfaces} />
          {why !== '' && <Notice state="must fix">{why}</Notice>}
          <View className="flex-row gap-2">
            <Button label="Leave it" grow onPress={() => choose(new Set())} />
            <Button label="Put in the table" look="main" grow onPress={put} />
          </View>
        </View>
      )}
    </View>
  );
}

interface FieldsProps {
  form: LineForm;
  set: (next: Partial<LineForm>) => void;
  many: boolean;
  interfaces: readonly string[];
}

function LineFields({ form, set, many, interfaces }: FieldsProps) {
  const options = (all: readonly { value: string; label: string }[]) => (many ? [asTheyAre, ...all] : all);
  const yes = options(YES_NO);
  return (
    <>
      {!many && (
        <Field
          label="Show universes"
          mono
          placeholder="1-100"
          value={form.universes}
          onChange={(universes) => set({ universes })}
        />
      )}
      <View className="flex-row gap-2">
        <View className="flex-1">
          <Pick
            label="Go to"
            options={options(PROTOCOLS)}
            value={form.protocol}
            onChange={(protocol) => set({ protocol })}
          />
        </View>
        {(form.protocol === 'sacn' || form.protocol === 'artnet') && (
          <View className="flex-1">
            <Field
              label={form.protocol === 'sacn' ? 'First, counted from 1' : 'First, from 0 or as 0.0.0'}
              mono
              value={form.wire}
              onChange={(wire) => set({ wire })}
            />
          </View>
        )}
      </View>
      <View className="flex-row gap-2">
        <View className="flex-1">
          <Pick
            label="Delivery"
            options={options(DELIVERIES.map((value) => ({ value, label: value })))}
            value={form.delivery}
            onChange={(delivery) => set({ delivery })}
          />
        </View>
        {form.delivery === 'unicast' && (
          <View className="flex-1">
            <Field
              label="To the addresses"
              mono
              placeholder="10.0.0.31 10.0.0.32"
              value={form.addresses}
              onChange={(addresses) => set({ addresses })}
            />
          </View>
        )}
      </View>
      {interfaces.length > 1 && (
        <Pick
          label="Leaves by"
          options={[
            { value: '', label: many ? 'as they are' : 'any interface' },
            ...interfaces.map((value) => ({ value, label: value })),
          ]}
          value={form.interface}
          onChange={(name) => set({ interface: name })}
        />
      )}
      <View className="flex-row gap-2">
        <View className="flex-1">
          <Field label="Frames a second" mono value={form.rate} onChange={(rate) => set({ rate })} />
        </View>
        {form.protocol !== 'artnet' && (
          <View className="flex-1">
            <Field label="sACN priority" mono value={form.priority} onChange={(priority) => set({ priority })} />
          </View>
        )}
      </View>
      <View className="flex-row gap-2">
        {form.protocol !== 'artnet' && (
          <View className="flex-1">
            <Pick
              label="For each slot too"
              options={yes}
              value={form.slotPriority}
              onChange={(slotPriority) => set({ slotPriority })}
            />
          </View>
        )}
        <View className="flex-1">
          <Pick label="When idle" options={yes} value={form.whenIdle} onChange={(whenIdle) => set({ whenIdle })} />
        </View>
        <View className="flex-1">
          <Pick label="On" options={yes} value={form.on} onChange={(on) => set({ on })} />
        </View>
      </View>
      <Field label="Note" value={form.note} onChange={(note) => set({ note })} />
    </>
  );
}
