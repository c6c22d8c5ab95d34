/** What lies between a record as it is and as it should be, told and planned. */
import type { Field } from '../../base/field';
import { DESCRIPTIONS, checkRecord, type Kind, type RecordOf } from '../records';
import { ok, refuse, type Result } from '../../base/result';
import { put, type Plan, type PlanLine } from './plan';

/** How fields are told whose value does not say it by itself; `null` for those that are not told of. */
export type Tellers<R> = { readonly [K in keyof R]?: ((value: R[K]) => string) | null };

interface Telling<K extends Kind> {
  /** What the record is called in the lines; its name if left out */
  readonly subject?: string;
  /** In the past tense; “Changed the link …” if left out */
  readonly sentence?: string;
  readonly tellers?: Tellers<RecordOf[K]>;
  /** What has to come along: universes, a model */
  readonly along?: Pick<Plan, 'changes' | 'lines'> | undefined;
}

/** A value as a person reads it. */
function plainly(value: unknown): string {
  if (value === null || value === undefined || value === '') return 'none';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (Array.isArray(value)) return value.map(plainly).join(', ') || 'none';
  if (typeof value === 'object') return Object.values(value).map(plainly).join(' ');
  return String(value as string | number);
}

const told = ({ unit }: Field, value: unknown): string =>
  typeof value === 'number' && unit !== '' ? `${value} ${unit}` : plainly(value);

/** Field by field what would change, under the label that forms give the field; all of a record that is new. */
export function recordDifference<K extends Kind>(
  kind: K,
  before: RecordOf[K] | undefined,
  after: RecordOf[K],
  subject: string,
  tellers: Tellers<RecordOf[K]> = {},
): PlanLine[] {
  return Object.entries(DESCRIPTIONS[kind].fields).flatMap(([key, field]) => {
    const teller = tellers[key as keyof RecordOf[K]];
    if (teller === null) return [];
    const tell = (record: RecordOf[K]): string => {
      const value = record[key as keyof RecordOf[K]];
      return teller ? teller(value) || 'none' : told(field, value);
    };
    const [was, is] = [before ? tell(before) : '', tell(after)];
    if (was === is || (!before && is === 'none')) return [];
    return [{ subject: `${subject}, ${field.label.toLowerCase()}`, before: was, after: is }];
  });
}

const nameIn = (record: object): string => ('name' in record ? String(record.name) : '');

/** The plan of one record as it should be; refused if it breaks a rule of its kind, or if nothing would change. */
export function recordPlan<K extends Kind>(
  kind: K,
  before: RecordOf[K] | undefined,
  after: RecordOf[K],
  { subject, sentence, tellers, along = { changes: [], lines: [] } }: Telling<K> = {},
): Result<Plan> {
  const checked = checkRecord(kind, after);
  if (!checked.ok) return refuse('not-understood', checked.why);
  const called = subject ?? nameIn(after);
  const lines = recordDifference(kind, before, after, called, tellers);
  if (lines.length === 0) return refuse('nothing', 'Nothing would change.');
  return ok({
    sentence: sentence ?? `${before ? 'Changed' : 'Added'} the ${DESCRIPTIONS[kind].one} ${called}`.trim(),
    changes: [...along.changes, put(kind, before, after)],
    lines: [...along.lines, ...lines],
  });
}
