/** The form of a lamp: from record to text and back. */
import { formatAddress, isAddressed, readLampAddress } from '@taxiarch/core/base/address';
import type { Lamp } from '@taxiarch/core/show/records';
import type { ProposedChange } from '@taxiarch/core/show/edit';
import { readBy, rulesOf } from '@/forms/rules';

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

/** What is wrong with a field is said beside it. */
export const RULES = rulesOf('lamp', ['number', 'name', ...PAPER_FIELDS]).shape({ address: readBy(readLampAddress) });

/** The lamp as the form would have it; of one that keeps its rules. */
export function lampOf(lamp: Lamp, form: LampForm): Lamp {
  const address = readLampAddress(form.address);
  const paper = Object.fromEntries(PAPER_FIELDS.map((field) => [field, form[field].trim()]));
  return {
    ...lamp,
    ...(paper as Record<PaperField, string>),
    number: Number(form.number),
    name: form.name.trim(),
    mode: form.mode,
    ...(address.ok ? address.value : {}),
  };
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
