/** A model's sheet of capability: shown, changed, or made anew. */
import { useLocalSearchParams } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import type { Result } from '@taxiarch/core/base/result';
import { protocolName } from '@taxiarch/core/base/address';
import { PLAIN_MODEL } from '@taxiarch/core/rig/library';
import { MERGE_WORDS, START_WORDS } from '@taxiarch/core/network/machine';
import { type Plan, recordPlan, removed } from '@taxiarch/core/show/edit';
import {
  LOSS_KINDS,
  MACHINE_KINDS,
  type MachineKind,
  type Model,
  PORT_MERGES,
  START_UPS,
} from '@taxiarch/core/show/records';
import { Delete } from '@/forms/Delete';
import { RecordFoot } from '@/forms/RecordFoot';
import { useRecordForm } from '@/forms/useRecordForm';
import { newId, wholeFrom } from '@/data/numbers';
import { useShow } from '@/data/show';
import { useLeaveFor, Check, Field, Pick, Screen, Section, Sentence, Text, Missing } from '@/ui';
import { modelsToChoose } from '../machine/machineForm';

/** Fields that are typed; empty for what has no limit. */
const NUMBERS = [
  ['ports', 'DMX ports'],
  ['rate', 'Most frames a second'],
  ['sources', 'Most sources of a merge'],
  ['universes', 'Most universes'],
  ['parameters', 'Allowance of parameters'],
  ['groups', 'Multicast groups (switch)'],
  ['speed', 'Connector, Mbit/s'],
] as const;
type NumberKey = (typeof NUMBERS)[number][0];
type Typed = Readonly<Record<NumberKey, string>>;

interface Form {
  readonly model: Model;
  readonly typed: Typed;
}

const formOf = (model: Model): Form => ({
  model,
  typed: Object.fromEntries(
    NUMBERS.map(([key]) => [key, model[key] === null ? '' : String(model[key])]),
  ) as unknown as Typed,
});

const LOSS_WORDS: Readonly<Record<(typeof LOSS_KINDS)[number], string>> = {
  hold: 'hold for ever',
  'hold-black': 'hold, then black',
  fade: 'fade to black',
  full: 'full',
  look: 'a stored look',
};

function planOf({ model, typed }: Form, base: Model | undefined): Result<Plan> {
  const limits = Object.fromEntries(
    NUMBERS.map(([key]) => [
      key,
      typed[key].trim() === '' && (key === 'universes' || key === 'parameters' || key === 'groups')
        ? null
        : (wholeFrom(typed[key]) ?? NaN),
    ]),
  );
  const next: Model = { ...model, ...limits, maker: model.maker.trim(), name: model.name.trim() };
  const called = `${next.maker} ${next.name}`;
  return recordPlan('model', base, next, {
    subject: called,
    sentence: `${base ? 'Changed' : 'Made'} the model ${called}`,
    tellers: {
      protocols: (protocols) => protocols.map(protocolName).join(', '),
      merges: (merges) => merges.map((one) => MERGE_WORDS[one]).join(', '),
      losses: (losses) => losses.map((one) => LOSS_WORDS[one]).join(', '),
      starts: (starts) => starts.map((one) => START_WORDS[one]).join(', '),
    },
  });
}

export function ModelPage() {
  const { model: id = '' } = useLocalSearchParams<{ model: string }>();
  const { records, loaded } = useShow();
  const [fresh] = useState(newId);
  const known = modelsToChoose(records).find((one) => one.id === id);
  if (id === 'new')
    return (
      <Editor
        key="new"
        start={{ ...PLAIN_MODEL, id: fresh, kind: 'node', maker: '', name: '', ports: 2, directions: ['out'] }}
        model={undefined}
      />
    );
  // Until the show is there, one of the library of the same id would stand for its own.
  if (!known || !loaded) return <Missing loaded={loaded} what="This model" list="/wire/models" act="All models" />;
  return <Editor key={id} start={known} model={records.model.find((one) => one.id === id)} />;
}

/** Several of a few. */
function Several<T extends string>({
  label,
  all,
  words,
  value,
  onChange,
}: {
  label: string;
  all: readonly T[];
  words: (one: T) => string;
  value: readonly T[];
  onChange: (next: readonly T[]) => void;
}) {
  return (
    <Section title={label}>
      {all.map((one) => (
        <Check
          key={one}
          label={words(one)}
          on={value.includes(one)}
          onChange={(on) =>
            onChange(
              on
                ? all.filter((other) => other === one || value.includes(other))
                : value.filter((other) => other !== one),
            )
          }
        />
      ))}
    </Section>
  );
}

