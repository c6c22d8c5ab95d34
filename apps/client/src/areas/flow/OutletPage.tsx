/** Where universes leave: on free ports of a machine of the show, or on those of a new one. */
import { useLocalSearchParams, useRouter } from 'expo-router';
import { useMemo } from 'react';
import { object } from 'yup';
import { formatUniverses, readUniverses } from '@taxiarch/core/base/address';
import { added, type Plan } from '@taxiarch/core/show/edit';
import { freePorts, planOutlets, portsOfNumber } from '@taxiarch/core/network/flow';
import { MODELS } from '@taxiarch/core/rig/library';
import { portsFor } from '@taxiarch/core/network/machine';
import { MOST_PORTS, type Machine, type Model, type ShowRecords } from '@taxiarch/core/show/records';
import { refuse, type Result } from '@taxiarch/core/base/result';
import { wholeFrom } from '@/data/numbers';
import { useShow } from '@/data/show';
import { MachineChoice, newMachine, type MachineChoiceForm } from '@/forms/MachineChoice';
import { RecordFoot } from '@/forms/RecordFoot';
import { readBy } from '@/forms/rules';
import { useRecordForm } from '@/forms/useRecordForm';
import { Field, Pick, Screen, Sentence } from '@/ui';

interface Form extends MachineChoiceForm {
  readonly universes: string;
  /** Of a new machine; empty while nobody knows it */
  readonly modelId: string;
  /** Of a new machine whose model nobody knows */
  readonly ports: string;
}

const modelsOf = ({ model }: ShowRecords): readonly Model[] =>
  [...model, ...MODELS.filter(({ id }) => !model.some((one) => one.id === id))].filter(
    ({ kind, directions, ports }) => kind === 'node' && ports > 0 && directions.includes('out'),
  );

const RULES = object({ universes: readBy(readUniverses) });

function planOf(form: Form, id: string, records: ShowRecords): Result<Plan> {
  const universes = readUniverses(form.universes);
  if (!universes.ok) return universes;
  const there = records.machine.find((one) => one.id === form.machineId);
  if (there) return planOutlets(records, there, there, universes.value);
  if (form.name.trim() === '') return refuse('nothing', 'Give the new machine a name, or choose one of the show.');
  const model = modelsOf(records).find((one) => one.id === form.modelId);
  const ports = wholeFrom(form.ports);
  if (!model && (ports === undefined || ports < 1 || ports > MOST_PORTS))
    return refuse('not-understood', `A machine has 1 to ${MOST_PORTS} ports.`);
  const machine: Machine = {
    ...newMachine(form, id),
    modelId: model?.id ?? null,
    ports: model ? portsFor(model, []) : portsOfNumber([], ports!),
  };
  const brings = model && !records.model.some((one) => one.id === model.id) ? [added('model', model)] : [];
  const plan = planOutlets(
    model ? { ...records, model: [...records.model, model] } : records,
    undefined,
    machine,
    universes.value,
  );
  return plan.ok ? { ...plan, value: { ...plan.value, changes: [...brings, ...plan.value.changes] } } : plan;
}

export function OutletPage() {
  const router = useRouter();
  const { universes: asked = '' } = useLocalSearchParams<{ universes?: string }>();
  const { records } = useShow();
  const withRoom = records.machine.filter(
    (one) =>
      freePorts(
        one,
        records.model.find(({ id }) => id === one.modelId),
      ).length > 0,
  );
  const editing = useRecordForm<Form, Machine>(
    `outlet ${asked}`,
    undefined,
    () => ({
      machineId: withRoom[0]?.id ?? '',
      name: '',
      kind: 'node',
      address: '',
      universes: asked,
      modelId: '',
      ports: '2',
    }),
    RULES,
  );
  const { id, form, set, text } = editing;
  const plan = useMemo(() => planOf(form, id, records), [form, id, records]);
  const read = readUniverses(form.universes);
  const numbers = read.ok ? read.value : [];
  return (
    <Screen
      sentence={
        <Sentence>
          {numbers.length === 0
            ? 'Where universes leave.'
            : `Where ${numbers.length === 1 ? 'universe' : 'universes'} ${formatUniverses(numbers)} ${numbers.length === 1 ? 'leaves' : 'leave'}.`}
        </Sentence>
      }
    >
      <Field label="Universes" mono {...text('universes')} />
      <MachineChoice
        label="On free ports of"
        newLabel="Name of the node"
        form={form}
        set={set}
        machines={withRoom}
        kinds={['node']}
      />
      {form.machineId === '' && (
        <Pick
          label="Model"
          options={[
            { value: '', label: 'not known: say how many ports' },
            ...modelsOf(records).map(({ id: value, maker, name }) => ({ value, label: `${maker} ${name}` })),
          ]}
          value={form.modelId}
          onChange={(modelId) => set({ modelId })}
        />
      )}
      {form.machineId === '' && form.modelId === '' && (
        <Field label="DMX ports" mono inputMode="numeric" {...text('ports')} />
      )}
      <RecordFoot
        of={editing}
        plan={plan}
        act="Plan it"
        onDone={() =>
          router.navigate(
            numbers.length === 1 ? `/rig/universes/${numbers[0]}?view=way` : `/wire/${form.machineId || id}`,
          )
        }
      />
    </Screen>
  );
}
