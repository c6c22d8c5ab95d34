/** One DMX adapter: switched on and off, seen at both ends, and planned. */
import { useLocalSearchParams } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { adapterPlanOf, type AdapterPlan, NEW_ADAPTER, putAdapter } from '@taxiarch/core/network/machine';
import { removed } from '@taxiarch/core/show/edit';
import { fastestRate, type PlugReport } from '@taxiarch/core/protocol/plug';
import type { LossOfSignal, Machine } from '@taxiarch/core/show/records';
import { Delete } from '@/forms/Delete';
import { RecordFoot } from '@/forms/RecordFoot';
import { rulesOf } from '@/forms/rules';
import { useRecordForm } from '@/forms/useRecordForm';
import { useHot, useLive } from '@/data/live';
import { wholeFrom } from '@/data/numbers';
import { makeHot } from '@/data/output';
import { runPlug, usePlugValues } from '@/data/plugs';
import { useShow } from '@/data/show';
import {
  useLeaveFor,
  Button,
  Choice,
  Empty,
  Field,
  Notice,
  Pick,
  Screen,
  Section,
  Sentence,
  Text,
  clockTime,
  count,
} from '@/ui';
import { BothEnds } from './BothEnds';

export function AdapterPage() {
  const { adapter: id = '' } = useLocalSearchParams<{ adapter: string }>();
  const { records, loaded } = useShow();
  const machine = records.machine.find((one) => one.id === id);
  if (id === 'new') return <New />;
  if (machine) return <One key={id} machine={machine} />;
  return loaded ? <Empty>This adapter is not in the show any more.</Empty> : null;
}

function New() {
  return (
    <Screen sentence={<Sentence>A new DMX adapter.</Sentence>}>
      <Editor machine={undefined} />
    </Screen>
  );
}

function sentenceOf({ name }: Machine, plug: PlugReport | undefined, use: 'out' | 'in'): string {
  if (!plug) return `${name} is off.`;
  if (plug.state === 'gone') return `${name} is not there: ${plug.why}`;
  if (plug.state === 'opening') return `${name} is being opened.`;
  if (plug.why !== '') return `${name}: ${plug.why}`;
  // In the first second nothing is counted yet.
  const rate = plug.rate > 0 ? `${plug.rate} frames a second` : 'frames';
  if (use === 'in') return plug.rate > 0 ? `${name} takes in ${rate}.` : `${name} is open, and nothing comes.`;
  if (plug.silent && plug.frames === 0)
    return `${name} waits: nobody has sent its universe yet, and nothing leaves it.`;
  return plug.silent ? `${name} sends ${rate}, though nobody sends its universe.` : `${name} sends ${rate}.`;
}

function One({ machine }: { machine: Machine }) {
  const live = useLive();
  const hot = useHot();
  const [trouble, setTrouble] = useState('');
  const { use, line } = adapterPlanOf(machine);
  const plug = live?.plugs?.find(({ machineId }) => machineId === machine.id);
  const { data: values } = usePlugValues(machine.id, plug?.state === 'runs');
  const run = async (on: boolean) => {
    setTrouble('');
    try {
      if (on && use === 'out' && !hot) await makeHot(true);
      await runPlug(machine.id, on);
    } catch (error) {
      setTrouble((error as Error).message);
    }
  };
  return (
    <Screen
      sentence={<Sentence>{sentenceOf(machine, plug, use)}</Sentence>}
      acts={
        plug ? (
          <Button label="Switch off" grow onPress={() => void run(false)} />
        ) : (
          <Button
            label={use === 'in' ? 'Take in' : hot ? 'Send' : 'Make hot and send'}
            look={use === 'in' ? 'main' : 'hot'}
            grow
            disabled={machine.line === null}
            onPress={() => void run(true)}
          />
        )
      }
    >
      {trouble !== '' && <Notice state="must fix">{trouble}</Notice>}
      {machine.line === null && <Text>Say below how its plug is reached; then it can be switched on.</Text>}
      {plug && (
        <Text kind="small">
          {[
            plug.path,
            `switched on by ${plug.by} at ${clockTime(plug.since)}`,
            `${plug.frames.toLocaleString('en-GB')} frames`,
            plug.back > 0 ? `came back ${count(plug.back, 'time')}` : '',
          ]
            .filter(Boolean)
            .join(' · ')}
        </Text>
      )}
      {plug && values && <BothEnds values={values} use={use} slots={line.slots} />}
      <Editor machine={machine} />
    </Screen>
  );
}

interface Form extends Omit<AdapterPlan, 'universe' | 'rate' | 'priority' | 'line' | 'loss'> {
  readonly universe: string;
  readonly rate: string;
  readonly priority: string;
  readonly slots: string;
  readonly at: string;
  readonly routeId: string;
  readonly loss: LossOfSignal['kind'];
  readonly after: string;
}

const UNIVERSE = '';
const RULES = rulesOf('machine', ['name', 'serial']);