function Editor({ start, model }: { start: Model; model: Model | undefined }) {
  const leaveFor = useLeaveFor();
  const { records } = useShow();
  const editing = useRecordForm<Form, Model>(`model ${start.name}`, model, () => formOf(start));
  const { base, form } = editing;
  const plan = useMemo(() => planOf(form, base), [form, base]);
  const { typed } = form;
  const set = (next: Partial<Model>) => editing.set({ model: { ...form.model, ...next } });
  const users = records.machine.filter(({ modelId }) => base !== undefined && modelId === base.id);
  return (
    <Screen
      sentence={
        <Sentence>
          {start.name === ''
            ? 'A new model.'
            : `${start.maker} ${start.name}${users.length > 0 ? `, used by ${users.map(({ name }) => name).join(', ')}` : base ? ', in the show' : ', from the library'}.`}
        </Sentence>
      }
    >
      <View className="flex-row gap-2">
        <View className="flex-1">
          <Field label="Maker" value={form.model.maker} onChange={(maker) => set({ maker })} />
        </View>
        <View className="flex-1">
          <Field label="Model" value={form.model.name} onChange={(name) => set({ name })} />
        </View>
      </View>
      <View className="flex-row gap-2">
        <View className="flex-1">
          <Pick
            label="Kind"
            options={MACHINE_KINDS.map((value) => ({ value, label: value }))}
            value={form.model.kind}
            onChange={(kind) => set({ kind: kind as MachineKind })}
          />
        </View>
        <View className="flex-1">
          <Field label="Connector" value={form.model.connector} onChange={(connector) => set({ connector })} />
        </View>
      </View>
      <View className="flex-row flex-wrap gap-2">
        {NUMBERS.map(([key, label]) => (
          <View key={key} className="w-[168px]">
            <Field
              label={label}
              mono
              placeholder="no limit"
              value={typed[key]}
              onChange={(text) => editing.set({ typed: { ...typed, [key]: text } })}
            />
          </View>
        ))}
      </View>
      <Several
        label="Directions"
        all={['out', 'in'] as const}
        words={(one) => one}
        value={form.model.directions}
        onChange={(directions) => set({ directions })}
      />
      <Several
        label="Protocols"
        all={['sacn', 'artnet'] as const}
        words={(one) => (one === 'sacn' ? 'sACN' : 'Art-Net')}
        value={form.model.protocols}
        onChange={(protocols) => set({ protocols })}
      />
      <Several
        label="Merges"
        all={PORT_MERGES}
        words={(one) => MERGE_WORDS[one]}
        value={form.model.merges}
        onChange={(merges) => set({ merges })}
      />
      <Several
        label="When signal is lost"
        all={LOSS_KINDS}
        words={(one) => LOSS_WORDS[one]}
        value={form.model.losses}
        onChange={(losses) => set({ losses })}
      />
      <Several
        label="At the start"
        all={START_UPS}
        words={(one) => START_WORDS[one]}
        value={form.model.starts}
        onChange={(starts) => set({ starts })}
      />
      <Section title="And">
        <Check label="RDM" on={form.model.rdm} onChange={(rdm) => set({ rdm })} />
        <Check
          label="Puts out fixed values"
          on={form.model.fixedValue}
          onChange={(fixedValue) => set({ fixedValue })}
        />
        <Check
          label="A higher priority gets in though it is full"
          on={form.model.priorityFirst}
          onChange={(priorityFirst) => set({ priorityFirst })}
        />
        <Check label="Repeats one port at another" on={form.model.copies} onChange={(copies) => set({ copies })} />
        <Check
          label="Its settings can be pushed by Art-Net"
          on={form.model.remote}
          onChange={(remote) => set({ remote })}
        />
        <Check label="Its address can be pushed too" on={form.model.ipProg} onChange={(ipProg) => set({ ipProg })} />
        <Check
          label="Each port has a net and sub-net of its own"
          on={form.model.perPage === 1}
          onChange={(own) => set({ perPage: own ? 1 : 4 })}
        />
        <Check
          label="Its display counts Art-Net from 1"
          on={form.model.base === 1}
          onChange={(one) => set({ base: one ? 1 : 0 })}
        />
      </Section>
      <RecordFoot
        of={editing}
        plan={plan}
        act={base ? 'Change the model' : 'Take into the show'}
        onDone={() => leaveFor('/wire/models')}
      />
      {base && users.length === 0 && (
        <Delete
          change={removed('model', base)}
          what={`${base.maker} ${base.name}`}
          onDone={() => {
            editing.clear();
            leaveFor('/wire/models');
          }}
        />
      )}
      {base && users.length > 0 && (
        <Text kind="small">A model in use stays; a plan that asks too much of it becomes a finding.</Text>
      )}
    </Screen>
  );
}
