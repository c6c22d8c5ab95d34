/** One planned sender: what it sends, at which priority, under which flag. */
import { useLocalSearchParams, useRouter, type Href } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { allowanceText, machineOfSource, viewOf } from '@taxiarch/core/check';
import { PENNANT_CUTS, PENNANT_FILLS, type PennantCut, type PennantFill, type Source } from '@taxiarch/core/show';
import { useDraft } from '@/data/form';
import { newId } from '@/data/numbers';
import { useShow } from '@/data/show';
import { Empty, Field, PennantFlag, Pick, PlanPreview, Screen, Section, Sentence, TakeOut, Text } from '@/ui';
import { SenderLines } from './SenderLines';
import { formOf, planOf, type SenderForm } from './senderForm';

export function SenderPage() {
  const { source: id = '' } = useLocalSearchParams<{ source: string }>();
  const { records, loaded } = useShow();
  const source = records.source.find((one) => one.id === id);
  if (id === 'new' || source) return <Editor key={id} base={source} />;
  return loaded ? <Empty>This sender is not in the show any more.</Empty> : null;
}

function Editor({ base }: { base: Source | undefined }) {
  const router = useRouter();
  const { records } = useShow();
  const [id] = useState(newId);
  const [form, setForm, clear] = useDraft<SenderForm>(`sender ${base?.id ?? 'new'}`, formOf(base));
  const plan = useMemo(() => planOf(form, base, id, records, newId), [form, base, id, records]);
  const planned = useMemo(() => new Map(records.universe.map((one) => [one.number, one])), [records.universe]);
  const view = useMemo(() => viewOf(records), [records]);
  const machine = base && machineOfSource(base, view)?.machine;
  const allowed = base && allowanceText({ ...base, ranges: form.ranges }, view);
  const set = (next: Partial<SenderForm>) => setForm({ ...form, ...next });
  const back = () => {
    clear();
    router.navigate('/flow/senders' as Href);
  };
  const words = (all: readonly string[]) => all.map((value) => ({ value, label: value }));
  return (
    <Screen sentence={<Sentence>{base ? `${base.name}, as planned.` : 'A new sender for the plan.'}</Sentence>}>
      <Field label="Name, as it calls itself on the network" value={form.name} onChange={(name) => set({ name })} />
      <Field label="Address, empty if not known" mono value={form.address} onChange={(address) => set({ address })} />
      <Section title="What it sends">
        {allowed && <Text kind="small">{allowed}</Text>}
        <SenderLines
          ranges={form.ranges}
          onChange={(ranges) => set({ ranges })}
          planned={planned}
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
      <Section title="Preview">
        <PlanPreview plan={plan} act={base ? 'Change the sender' : 'Add the sender'} onDone={back} />
      </Section>
      {base && <TakeOut kind="source" record={base} what={`the sender ${base.name}`} onDone={back} />}
    </Screen>
  );
}
