/** Many universes changed at once: numbers, protocol, names, merge; or deleted when nothing uses them. */
import { useLocalSearchParams } from 'expo-router';
import { useMemo, useState } from 'react';
import { formatUniverses, readUniverses } from '@taxiarch/core/base/address';
import type { Plan } from '@taxiarch/core/show/edit';
import { deleteUniverses, nameUniverses, renumberUniverses, setMerge, setWires } from '@taxiarch/core/network/flow';
import type { Universe } from '@taxiarch/core/show/records';
import { refuse, type Result } from '@taxiarch/core/base/result';
import { wholeFrom } from '@/data/numbers';
import { useShow, type Show } from '@/data/show';
import { PlanPreview } from '@/forms/PlanPreview';
import { WireNumber, readWire, wireFormOf, type WireForm } from '@/forms/WireNumber';
import { useLeaveFor, Choice, Field, Pick, Screen, Section, Sentence, count } from '@/ui';

const ACTS = [
  { value: 'renumber', label: 'Renumber in the show' },
  { value: 'wire', label: 'Change protocol and wire numbers' },
  { value: 'name', label: 'Name' },
  { value: 'merge', label: 'Set the merge' },
  { value: 'delete', label: 'Delete' },
] as const;
type Act = (typeof ACTS)[number]['value'];

const HOWS = [
  { value: 'keep', label: 'Each keeps its place' },
  { value: 'from', label: 'From a number on' },
] as const;
const MERGES = [
  { value: 'htp', label: 'highest level (HTP)' },
  { value: 'ltp', label: 'latest change (LTP)' },
];

interface Form extends WireForm {
  readonly first: string;
  readonly how: (typeof HOWS)[number]['value'];
  readonly pattern: string;
  readonly merge: Universe['merge'];
}

function planOf({ records, patch }: Show, numbers: Result<number[]>, act: Act, form: Form): Result<Plan> {
  if (!numbers.ok) return numbers;
  const of = numbers.value;
  if (of.length === 0) return refuse('nothing', 'Say which universes: 1-8, or 1-8, 12.');
  switch (act) {
    case 'renumber':
      return renumberUniverses(records, of, wholeFrom(form.first) ?? NaN);
    case 'wire': {
      const wire = readWire(form);
      if (form.how === 'from' && !wire.ok) return wire;
      return setWires(records, of, form.protocol, form.how === 'from' && wire.ok ? wire.value : undefined);
    }
    case 'name':
      return nameUniverses(records, of, form.pattern);
    case 'merge':
      return setMerge(records, of, form.merge);
    case 'delete':
      return deleteUniverses(records, of, (number) => patch.universe(number).length);
  }
}

export function ChangeUniverses() {
  const leaveFor = useLeaveFor();
  const { universes: asked = '' } = useLocalSearchParams<{ universes?: string }>();
  const show = useShow();
  const [universes, setUniverses] = useState(asked);
  const [act, setAct] = useState<Act>('renumber');
  const numbers = useMemo(() => readUniverses(universes), [universes]);
  const first = numbers.ok ? numbers.value[0] : undefined;
  const [form, setForm] = useState<Form>({
    ...wireFormOf('sacn', first ?? 1),
    first: '',
    how: 'keep',
    pattern: '',
    merge: 'ltp',
  });
  const set = (part: Partial<Form>) => setForm({ ...form, ...part });
  const plan = useMemo(() => planOf(show, numbers, act, form), [show, numbers, act, form]);
  return (
    <Screen
      sentence={
        <Sentence>
          {numbers.ok && numbers.value.length > 0
            ? `Change ${count(numbers.value.length, 'universe')}: ${formatUniverses(numbers.value)}.`
            : 'Change universes.'}
        </Sentence>
      }
    >
      <Field label="Which, as 5 or 1-8, 12" mono value={universes} onChange={setUniverses} />
      <Pick label="What to do" options={ACTS} value={act} onChange={(next) => setAct(next as Act)} />
      {act === 'renumber' && (
        <Field
          label="The first becomes"
          mono
          inputMode="numeric"
          value={form.first}
          onChange={(text) => set({ first: text })}
        />
      )}
      {act === 'wire' && (
        <>
          <Choice label="Numbers" options={HOWS} value={form.how} onChange={(how) => set({ how })} />
          <WireNumber form={form} set={set} label="Number of the first on the wire" numberless={form.how === 'keep'} />
        </>
      )}
      {act === 'name' && (
        <Field label="Name, # is the number" value={form.pattern} onChange={(pattern) => set({ pattern })} />
      )}
      {act === 'merge' && (
        <Pick
          label="Merge"
          options={MERGES}
          value={form.merge}
          onChange={(merge) => set({ merge: merge as Universe['merge'] })}
        />
      )}
      <Section title="Preview">
        <PlanPreview
          key={act}
          plan={plan}
          act={ACTS.find(({ value }) => value === act)!.label}
          onDone={() => leaveFor('/rig/universes')}
        />
      </Section>
    </Screen>
  );
}
