/** A pixel controller: where it begins to listen, and what its outputs drive. */
import { useLocalSearchParams } from 'expo-router';
import { useMemo } from 'react';
import { View } from 'react-native';
import type { Result } from '@taxiarch/core/base/result';
import { addressesOf, mainAddress, withMainAddress } from '@taxiarch/core/network/ip';
import { putController } from '@taxiarch/core/rig/patch';
import type { Plan } from '@taxiarch/core/show/edit';
import { type Machine, PLAIN_MACHINE } from '@taxiarch/core/show/records';
import { RecordFoot } from '@/forms/RecordFoot';
import { rulesOf } from '@/forms/rules';
import { useRecordForm } from '@/forms/useRecordForm';
import { useShow } from '@/data/show';
import { useLeaveFor, Field, Screen, Sentence, Text, Missing } from '@/ui';
import { wholeFrom } from '@/data/numbers';

interface Form {
  readonly name: string;
  readonly address: string;
  readonly firstUniverse: string;
  readonly universes: string;
  readonly outputs: string;
  readonly channelsPerOutput: string;
}

const formOf = (machine: Machine | undefined): Form => ({
  name: machine?.name ?? '',
  address: machine ? mainAddress(machine) : '',
  firstUniverse: String(machine?.controller?.firstUniverse ?? 1),
  universes: String(machine?.controller?.universes ?? 4),
  outputs: String(machine?.controller?.outputs ?? 4),
  channelsPerOutput: String(machine?.controller?.channelsPerOutput ?? 510),
});

function planOf(form: Form, base: Machine | undefined, id: string): Result<Plan> {
  const number = (text: string) => wholeFrom(text) ?? NaN;
  const controller = {
    firstUniverse: number(form.firstUniverse),
    universes: number(form.universes),
    outputs: number(form.outputs),
    channelsPerOutput: number(form.channelsPerOutput),
  };
  const address = form.address.trim();
  const plain: Machine = base ?? { ...PLAIN_MACHINE, id, rev: 0, name: '', kind: 'pixel controller' };
  const named: Machine = { ...plain, name: form.name.trim(), controller };
  const prefix = addressesOf(named)[0]?.prefix ?? 8;
  const machine = address === mainAddress(named) ? named : withMainAddress(named, address, prefix);
  return putController(base, machine);
}

const RULES = rulesOf('machine', ['name']);

export function ControllerPage() {
  const { machine: id = '' } = useLocalSearchParams<{ machine: string }>();
  const { records, loaded } = useShow();
  const machine = records.machine.find((one) => one.id === id);
  if (id === 'new' || machine) return <ControllerEditor key={id} machine={machine} />;
  return <Missing loaded={loaded} what="This controller" list="/rig/pixels" act="All controllers" />;
}

function ControllerEditor({ machine }: { machine: Machine | undefined }) {
  const leaveFor = useLeaveFor();
  const editing = useRecordForm<Form, Machine>('controller', machine, formOf, RULES);
  const { id, base, form, text } = editing;
  const plan = useMemo(() => planOf(form, base, id), [form, base, id]);
  const field = (name: keyof Form, label: string, mono = true) => (
    <View className="flex-1">
      <Field label={label} mono={mono} {...text(name)} />
    </View>
  );
  return (
    <Screen sentence={<Sentence>{machine ? machine.name : 'A new pixel controller'}.</Sentence>}>
      <View className="flex-row gap-2">{field('name', 'Name', false)}</View>
      {field('address', 'Network address, empty if not known yet')}
      <View className="flex-row gap-2">
        {field('firstUniverse', 'First universe')}
        {field('universes', 'Universes it takes')}
      </View>
      <View className="flex-row gap-2">
        {field('outputs', 'Outputs')}
        {field('channelsPerOutput', 'Channels an output')}
      </View>
      <Text kind="small">An output of 510 channels drives 170 pixels of three colours.</Text>
      <RecordFoot
        of={editing}
        plan={plan}
        act={machine ? 'Change the controller' : 'Add the controller'}
        onDone={() => leaveFor('/rig/pixels')}
      />
    </Screen>
  );
}
