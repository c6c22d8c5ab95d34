/** The ports of a machine, set one by one or many at once, with what its model cannot do said as such. */
import { useLocalSearchParams, useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import type { Protocol } from '@taxiarch/core/base/address';
import { refuse } from '@taxiarch/core/base/result';
import {
  lossText,
  MERGE_WORDS,
  portFacts,
  type PortSet,
  portsFor,
  setPorts,
  shownBy,
  START_WORDS,
  wireNumber,
} from '@taxiarch/core/network/machine';
import {
  LOSS_KINDS,
  type LossOfSignal,
  type Machine,
  type MachinePort,
  type Model,
  PORT_MERGES,
  PORT_USES,
  START_UPS,
} from '@taxiarch/core/show/records';
import { useMachines } from '@/data/machines';
import { wholeFrom } from '@/data/numbers';
import { useShow } from '@/data/show';
import { PlanPreview } from '@/forms/PlanPreview';
import { Button, Choice, Field, Pick, Screen, Section, Sentence, Text, count, Missing } from '@/ui';
import { PortPicture } from './PortPicture';

const SAME = '';
const same = { value: SAME, label: 'as they are' };

interface Form {
  readonly use: string;
  readonly protocol: string;
  readonly from: string;
  readonly step: string;
  readonly merge: string;
  readonly loss: string;
  readonly after: string;
  readonly over: string;
  readonly start: string;
  readonly rdm: string;
  readonly rate: string;
  readonly label: string;
  readonly fixed: string;
  readonly copyOf: string;
  readonly priority: string;
}

const EMPTY: Form = {
  use: SAME,
  protocol: SAME,
  from: '',
  step: '1',
  merge: SAME,
  loss: SAME,
  after: '0',
  over: '0',
  start: SAME,
  rdm: SAME,
  rate: '',
  label: '',
  fixed: '',
  copyOf: '',
  priority: '',
};

const secondsFrom = (text: string): number => Math.max(0, Number(text.trim().replace(',', '.')) || 0);

/** What a form asks for; fields left empty change nothing. */
function setOf(form: Form): PortSet {
  const whole = (text: string) => wholeFrom(text);
  const set: { -readonly [K in keyof PortSet['set']]: PortSet['set'][K] } = {};
  if (form.use !== SAME) set.use = form.use as MachinePort['use'];
  if (form.protocol !== SAME) set.protocol = form.protocol as Protocol;
  if (form.merge !== SAME) set.merge = form.merge as MachinePort['merge'];
  if (form.loss !== SAME)
    set.loss = {
      kind: form.loss as LossOfSignal['kind'],
      after: secondsFrom(form.after),
      over: secondsFrom(form.over),
    };
  if (form.start !== SAME) set.start = form.start as MachinePort['start'];
  if (form.rdm !== SAME) set.rdm = form.rdm === 'on';
  if (whole(form.rate) !== undefined) set.rate = whole(form.rate)!;
  if (whole(form.fixed) !== undefined) set.fixed = whole(form.fixed)!;
  if (whole(form.priority) !== undefined) set.priority = whole(form.priority)!;
  if (form.label !== '') set.label = form.label.trim();
  if (form.copyOf !== '') set.copyOf = whole(form.copyOf) || null;
  return { set, from: whole(form.from), step: whole(form.step) ?? 1 };
}

export function PortsPage() {
  const { machine: id = '' } = useLocalSearchParams<{ machine: string }>();
  const { records, loaded } = useShow();
  const machine = records.machine.find((one) => one.id === id);
  const model = records.model.find((one) => one.id === machine?.modelId);
  if (!machine) return <Missing loaded={loaded} what="This machine" list="/wire" act="All machines" />;
  return <Editor key={id} machine={machine} model={model} />;
}

/** The choices that the model can do; all of them without a model. */
const offered = <T extends string>(all: readonly T[], can: readonly T[] | undefined, words: (one: T) => string) => [
  same,
  ...all.filter((value) => !can || can.includes(value)).map((value) => ({ value, label: words(value) })),
];

const LOSS_LABELS: Readonly<Record<LossOfSignal['kind'], string>> = {
  hold: 'hold for ever',
  'hold-black': 'hold, then black',
  fade: 'fade to black',
  full: 'full',
  look: 'stored look',
};

function Editor({ machine, model }: { machine: Machine; model: Model | undefined }) {
  const router = useRouter();
  const { records } = useShow();
  const entry = useMachines().find(({ key }) => key === machine.id);
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  const [form, setForm] = useState(EMPTY);
  const universes = useMemo(() => new Map(records.universe.map((one) => [one.number, one])), [records.universe]);
  // A machine whose ports were never planned begins with those of its model.
  const whole = useMemo(
    (): Machine =>
      model && model.ports > machine.ports.length ? { ...machine, ports: portsFor(model, machine.ports) } : machine,
    [machine, model],
  );
  const numbers = [...chosen].sort((a, b) => a - b);
  const plan = useMemo(
    () =>
      chosen.size === 0
        ? refuse('nothing', 'Choose ports in the picture; then say what they should be.')
        : setPorts(whole, [...chosen], setOf(form), model),
    [whole, chosen, form, model],
  );
  const [only] = numbers.length === 1 ? whole.ports.filter(({ number }) => number === numbers[0]) : [];
  const toggle = (number: number) => {
    const next = new Set(chosen);
    if (!next.delete(number)) next.add(number);
    setChosen(next);
  };
  const pick = (key: keyof Form, label: string, options: readonly { value: string; label: string }[]) => (
    <View className="flex-1">
      <Pick
        label={label}
        options={options}
        value={form[key]}
        onChange={(value) => setForm({ ...form, [key]: value })}
      />
    </View>
  );
  const field = (key: keyof Form, label: string, placeholder = 'as they are') => (
    <View className="flex-1">
      <Field
        label={label}
        mono
        placeholder={placeholder}
        value={form[key]}
        onChange={(value) => setForm({ ...form, [key]: value })}
      />
    </View>
  );
  return (
    <Screen
      sentence={
        <Sentence>
          {whole.ports.length === 0
            ? `${machine.name} has no ports. Choose its model first.`
            : `${machine.name}: ${count(whole.ports.length, 'port')}${model ? `, ${model.connector}` : ''}.`}
        </Sentence>
      }
      acts={
        <>
          <Button label="Back to the machine" onPress={() => router.navigate(`/wire/${machine.id}`)} />
          <Button label="All" onPress={() => setChosen(new Set(whole.ports.map(({ number }) => number)))} />
          <Button label="None" onPress={() => setChosen(new Set())} />
        </>
      }
    >
      <PortPicture
        ports={whole.ports}
        seen={entry?.heard?.node?.ports}
        universes={universes}
        off={new Set()}
        chosen={chosen}
        onPress={toggle}
      />
      {only && (
        <Section title={`Port ${only.number} now`}>
          <Text>{[...portFacts(only)].map(([key, value]) => `${key} ${value}`).join(' · ')}</Text>
          {(only.use === 'out' || only.use === 'in') && (
            <Text kind="mono">{shownBy(only, wireNumber(only, universes), model?.base ?? 0)}</Text>
          )}
        </Section>
      )}
      {chosen.size > 0 && (
        <Section title={numbers.length === 1 ? `Set port ${numbers[0]}` : `Set ${count(numbers.length, 'port')}`}>
          <View className="flex-row gap-2">
            {pick(
              'use',
              'Use',
              offered(
                PORT_USES,
                model && [...model.directions, 'off', ...(model.fixedValue ? (['fixed'] as const) : [])],
                (one) => one,
              ),
            )}
            {pick(
              'protocol',
              'Protocol',
              offered(['sacn', 'artnet'] as const, model?.protocols, (one) => (one === 'sacn' ? 'sACN' : 'Art-Net')),
            )}
          </View>
          <View className="flex-row gap-2">
            {field('from', numbers.length === 1 ? 'Universe' : 'First universe')}
            {numbers.length > 1 && field('step', 'Step')}
          </View>
          <View className="flex-row gap-2">
            {pick(
              'merge',
              'Merge',
              offered(PORT_MERGES, model?.merges, (one) => MERGE_WORDS[one]),
            )}
            {pick(
              'start',
              'At the start',
              offered(START_UPS, model?.starts, (one) => START_WORDS[one]),
            )}
          </View>
          {pick(
            'loss',
            'When signal is lost',
            offered(LOSS_KINDS, model?.losses, (one) => LOSS_LABELS[one]),
          )}
          {form.loss !== SAME && form.loss !== 'hold' && (
            <View className="flex-row items-end gap-2">
              {field('after', 'After, seconds', '0')}
              {form.loss === 'fade' && field('over', 'Fade, seconds', '0')}
              <Text kind="small" className="flex-1 pb-3">
                {lossText({
                  kind: form.loss as LossOfSignal['kind'],
                  after: secondsFrom(form.after),
                  over: secondsFrom(form.over),
                })}
              </Text>
            </View>
          )}
          <View className="flex-row gap-2">
            {field('label', 'Label')}
            {field('rate', 'Rate, Hz')}
          </View>
          <View className="flex-row gap-2">
            {field('fixed', 'Fixed value')}
            {field('copyOf', 'Copy of port, 0 for none')}
            {field('priority', 'Input’s priority')}
          </View>
          <Choice
            label="RDM"
            options={[
              { value: SAME, label: 'RDM as it is' },
              { value: 'on', label: 'RDM on' },
              { value: 'off', label: 'RDM off' },
            ]}
            value={form.rdm}
            onChange={(rdm) => setForm({ ...form, rdm })}
          />
          {model && (
            <Text kind="small">
              Only what {model.maker} {model.name} can do is listed.
            </Text>
          )}
          <PlanPreview plan={plan} act={`Set ${count(numbers.length, 'port')}`} onDone={() => setForm(EMPTY)} />
        </Section>
      )}
      {chosen.size === 0 && (
        <Text kind="soft">{whole.ports.length > 0 ? 'Choose ports in the picture to set them.' : ''}</Text>
      )}
    </Screen>
  );
}
