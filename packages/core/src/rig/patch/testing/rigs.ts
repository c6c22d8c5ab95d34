/** Rigs of any kind, and what acts make of them. */
import { nightFerry } from '../../../whole/demo';
import { LIBRARY } from '../../library';
import { type FixtureType } from '../../../show/records';
import { patchFindings, readdress, type Rig, rigOf } from '..';
import { type Plan, recordsAfter } from '../../../show/edit';

let ids = 0;

export const newId = () => `new-${(ids += 1)}`;

export const typeOf = (id: string): FixtureType => LIBRARY.find((one) => one.id === `type-${id}`)!;

export const ferry = rigOf(nightFerry());

export const done = (result: ReturnType<typeof readdress>): Plan => {
  if (!result.ok) throw new Error(result.why);
  return result.value;
};

export const after = (rig: Rig, plan: Plan): Rig => rigOf(recordsAfter(rig.records, plan.changes));

export const findingsOf = (rig: Rig) => patchFindings(rig.patch, rig.records.universe);
