/** A planned sender as a form, and the plan that it comes to. */
import { refuse, type Read } from '@taxiarch/core/address';
import { lineDifferences, universesOf } from '@taxiarch/core/flow';
import { added, changed, missingUniverses, type Plan, type PlanLine } from '@taxiarch/core/patch';
import { checkRecord, type Pennant, type ShowRecords, type Source, type SourceRange } from '@taxiarch/core/show';

export interface SenderForm {
  readonly name: string;
  readonly address: string;
  readonly ranges: readonly SourceRange[];
  readonly pennant: Pennant;
}

export const formOf = (source: Source | undefined): SenderForm => ({
  name: source?.name ?? '',
  address: source?.address ?? '',
  ranges: source?.ranges ?? [],
  pennant: source?.pennant ?? { letter: '', cut: 'square', fill: 'plain' },
});

const told = (one: Source | undefined): Record<string, string> =>
  one
    ? {
        name: one.name,
        address: one.address || 'not known',
        flag: `${one.pennant.letter}, ${one.pennant.cut}, ${one.pennant.fill}`,
      }
    : {};

/** What a form would write; universes that the show lacks come along. */
export function planOf(
  { name, address, ranges, pennant }: SenderForm,
  base: Source | undefined,
  id: string,
  records: ShowRecords,
  newId: () => string,
): Read<Plan> {
  const source: Source = {
    id: base?.id ?? id,
    rev: base?.rev ?? 0,
    name: name.trim(),
    address: address.trim(),
    ranges,
    pennant: { ...pennant, letter: pennant.letter.trim() || (name.trim()[0] ?? '?').toUpperCase() },
  };
  const checked = checkRecord('source', source);
  if (!checked.ok) return refuse(checked.faults[0]!.why);
  const before = told(base);
  const lines: PlanLine[] = Object.entries(told(source)).flatMap(([field, after]) =>
    before[field] === after ? [] : [{ subject: `${source.name}, ${field}`, before: before[field] ?? '', after }],
  );
  lines.push(...lineDifferences(source.name, base?.ranges ?? [], ranges));
  if (lines.length === 0) return refuse('Nothing would change.');
  const missing = missingUniverses(records, universesOf(source), newId);
  return {
    ok: true,
    value: {
      sentence: `${base ? 'Changed' : 'Added'} the sender ${source.name}`,
      changes: [...missing.changes, base ? changed('source', base, source) : added('source', source)],
      lines: [...missing.lines, ...lines],
    },
  };
}
