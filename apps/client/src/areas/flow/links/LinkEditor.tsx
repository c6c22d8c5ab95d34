/** A link as it is planned: who sends to whom, by which protocol, and which universes become which. */
import { useMemo } from 'react';
import { View } from 'react-native';
import type { NumberingBase, Protocol } from '@taxiarch/core/base/address';
import { sendersOf } from '@taxiarch/core/network/flow';
import { removed } from '@taxiarch/core/show/edit';
import { START_ORDERS, type Link } from '@taxiarch/core/show/records';
import { proposeLines } from '@taxiarch/core/truth/link';
import { wholeFrom } from '@/data/numbers';
import { useShow } from '@/data/show';
import { Delete } from '@/forms/Delete';
import { MachineChoice } from '@/forms/MachineChoice';
import { RecordFoot } from '@/forms/RecordFoot';
import { useRecordForm } from '@/forms/useRecordForm';
import { Button, Choice, Field, Pick, Screen, Section, Sentence, useLeaveFor } from '@/ui';
import { linkFormOf, linkPlan, newLinkForm, type LinkForm } from './linkForm';

const PROTOCOLS = [
  { value: 'sacn', label: 'sACN' },
  { value: 'artnet', label: 'Art-Net' },
] as const;
const BASES = [
  { value: '1', label: 'from 1' },
  { value: '0', label: 'from 0' },
];

const ORDER_LABELS: Readonly<Record<Link['startsFirst'], string>> = {
  sender: 'Sender first',
  visualiser: 'Visualiser first',
  either: 'Either',
};

/** The link itself; without one, a new link. */
export function LinkEditor({ link }: { link: Link | undefined }) {
  const leaveFor = useLeaveFor();
  const { records } = useShow();
  const editing = useRecordForm<LinkForm, Link>('link', link, (one) => (one ? linkFormOf(one) : newLinkForm(records)));
  const { id, base, form, set } = editing;
  const plan = useMemo(() => linkPlan(form, base, id, records), [form, base, id, records]);
  const senders = sendersOf(records.machine);
  const sender = senders.find((one) => one.id === form.senderId);
  /** All that the sender sends by the protocol, one to one. */
  const oneToOne = (next: Partial<LinkForm>) => {
    const wanted = { ...form, ...next };
    const its = senders.find((one) => one.id === wanted.senderId);
    set({ ...next, lines: its ? proposeLines(its, wanted.protocol, records.universe) : wanted.lines });
  };
  const setLine = (which: number, next: Partial<Link['lines'][number]>) =>
    set({ lines: form.lines.map((line, i) => (i === which ? { ...line, ...next } : line)) });
  return (
    <Screen sentence={<Sentence>{link ? `${link.name}.` : 'A sender, linked to a visualiser.'}</Sentence>}>
      <Pick
        label="Sender"
        options={[{ value: '', label: 'choose' }, ...senders.map((one) => ({ value: one.id, label: one.name }))]}
        value={form.senderId}
        onChange={(senderId) => oneToOne({ senderId })}
      />
      <MachineChoice
        label="Visualiser"
        newLabel="Name of the visualiser"
        form={{
          machineId: form.visualiserId,
          name: form.visualiserName,
          kind: 'visualiser',
          address: form.visualiserAddress,
        }}
        set={({ machineId, name, address }) =>
          set({
            ...(machineId !== undefined && { visualiserId: machineId }),
            ...(name !== undefined && { visualiserName: name }),
            ...(address !== undefined && { visualiserAddress: address }),
          })
        }
        machines={records.machine.filter(({ kind }) => kind === 'visualiser' || kind === 'computer')}
        kinds={['visualiser']}
      />
      <Choice
        label="Protocol"
        options={PROTOCOLS}
        value={form.protocol}
        onChange={(protocol: Protocol) => oneToOne({ protocol })}
      />
      {form.protocol === 'artnet' && (
        <View className="flex-row gap-2">
          <View className="flex-1">
            <Pick
              label="The sender counts"
              options={BASES}
              value={String(form.senderBase)}
              onChange={(value) => set({ senderBase: Number(value) as NumberingBase })}
            />
          </View>
          <View className="flex-1">
            <Pick
              label="The visualiser counts"
              options={BASES}
              value={String(form.receiverBase)}
              onChange={(value) => set({ receiverBase: Number(value) as NumberingBase })}
            />
          </View>
        </View>
      )}
      <Choice
        label="Which starts first"
        options={START_ORDERS.map((value) => ({ value, label: ORDER_LABELS[value] }))}
        value={form.startsFirst}
        onChange={(startsFirst) => set({ startsFirst })}
      />
      <Section title="Which universes become which">
        {form.lines.map((line, i) => (
          <View key={i} className="flex-row items-end gap-2" role="group" aria-label={`Line ${i + 1}`}>
            <View className="flex-1">
              <Field
                label="From"
                mono
                value={String(line.from || '')}
                onChange={(text) => setLine(i, { from: wholeFrom(text) ?? 0 })}
              />
            </View>
            <View className="flex-1">
              <Field
                label="How many"
                mono
                value={String(line.count || '')}
                onChange={(text) => setLine(i, { count: wholeFrom(text) ?? 0 })}
              />
            </View>
            <View className="flex-1">
              <Field
                label="Its number there"
                mono
                value={String(line.to)}
                onChange={(text) => setLine(i, { to: wholeFrom(text) ?? 0 })}
              />
            </View>
            <Button
              label={`Remove line ${i + 1}`}
              short="Remove"
              onPress={() => set({ lines: form.lines.filter((_, at) => at !== i) })}
            />
          </View>
        ))}
        <View className="flex-row gap-2">
          <Button label="One to one" grow disabled={!sender} onPress={() => oneToOne({})} />
          <Button
            label="Add a line"
            grow
            onPress={() => set({ lines: [...form.lines, { from: 1, count: 1, to: 1 }] })}
          />
        </View>
      </Section>
      <RecordFoot
        of={editing}
        plan={plan}
        act={link ? 'Change the link' : 'Add the link'}
        onDone={() => leaveFor(`/flow/links/${id}`)}
      />
      {link && (
        <Delete
          change={removed('link', link)}
          what={`the link ${link.name}`}
          onDone={() => {
            editing.clear();
            leaveFor('/flow/links');
          }}
        />
      )}
    </Screen>
  );
}
