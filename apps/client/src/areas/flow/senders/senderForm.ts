/** A planned sender as a form, and the plan that it comes to. */
import { refuse, type Read } from '@taxiarch/core/address';
import { formatUniverses, readUniverses } from '@taxiarch/core/flow';
import { added, changed, missingUniverses, type Plan, type PlanLine } from '@taxiarch/core/patch';
import { checkRecord, type Pennant, type ShowRecords, type Source } from '@taxiarch/core/show';

export interface SenderForm {
  readonly name: string;
  readonly address: string;
  readonly universes: string;
  readonly priority: string;
  readonly pennant: Pennant;
}

export const formOf = (source: Source | undefined): SenderForm => ({
  name: source?.name ?? '',
  address: source?.address ?? '',
  universes: source ? formatUniverses(source.universes) : '',
  priority: String(source?.priority ?? 100),
  pennant: source?.pennant ?? { letter: '', cut: 'square', fill: 'plain' },
});

/** What a form would write; universes that the show lacks come along. */
export function planOf(
  { name, address, universes: text, priority, pennant }: SenderForm,
  base: Source | undefined,
  id: string,
  records: ShowRecords,
  newId: () => string,
): Read<Plan> {
  const universes = readUniverses(text);
  if (!universes.ok) return universes;
  const source: Source = {
    id: base?.id ?? id,
    rev: base?.rev ?? 0,
    name: name.trim(),
    address: address.trim(),
    universes: universes.value,
    priority: /^\d{1,3}$/.test(priority.trim()) ? Number(priority) : NaN,
    pennant: { ...pennant, letter: pennant.letter.trim() || (name.trim()[0] ?? '?').toUpperCase() },
  };
  const checked = checkRecord('source', source);
  if (!checked.ok) return refuse(checked.faults[0]!.why);
  const told = (one: Source | undefined): Record<string, string> =>
    one
      ? {
          name: one.name,
          address: one.address || 'not known',
          universes: formatUniverses(one.universes) || 'none',
          priority: String(one.priority),
          pennant: `${one.pennant.letter}, ${one.pennant.cut}, ${one.pennant.fill}`,
        }
      : {};
  const [before, after] = [told(base), told(source)];
  const lines: PlanLine[] = Object.keys(after)
    .filter((key) => before[key] !== after[key])
    .map((key) => ({ subject: `${source.name}, ${key}`, before: before[key] ?? '', after: after[key]! }));
  if (lines.length === 0) return refuse('Nothing would change.');
  const fresh = missingUniverses(records, universes.value, newId);
  return {
    ok: true,
    value: {
      sentence: `${base ? 'Changed' : 'Added'} the sender ${source.name}`,
      changes: [...fresh.changes, base ? changed('source', base, source) : added('source', source)],
      lines: [...fresh.lines, ...lines],
    },
  };
}