function formOf(machine: Machine | undefined, serial: string): Form {
  const plan = machine ? adapterPlanOf(machine) : { ...NEW_ADAPTER, serial };
  const { name, use, universe, rate, priority, loss, start, line } = plan;
  return {
    ...{ name, use, start, serial: plan.serial, at: line.at, routeId: line.routeId ?? UNIVERSE },
    ...{ universe: String(universe), rate: String(rate), priority: String(priority), slots: String(line.slots) },
    ...{ loss: loss.kind, after: String(loss.kind === 'fade' ? loss.over : loss.after) },
  };
}

function planOf(form: Form): AdapterPlan {
  const { name, use, start, serial, at, routeId } = form;
  const number = (text: string) => wholeFrom(text) ?? 0;
  const seconds = Number(form.after) || 0;
  return {
    ...{ name, use, start, serial },
    ...{ universe: number(form.universe), rate: number(form.rate), priority: number(form.priority) },
    loss: { kind: form.loss, after: form.loss === 'fade' ? 0 : seconds, over: form.loss === 'fade' ? seconds : 0 },
    line: { at, slots: number(form.slots), routeId: routeId === UNIVERSE ? null : routeId },
  };
}

const LOSSES: readonly { value: LossOfSignal['kind']; label: string }[] = [
  { value: 'hold', label: 'hold' },
  { value: 'hold-black', label: 'hold, then black' },
  { value: 'fade', label: 'fade to black' },
  { value: 'full', label: 'full' },
];

function Editor({ machine }: { machine: Machine | undefined }) {
  const leaveFor = useLeaveFor();
  const { serial = '' } = useLocalSearchParams<{ serial?: string }>();
  const { records } = useShow();
  const editing = useRecordForm<Form, Machine>('adapter', machine, (one) => formOf(one, serial), RULES);
  const { id, base, form, set, text } = editing;
  const plan = useMemo(() => putAdapter(base, id, planOf(form), records.machine), [form, base, id, records.machine]);
  const slots = wholeFrom(form.slots) ?? 512;
  const timed = form.loss === 'hold-black' || form.loss === 'fade';
  return (
    <>
      <Section title={machine ? 'As it is planned' : 'What it is'}>
        <Field label="Name" {...text('name')} />
        <Choice
          label="Direction"
          options={[
            { value: 'out', label: 'Sends to lamps' },
            { value: 'in', label: 'Takes in a desk' },
          ]}
          value={form.use}
          onChange={(use) => set({ use })}
        />
        <View className="flex-row gap-2">
          <View className="flex-1">
            <Field label="Serial number" mono {...text('serial')} />
          </View>
          <View className="flex-1">
            <Field label="Or reached at" mono placeholder="10.0.0.46:2217" {...text('at')} />
          </View>
        </View>
        <View className="flex-row gap-2">
          <View className="flex-1">
            <Field label="Universe" mono {...text('universe')} />
          </View>
          {form.use === 'in' && (
            <View className="flex-1">
              <Field label="Priority" mono {...text('priority')} />
            </View>
          )}
          {form.use === 'out' && (
            <>
              <View className="flex-1">
                <Field label="Frames a second" mono {...text('rate')} />
              </View>
              <View className="flex-1">
                <Field label="Slots" mono {...text('slots')} />
              </View>
            </>
          )}
        </View>
        {form.use === 'out' && (
          <>
            <Text kind="small">
              The line carries {slots} slots at most {Math.floor(fastestRate(slots))} times a second.
            </Text>
            <Pick
              label="What leaves it"
              options={[
                { value: UNIVERSE, label: 'all that is heard of the universe, merged' },
                ...records.route.map(({ id: value, name }) => ({ value, label: `what the route ${name} makes` })),
              ]}
              value={form.routeId}
              onChange={(routeId) => set({ routeId })}
            />
            <Pick
              label="Before anybody sent"
              options={[
                { value: 'wait', label: 'nothing leaves it' },
                { value: 'black', label: 'zeros leave it' },
              ]}
              value={form.start}
              onChange={(start) => set({ start: start as Form['start'] })}
            />
            <View className="flex-row gap-2">
              <View className="flex-1">
                <Pick
                  label="When nobody sends any more"
                  options={LOSSES}
                  value={form.loss}
                  onChange={(loss) => set({ loss: loss as Form['loss'] })}
                />
              </View>
              {timed && (
                <View className="flex-1">
                  <Field label="Seconds" mono {...text('after')} />
                </View>
              )}
            </View>
          </>
        )}
      </Section>
      <RecordFoot
        of={editing}
        plan={plan}
        act={machine ? 'Change the adapter' : 'Add the adapter'}
        onDone={() => leaveFor(`/wire/adapters/${id}`)}
      />
      {machine && (
        <Delete
          change={removed('machine', machine)}
          what={`the adapter ${machine.name}`}
          onDone={() => {
            editing.clear();
            leaveFor('/wire/adapters');
          }}
        />
      )}
    </>
  );
}
