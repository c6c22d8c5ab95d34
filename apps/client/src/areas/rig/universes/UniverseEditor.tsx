/** A universe itself: what it is called and how it is planned to travel; who sends it and where it leaves. */
import { Link, useRouter, type Href } from 'expo-router';
import { useMemo } from 'react';
import { View } from 'react-native';
import { flowOf, viewOf } from '@taxiarch/core/truth/check';
import { deleteUniverses } from '@taxiarch/core/network/flow';
import type { Universe } from '@taxiarch/core/show/records';
import { useShow } from '@/data/show';
import { DeletePlan } from '@/forms/Delete';
import { RecordFoot } from '@/forms/RecordFoot';
import { rulesOf } from '@/forms/rules';
import { useRecordForm } from '@/forms/useRecordForm';
import { WireNumber } from '@/forms/WireNumber';
import { useLeaveFor, Button, Field, Pick, Section, Text } from '@/ui';
import { universeFormOf, universePlan, type UniverseForm } from './universeForm';

const MERGES = [
  { value: 'htp', label: 'highest level (HTP)' },
  { value: 'ltp', label: 'latest change (LTP)' },
];

const RULES = rulesOf('universe', ['name']);

export function UniverseEditor({ universe }: { universe: Universe }) {
  const router = useRouter();
  const leaveFor = useLeaveFor();
  const { records, patch } = useShow();
  const editing = useRecordForm<UniverseForm, Universe>(
    'universe',
    universe,
    (one) => universeFormOf(one ?? universe),
    RULES,
  );
  const { form, set, text } = editing;
  const base = editing.base ?? universe;
  const plan = useMemo(() => universePlan(form, base, records), [form, base, records]);
  return (
    <>
      <UniverseWay number={universe.number} />
      <Section title="Name, protocol and number">
        <Field label="Name" {...text('name')} />
        <WireNumber form={form} set={set} />
        <Pick
          label="Merge where Taxiarch shows it"
          options={MERGES}
          value={form.merge}
          onChange={(merge) => set({ merge: merge as Universe['merge'] })}
        />
        <RecordFoot of={editing} plan={plan} act="Change the universe" />
        <View className="flex-row gap-2">
          <Button
            label="Renumber"
            grow
            onPress={() => router.navigate(`/rig/universes/change?universes=${universe.number}`)}
          />
        </View>
        <DeletePlan
          what={`universe ${universe.number}`}
          plan={() => deleteUniverses(records, [universe.number], (number) => patch.universe(number).length)}
          onDone={() => leaveFor('/rig/universes')}
        />
      </Section>
    </>
  );
}

/** Who is planned to send it and where it leaves, with what is missing offered. */
function UniverseWay({ number }: { number: number }) {
  const router = useRouter();
  const { records } = useShow();
  const flow = useMemo(() => flowOf(viewOf(records)), [records]);
  const senders = [
    ...(flow.senders.get(number) ?? []).map(({ sender }): Way => ({
      href: `/flow/senders/${sender.id}`,
      name: sender.name,
    })),
    ...(flow.inputs.get(number) ?? []).map(({ known: { machine }, port }): Way => ({
      href: `/wire/${machine.id}`,
      name: `${machine.name}, input ${port?.number}`,
    })),
    ...(flow.routed.has(number) ? [{ href: '/flow/routes', name: 'a route' } satisfies Way] : []),
  ];
  const carriers = (flow.carriers.get(number) ?? []).map(({ known: { machine }, port }): Way => ({
    href: `/wire/${machine.id}`,
    name: port ? `${machine.name}, port ${port.number}` : machine.name,
  }));
  return (
    <Section title="Its way">
      <Ways label="Sent by" ways={senders} none="nobody yet" />
      {senders.length === 0 && (
        <Button label="Plan who sends it" onPress={() => router.navigate(`/flow/senders/new?universes=${number}`)} />
      )}
      <Ways label="Leaves at" ways={carriers} none="no port yet" />
      {carriers.length === 0 && (
        <Button label="Plan where it leaves" onPress={() => router.navigate(`/flow/outlet?universes=${number}`)} />
      )}
    </Section>
  );
}

interface Way {
  readonly href: Href;
  readonly name: string;
}

function Ways({ label, ways, none }: { label: string; ways: readonly Way[]; none: string }) {
  return (
    <View className="min-h-7 flex-row gap-3">
      <Text kind="small" className="w-20 pt-1">
        {label}
      </Text>
      <View className="flex-1 gap-1">
        {ways.length === 0 && <Text tone="warn">{none}</Text>}
        {ways.map(({ href, name }) => (
          <Link key={name} href={href} asChild>
            <Text tone="press">{name}</Text>
          </Link>
        ))}
      </View>
    </View>
  );
}
