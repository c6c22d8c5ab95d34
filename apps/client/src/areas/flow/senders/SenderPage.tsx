/** What one machine is planned to send, at which priority, under which flag. */
import { Link, useLocalSearchParams } from 'expo-router';
import { useMemo } from 'react';
import { View } from 'react-native';
import { allowanceText, viewOf } from '@taxiarch/core/truth/check';
import { changed } from '@taxiarch/core/show/edit';
import { fittingRate, sendersOf, type Sender } from '@taxiarch/core/network/flow';
import {
  PENNANT_CUTS,
  PENNANT_FILLS,
  type Machine,
  type PennantCut,
  type PennantFill,
  SENDING_KINDS,
} from '@taxiarch/core/show/records';
import { newId } from '@/data/numbers';
import { useShow } from '@/data/show';
import { MachineChoice } from '@/forms/MachineChoice';
import { RecordFoot } from '@/forms/RecordFoot';
import { useRecordForm } from '@/forms/useRecordForm';
import { Delete } from '@/forms/Delete';
import { useLeaveFor, Field, PennantFlag, Pick, Screen, Section, Sentence, Text, Missing } from '@/ui';
import { SenderLines } from './SenderLines';
import { formOf, newForm, planOf, type SenderForm } from './senderForm';

export function SenderPage() {
  const { sender: id = '' } = useLocalSearchParams<{ sender: string }>();
  const { records, loaded } = useShow();
  const sender = sendersOf(records.machine).find((one) => one.id === id);
  if (id === 'new' || sender) return <Editor key={id} sender={sender} />;
  return <Missing loaded={loaded} what="This sender" list="/flow/senders" act="All senders" />;
}

const words = (all: readonly string[]) => all.map((value) => ({ value, label: value }));

/** Where one who came from a universe goes back to. */
const universeHref = (asked: string) => `/rig/universes/${Number.parseInt(asked, 10)}?view=way` as const;

function Editor({ sender }: { sender: Sender | undefined }) {
  const leaveFor = useLeaveFor();
  const { universes: asked = '', machine: which = '' } = useLocalSearchParams<{
    universes?: string;
    machine?: string;
  }>();
  const { records } = useShow();
  const editing = useRecordForm<SenderForm, Machine>(
    sender ? 'sender' : `sender of ${asked}${which}`,
    sender?.machine,
    (machine) => (machine ? formOf(machine) : newForm(asked, which, fittingRate(records))),
  );
  const { id, form, set } = editing;
  const plan = useMemo(() => planOf(form, editing.base, id, records, newId), [form, editing.base, id, records]);
  const planned = useMemo(() => new Map(records.universe.map((one) => [one.number, one])), [records.universe]);
  const view = useMemo(() => viewOf(records), [records]);
  const allowed = sender && allowanceText({ ...sender, lines: form.lines }, view);
  const machine = records.machine.find((one) => one.id === form.machineId);
  return (
    <Screen sentence={<Sentence>{sender ? `${sender.name}, as planned.` : 'A new sender for the plan.'}</Sentence>}>
      {sender ? (
        <Link href={`/wire/${sender.id}`}>
          <Text tone="press">Its name, addresses and place stand on the machine’s own page</Text>
        </Link>
      ) : (
        <MachineChoice
          label="Which machine sends"
          newLabel="Name of the machine"
          form={form}
          set={set}
          machines={records.machine.filter(({ sends, kind }) => sends === null && SENDING_KINDS.includes(kind))}
          kinds={SENDING_KINDS}
        />
      )}
      <Section title="What it sends">
        {allowed && <Text kind="small">{allowed}</Text>}
        <SenderLines
          lines={form.lines}
          onChange={(lines) => set({ lines })}
          planned={planned}
          rate={fittingRate(records)}
          interfaces={machine?.interfaces.map((one) => one.name).filter(Boolean) ?? []}
        />
      </Section>
      <Section title="Its flag">
        <View className="flex-row items-end gap-3">
          <View className="pb-2">
            <PennantFlag pennant={{ ...form.pennant, letter: form.pennant.letter || '?' }} size={32} />
          </View>
          <View className="w-20">
            <Field
              label="Letter"
              value={form.pennant.letter}
              onChange={(letter) => set({ pennant: { ...form.pennant, letter: letter.slice(-1) } })}
            />
          </View>
          <View className="flex-1">
            <Pick
              label="Cut"
              options={words(PENNANT_CUTS)}
              value={form.pennant.cut}
              onChange={(cut) => set({ pennant: { ...form.pennant, cut: cut as PennantCut } })}
            />
          </View>
          <View className="flex-1">
            <Pick
              label="Pattern"
              options={words(PENNANT_FILLS)}
              value={form.pennant.fill}
              onChange={(fill) => set({ pennant: { ...form.pennant, fill: fill as PennantFill } })}
            />
          </View>
        </View>
        <Text kind="small">Every value of this sender wears it, wherever it is shown.</Text>
      </Section>
      <RecordFoot
        of={editing}
        plan={plan}
        act={sender ? 'Change the sender' : 'Add the sender'}
        onDone={() => leaveFor(asked === '' ? '/flow/senders' : universeHref(asked))}
      />
      {sender && (
        <Delete
          what={`what ${sender.name} sends`}
          change={changed('machine', sender.machine, { ...sender.machine, sends: null })}
          onDone={() => {
            editing.clear();
            leaveFor('/flow/senders');
          }}
        />
      )}
    </Screen>
  );
}
