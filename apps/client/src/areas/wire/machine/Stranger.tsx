/** A machine that is in no plan: taken into it, or said to be one that is planned already. */
import { ok } from '@taxiarch/core/base/result';
import { Link } from 'expo-router';
import { useState } from 'react';
import { adopt, type HeardMachine, matchByHand } from '@taxiarch/core/network/node';
import type { Plan } from '@taxiarch/core/show/edit';
import { useMachines } from '@/data/machines';
import { newId } from '@/data/numbers';
import { useShow } from '@/data/show';
import { PlanPreview } from '@/forms/PlanPreview';
import { useLeaveFor, Pick, Section, Text } from '@/ui';

export function Stranger({ heard }: { heard: HeardMachine }) {
  const leaveFor = useLeaveFor();
  const { records } = useShow();
  const [id] = useState(newId);
  const entries = useMachines();
  const strangers = entries.filter(({ state }) => state === 'stranger').length;
  const missing = entries.flatMap(({ state, plan }) => (state === 'missing' && plan ? [plan] : []));
  const [which, setWhich] = useState('');
  const planned = missing.find((one) => one.id === which);
  const plan: Plan = planned ? matchByHand(planned, heard) : adopt(records, heard, id);
  return (
    <Section title="Take it into the plan">
      {strangers > 1 && (
        <Link href="/wire/adopt">
          <Text tone="press">Adopt all {strangers} strangers</Text>
        </Link>
      )}
      {missing.length > 0 && (
        <Pick
          label="It is"
          options={[
            { value: '', label: 'A new machine' },
            ...missing.map(({ id: value, name }) => ({ value, label: name })),
          ]}
          value={which}
          onChange={setWhich}
        />
      )}
      <PlanPreview
        key={which}
        plan={ok(plan)}
        act={planned ? `It is ${planned.name}` : 'Adopt'}
        onDone={() => leaveFor(`/wire/${planned?.id ?? id}`)}
      />
    </Section>
  );
}
