/** One fixture type: its modes, their channels and slots; made here or changed. */
import { useLocalSearchParams } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { blocksOf, footprintOf, repeatCells } from '@taxiarch/core/rig/fixture';
import { ANSWERS, FIXTURE_KINDS, type FixtureKind, type FixtureType } from '@taxiarch/core/show/records';
import { changeType, removeType } from '@taxiarch/core/rig/patch';
import { RecordFoot } from '@/forms/RecordFoot';
import { rulesOf } from '@/forms/rules';
import { useRecordForm } from '@/forms/useRecordForm';
import { useShow } from '@/data/show';
import { PlanPreview } from '@/forms/PlanPreview';
import {
  useLeaveFor,
  Button,
  Choice,
  Field,
  Pick,
  Screen,
  Section,
  Sentence,
  Text,
  count,
  PageShape,
  Missing,
} from '@/ui';
import { wholeFrom } from '@/data/numbers';
import { UnknownType } from './UnknownType';
import { ChannelRows } from './ChannelRows';
import { SlotPicture } from './SlotPicture';
import { useTypes } from './choose';
import {
  EMPTY_CHANNEL,
  EMPTY_TYPE,
  channelForm,
  readModeForm,
  readTypeForm,
  renamedModes,
  typeForm,
  type ModeForm,
  type TypeForm,
  TRAVEL,
  TRAVEL_FIELDS,
} from './typeForm';
import { kindWord } from './words';

const ORDERS = [
  { value: 'by cell', label: 'Cell by cell' },
  { value: 'by channel', label: 'Channel by channel' },
] as const;

function RepeatCells({ mode, onChange }: { mode: ModeForm; onChange: (mode: ModeForm) => void }) {
  const [times, setTimes] = useState('12');
  const [order, setOrder] = useState<'by cell' | 'by channel'>('by cell');
  const read = readModeForm(mode);
  const cells = read.ok ? read.value.channels.filter(({ cell }) => cell === 1) : [];
  const rest = read.ok ? read.value.channels.filter(({ cell }) => cell === undefined) : [];
  const repeat = () => {
    const number = wholeFrom(times);
    if (number === undefined || number < 1 || number > 512) return;
    const first = footprintOf({ name: '', channels: rest }) + 1;
    onChange({ ...mode, channels: [...rest, ...repeatCells(cells, number, order, first)].map(channelForm) });
  };
  return (
    <View className="gap-2">
      <Text kind="soft">
        Give the channels of one cell the cell number 1; they are then repeated behind the others
        {cells.length > 0 ? `: ${count(cells.length, 'channel')} now.` : '.'}
      </Text>
      <Field label="Cells" mono value={times} onChange={setTimes} />
      <Choice label="Order of cells" options={ORDERS} value={order} onChange={setOrder} />
      <Button label="Repeat the cell" disabled={cells.length === 0} onPress={repeat} />
    </View>
  );
}

const RULES = rulesOf('type', ['maker', 'name']);

export function TypePage() {
  const { type: id = '' } = useLocalSearchParams<{ type: string }>();
  const { loaded } = useShow();
  const types = useTypes();
  const type = types.find((one) => one.id === id);
  if (id === 'new') return <TypeEditor key="new" type={undefined} />;
  // Until the show is there, one of the library of the same id would stand for its own.
  if (!loaded) return <PageShape />;
  if (type?.unknown) return <UnknownType key={id} type={type} />;
  if (type) return <TypeEditor key={id} type={type} />;
  return <Missing loaded what="This type" list="/rig/types" act="All types" />;
}

