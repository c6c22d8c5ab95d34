/** The form of a lamp: from record to text and back, with what is wrong in sentences. */
import { formatAddress, readAddress } from '@taxiarch/core/address';
import { checkRecord, type Lamp } from '@taxiarch/core/records';
import type { ProposedChange } from '@taxiarch/core/edit';

export interface LampForm {
  readonly number: string;
  readonly name: string;
  readonly address: string;
  readonly mode: string;
}

export const formOf = (lamp: Lamp): LampForm => ({
  number: String(lamp.number),
  name: lamp.name,
  address: formatAddress(lamp),
  mode: lamp.mode,
});

export type FormFaults = Partial<Record<keyof LampForm, string>>;

/** The lamp as the form would have it, or what is wrong with each field. */
export function readForm(lamp: Lamp, form: LampForm): { lamp: Lamp } | { faults: FormFaults } {
  const address = readAddress(form.address);
  if (!address.ok) return { faults: { address: address.why } };
  const next: Lamp = {
    ...lamp,
    number: /^\d+$/.test(form.number.trim()) ? Number(form.number) : NaN,
    name: form.name.trim(),
    mode: form.mode,
    ...address.value,
  };
  const checked = checkRecord('lamp', next);
  if (checked.ok) return { lamp: next };
  const faults: Record<string, string> = {};
  for (const { at, why } of checked.faults) faults[at] ??= why;
  return { faults };
}

/** What was changed, in the words of the history; empty if nothing was. */
export function sentenceOf(before: Lamp, after: Lamp): string {
  const parts = [
    before.number !== after.number && `renumbered it ${after.number}`,
    before.name !== after.name && `renamed it ${after.name}`,
    formatAddress(before) !== formatAddress(after) && `moved it to ${formatAddress(after)}`,
    before.mode !== after.mode && `set its mode to ${after.mode}`,
  ].filter(Boolean);
  return parts.length === 0 ? '' : `Lamp ${before.number}: ${parts.join(', ')}`;
}

export const changeOf = (before: Lamp, after: Lamp): ProposedChange => ({
  kind: 'lamp',
  id: before.id,
  rev: before.rev,
  after,
});
