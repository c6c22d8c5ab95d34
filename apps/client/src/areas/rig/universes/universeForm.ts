/** One universe as a form, and the plan that it comes to. */
import { formatWire } from '@taxiarch/core/base/address';
import { recordPlan, type Plan } from '@taxiarch/core/show/edit';
import type { ShowRecords, Universe } from '@taxiarch/core/show/records';
import { refuse, type Result } from '@taxiarch/core/base/result';
import { readWire, wireFormOf, type WireForm } from '@/forms/WireNumber';

export interface UniverseForm extends WireForm {
  readonly name: string;
  readonly merge: Universe['merge'];
}

export const universeFormOf = (universe: Universe): UniverseForm => ({
  ...wireFormOf(universe.protocol, universe.wire),
  name: universe.name,
  merge: universe.merge,
});

export function universePlan(form: UniverseForm, base: Universe, { universe }: ShowRecords): Result<Plan> {
  const wire = readWire(form);
  if (!wire.ok) return wire;
  const { protocol, merge } = form;
  const other = universe.find((one) => one.id !== base.id && one.protocol === protocol && one.wire === wire.value);
  if (other)
    return refuse('taken', `Universe ${other.number} is ${formatWire({ protocol, number: wire.value })} already.`);
  return recordPlan(
    'universe',
    base,
    { ...base, name: form.name.trim(), protocol, merge, wire: wire.value },
    {
      subject: `Universe ${base.number}`,
      sentence: `Changed universe ${base.number}`,
      tellers: { protocol: (one) => (one === 'sacn' ? 'sACN' : 'Art-Net') },
    },
  );
}