function TypeEditor({ type }: { type: FixtureType | undefined }) {
  const show = useShow();
  const leaveFor = useLeaveFor();
  const editing = useRecordForm<TypeForm, FixtureType>(
    'type',
    type,
    (one) => (one ? typeForm(one) : EMPTY_TYPE),
    RULES,
  );
  const { id, base, form, set, text } = editing;
  const [at, setAt] = useState(0);
  const [removing, setRemoving] = useState(false);
  const mode = form.modes[Math.min(at, form.modes.length - 1)];
  const lamps = show.records.lamp.filter(({ typeId }) => typeId === base?.id).length;
  const inShow = show.records.type.some(({ id }) => id === base?.id);
  const plan = useMemo(() => {
    const read = readTypeForm(form, base ?? { id, rev: 0, file: null });
    return read.ok ? changeType(show, read.value, renamedModes(form)) : read;
  }, [form, base, id, show]);
  const setMode = (next: ModeForm) => set({ modes: form.modes.map((one, i) => (i === at ? next : one)) });
  const read = mode && readModeForm(mode);
  const blocks = read?.ok ? blocksOf(read.value) : [];
  return (
    <Screen
      sentence={
        <View className="gap-1">
          <Sentence>
            {base ? `${base.maker} ${base.name}` : 'A new type'}
            {read?.ok ? `: ${count(footprintOf(read.value), 'channel')}` : ''}
            {blocks.length > 1 ? ` in ${blocks.length} blocks` : ''}.
          </Sentence>
          <Text kind="soft">
            {inShow
              ? `${count(lamps, 'lamp')} of it in the show.`
              : base
                ? 'In the library; not in the show yet.'
                : 'Say what it is.'}
          </Text>
        </View>
      }
    >
      <View className="flex-row gap-2">
        <View className="flex-1">
          <Field label="Maker" {...text('maker')} />
        </View>
        <View className="flex-1">
          <Field label="Name" {...text('name')} />
        </View>
      </View>
      <Pick
        label="Kind"
        options={FIXTURE_KINDS.map((kind) => ({ value: kind, label: kindWord(kind) }))}
        value={form.kind}
        onChange={(kind) => set({ kind: kind as FixtureKind })}
      />
      <View className="gap-1">
        <Text kind="label">Answers RDM</Text>
        <Choice
          label="Answers RDM"
          options={ANSWERS.map((answers) => ({ value: answers, label: answers }))}
          value={form.answers}
          onChange={(answers) => set({ answers })}
        />
      </View>
      <View className="flex-row flex-wrap gap-2">
        {TRAVEL_FIELDS.map((field) => (
          <View key={field} className="min-w-[150px] flex-1">
            <Field
              label={TRAVEL[field]}
              mono
              value={form[field]}
              placeholder="not said"
              onChange={(text) => set({ [field]: text })}
            />
          </View>
        ))}
      </View>
      <Section title="Mode">
        <Pick
          label="Mode"
          hideLabel
          options={form.modes.map((one, i) => ({ value: String(i), label: one.name || 'without a name' }))}
          value={String(at)}
          onChange={(next) => setAt(Number(next))}
        />
        {mode && (
          <>
            <Field label="Name of the mode" value={mode.name} onChange={(name) => setMode({ ...mode, name })} />
            {read?.ok && <SlotPicture mode={read.value} />}
            <ChannelRows channels={mode.channels} onChange={(channels) => setMode({ ...mode, channels })} />
            <Button
              label="Add a channel"
              onPress={() => {
                const next = read?.ok ? (blocks[0] ?? 0) + 1 : 1;
                setMode({
                  ...mode,
                  channels: [
                    ...mode.channels,
                    { ...EMPTY_CHANNEL, attribute: 'Control1', highlight: '0', slots: String(next) },
                  ],
                });
              }}
            />
          </>
        )}
        <View className="flex-row gap-2">
          <Button
            label="Add a mode"
            grow
            onPress={() => {
              set({
                modes: [
                  ...form.modes,
                  { ...(mode ?? EMPTY_TYPE.modes[0]!), was: '', name: `${mode?.name ?? 'Mode'} 2` },
                ],
              });
              setAt(form.modes.length);
            }}
          />
          <Button
            label="Remove this mode"
            grow
            disabled={form.modes.length < 2}
            onPress={() => {
              set({ modes: form.modes.filter((_, i) => i !== at) });
              setAt(0);
            }}
          />
        </View>
      </Section>
      {mode && (
        <Section title="Cells">
          <RepeatCells mode={mode} onChange={setMode} />
        </Section>
      )}
      <RecordFoot
        of={{ ...editing, typed: editing.typed || !inShow }}
        plan={plan}
        act={inShow ? 'Change the type' : type ? 'Take into the show' : 'Make the type'}
        onDone={() => !type && leaveFor(`/rig/types/${id}`)}
      />
      {base && (
        <View className="flex-row gap-2">
          <Button
            label="Export as GDTF"
            grow
            onPress={() => window.location.assign(`/api/export/gdtf/${encodeURIComponent(base.id)}`)}
          />
          {inShow && <Button label="Remove" grow onPress={() => setRemoving(true)} />}
        </View>
      )}
      {removing && base && (
        <PlanPreview plan={removeType(show, base)} act="Remove the type" onDone={() => setRemoving(false)} />
      )}
    </Screen>
  );
}
