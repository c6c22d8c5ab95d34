/** Rules for what is typed, made from the descriptions of the records that it becomes. */
import { mixed, object, ValidationError, type AnySchema, type ObjectSchema } from 'yup';
import type { Field } from '@taxiarch/core/base/field';
import type { Result } from '@taxiarch/core/base/result';
import { DESCRIPTIONS, type Kind } from '@taxiarch/core/show/records';
import { wholeFrom } from '@/data/numbers';

/** What a form holds as text, as the record holds it; anything else stays as it is. */
function readAs({ column, nullable }: Field, value: unknown): unknown {
  if (typeof value !== 'string') return value;
  const text = value.trim();
  if (nullable && text === '') return null;
  if (column === 'integer') return wholeFrom(text) ?? NaN;
  return column === 'double' ? Number(text.replace(',', '.')) : text;
}

const ruleOf = (field: Field): AnySchema =>
  mixed().test('described', (value, { createError }) => {
    try {
      field.rule.validateSync(readAs(field, value));
      return true;
    } catch (error) {
      if (error instanceof ValidationError) return createError({ message: error.errors[0]! });
      throw error;
    }
  });

/** The rules of some fields of a kind of record, for a form that has them under the same names. */
export function rulesOf(kind: Kind, names: readonly string[]): ObjectSchema<object> {
  const { fields } = DESCRIPTIONS[kind];
  return object(Object.fromEntries(names.map((name) => [name, ruleOf(fields[name]!)])));
}

/** A rule for what is read from text in a way of its own. */
export const readBy = (read: (text: string) => Result<unknown>): AnySchema =>
  mixed<string>().test('read', (text, { createError }) => {
    const result = read(text ?? '');
    return result.ok || createError({ message: result.why });
  });
