/** The form of a lamp: from record to text and back, with what is wrong in sentences. */
import { formatAddress, isAddressed, readLampAddress } from '@taxiarch/core/base/address';
import { checkRecord, type Lamp } from '@taxiarch/core/show/records';
import type { ProposedChange } from '@taxiarch/core/show/edit';

/** What papers and files of others say of a lamp, and what it is called on the form. */
export const PAPER = {
  written: 'Number as written',
  unit: 'Unit number',
  position: 'Hanging position',
  class: 'Class',
  function: 'Function',
  gel: 'Gel',
  circuit: 'Circuit',
  notes: 'Notes',
} as const satisfies Partial<Record<keyof Lamp, string>>;
export type PaperField = keyof typeof PAPER;
export const PAPER_FIELDS = Object.keys(PAPER) as PaperField[];

export interface LampForm extends Readonly<Record<PaperField, string>> {
  readonly number: string;
  readonly name: string;
  /** Empty where it has none */
  readonly address: string;
  readonly mode: string;
}

export const formOf = (lamp: Lamp): LampForm => {
  const { number, name, mode } = lamp;
  const address = isAddressed(lamp) ? formatAddress(lamp) : '';
  return {
    ...{ number: String(number), name, address, mode },
    ...(Object.fromEntries(PAPER_FIELDS.map((field) => [field, lamp[field]])) as Record<PaperField, string>),
  };
};

export type FormFaults = Partial<Record<keyof LampForm, string>>;

/** The lamp as the form would have it, or what is wrong with each field. */
export function readForm(lamp: Lamp, form: LampForm): { lamp: Lamp } | { faults: FormFaults } {
  const address = readLampAddress(form.address);
  if (!address.ok) return { faults: { address: address.why } };
  const paper = Object.fromEntries(PAPER_FIELDS.map((field) => [field, form[field].trim()]));
  const next: Lamp = {
    ...lamp,
    ...(paper as Record<PaperField, string>),
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
  const moved = formatAddress(before) !== formatAddress(after);
  const parts = [
    before.number !== after.number && `renumbered it ${after.number}`,
    before.name !== after.name && `renamed it ${after.name}`,
    moved && (isAddressed(after) ? `moved it to ${formatAddress(after)}` : 'took its address away'),
    before.mode !== after.mode && `set its mode to ${after.mode}`,
    ...PAPER_FIELDS.map(
      (field) =>
        before[field] !== after[field] && `set its ${PAPER[field].toLowerCase()} to ${after[field] || 'nothing'}`,
    ),
  ].filter(Boolean);
  return parts.length === 0 ? '' : `Lamp ${before.number}: ${parts.join(', ')}`;
}

export const changeOf = (before: Lamp, after: Lamp): ProposedChange => ({
  kind: 'lamp',
  id: before.id,
  rev: before.rev,
  after,
});
