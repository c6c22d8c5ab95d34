/** A model's sheet of capability: shown, changed, or made anew. */
import { useLocalSearchParams, useRouter, type Href } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { refuse, type Read } from '@taxiarch/core/address';
import { PLAIN_MODEL } from '@taxiarch/core/library';
import { MERGE_WORDS, START_WORDS } from '@taxiarch/core/machine';
import { added, changed, removed, type Plan } from '@taxiarch/core/patch';
import {
  LOSS_KINDS,
  MACHINE_KINDS,
  PORT_MERGES,
  START_UPS,
  checkRecord,
  type MachineKind,
  type Model,
} from '@taxiarch/core/show';
import { useDraft } from '@/data/form';
import { newId, wholeFrom } from '@/data/numbers';
import { useShow } from '@/data/show';
import { Check, Empty, Field, Pick, PlanPreview, Screen, Section, Sentence, Text } from '@/ui';
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

const WORDS: Readonly<Partial<Record<keyof Model, string>>> = {
  maker: 'maker',
  name: 'name',
  kind: 'kind',
  ports: 'ports',
  connector: 'connector',
  directions: 'directions',
  protocols: 'protocols',
  merges: 'merges',
  losses: 'signal lost',
  starts: 'at the start',
  rdm: 'RDM',
  fixedValue: 'fixed value',
  copies: 'copies',
  rate: 'rate',
  universes: 'most universes',
  sources: 'most sources',
  parameters: 'parameters',
  base: 'counts from',
  remote: 'set by Art-Net',
  ipProg: 'address by IpProg',
  perPage: 'ports a page',
  groups: 'groups',
  speed: 'Mbit/s',
};

const saidOf = (value: unknown): string =>
  Array.isArray(value)
    ? value.join(', ') || 'none'
    : typeof value === 'boolean'
      ? value
        ? 'yes'
        : 'no'
      : value === null
        ? 'no limit'
        : String(value);

function planOf({ model, typed }: Form, base: Model | undefined): Read<Plan> {
  const limits = Object.fromEntries(
    NUMBERS.map(([key]) => [
      key,
      typed[key].trim() === '' && (key === 'universes' || key === 'parameters' || key === 'groups')
        ? null
        : (wholeFrom(typed[key]) ?? NaN),
    ]),
  );
  const next: Model = { ...model, ...limits, maker: model.maker.trim(), name: model.name.trim() };
  const checked = checkRecord('model', next);
  if (!checked.ok) return refuse(checked.faults[0]!.why);
  const lines = Object.entries(WORDS).flatMap(([key, word]) => {
    const before = base ? saidOf(base[key as keyof Model]) : '';
    const after = saidOf(next[key as keyof Model]);
    return before === after ? [] : [{ subject: word, before, after: after || 'none' }];
  });
  if (lines.length === 0) return refuse('Nothing would change.');
  return {
    ok: true,
    value: {
      sentence: `${base ? 'Changed' : 'Made'} the model ${next.maker} ${next.name}`,
      changes: [base ? changed('model', base, next) : added('model', next)],
      lines,
    },
  };
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
        base={undefined}
      />
    );
  if (!known) return loaded ? <Empty>This model is neither in the show nor in the library.</Empty> : null;
  return <Editor key={id} start={known} base={records.model.find((one) => one.id === id)} />;
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

const LOSS_WORDS: Readonly<Record<(typeof LOSS_KINDS)[number], string>> = {
  hold: 'hold for ever',
  'hold-black': 'hold, then black',
  fade: 'fade to black',
  full: 'full',
  look: 'a stored look',
};

function Editor({ start, base }: { start: Model; base: Model | undefined }) {
  const router = useRouter();
  const { records } = useShow();
  const [form, setForm, clear] = useDraft<Form>(`model ${base?.id ?? start.name ?? 'new'}`, formOf(start));
  const plan = useMemo(() => planOf(form, base), [form, base]);
  const { model, typed } = form;
  const set = (next: Partial<Model>) => setForm({ model: { ...model, ...next }, typed });
  const users = records.machine.filter(({ modelId }) => base !== undefined && modelId === base.id);
  const back = () => {
    clear();
    router.navigate('/wire/models' as Href);
  };
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
          <Field label="Maker" value={model.maker} onChange={(maker) => set({ maker })} />
        </View>
        <View className="flex-1">
          <Field label="Model" value={model.name} onChange={(name) => set({ name })} />
        </View>
      </View>
      <View className="flex-row gap-2">
        <View className="flex-1">
          <Pick
            label="Kind"
            options={MACHINE_KINDS.map((value) => ({ value, label: value }))}
            value={model.kind}
            onChange={(kind) => set({ kind: kind as MachineKind })}
          />
        </View>
        <View className="flex-1">
          <Field label="Connector" value={model.connector} onChange={(connector) => set({ connector })} />
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
              onChange={(text) => setForm({ model, typed: { ...typed, [key]: text } })}
            />
          </View>
        ))}
      </View>
      <Several
        label="Directions"
        all={['out', 'in'] as const}
        words={(one) => one}
        value={model.directions}
        onChange={(directions) => set({ directions })}
      />
      <Several
        label="Protocols"
        all={['sacn', 'artnet'] as const}
        words={(one) => (one === 'sacn' ? 'sACN' : 'Art-Net')}
        value={model.protocols}
        onChange={(protocols) => set({ protocols })}
      />
      <Several
        label="Merges"
        all={PORT_MERGES}
        words={(one) => MERGE_WORDS[one]}
        value={model.merges}
        onChange={(merges) => set({ merges })}
      />
      <Several
        label="When signal is lost"
        all={LOSS_KINDS}
        words={(one) => LOSS_WORDS[one]}
        value={model.losses}
        onChange={(losses) => set({ losses })}
      />
      <Several
        label="At the start"
        all={START_UPS}
        words={(one) => START_WORDS[one]}
        value={model.starts}
        onChange={(starts) => set({ starts })}
      />
      <Section title="And">
        <Check label="RDM" on={model.rdm} onChange={(rdm) => set({ rdm })} />
        <Check label="Puts out fixed values" on={model.fixedValue} onChange={(fixedValue) => set({ fixedValue })} />
        <Check label="Repeats one port at another" on={model.copies} onChange={(copies) => set({ copies })} />
        <Check label="Its settings can be pushed by Art-Net" on={model.remote} onChange={(remote) => set({ remote })} />
        <Check label="Its address can be pushed too" on={model.ipProg} onChange={(ipProg) => set({ ipProg })} />
        <Check
          label="Each port has a net and sub-net of its own"
          on={model.perPage === 1}
          onChange={(own) => set({ perPage: own ? 1 : 4 })}
        />
        <Check
          label="Its display counts Art-Net from 1"
          on={model.base === 1}
          onChange={(one) => set({ base: one ? 1 : 0 })}
        />
      </Section>
      <Section title="Preview">
        <PlanPreview plan={plan} act={base ? 'Change the model' : 'Take into the show'} onDone={back} />
      </Section>
      {base && users.length === 0 && (
        <PlanPreview
          plan={{
            ok: true,
            value: {
              sentence: `Took ${base.maker} ${base.name} out of the show`,
              changes: [removed('model', base)],
              lines: [{ subject: `${base.maker} ${base.name}`, before: 'in the show', after: '' }],
            },
          }}
          act="Take it out of the show"
          onDone={back}
        />
      )}
      {base && users.length > 0 && (
        <Text kind="small">A model in use stays; a plan that asks too much of it becomes a finding.</Text>
      )}
    </Screen>
  );
}
