import { object, ValidationError, type ObjectSchema } from 'yup';
import { readRange } from '@taxiarch/core/base/address';
import { readBy, rulesOf } from './rules';

/** What is said of each field; nothing where all is well. */
function said(rules: ObjectSchema<object>, form: object): Readonly<Record<string, string>> {
  try {
    rules.validateSync(form, { abortEarly: false });
    return {};
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    return Object.fromEntries(error.inner.map(({ path, message }) => [path, message]));
  }
}

test('numbers typed as text are judged as the record’s numbers', () => {
  const rules = rulesOf('lamp', ['number']);
  expect(said(rules, { number: ' 12 ' })).toEqual({});
  expect(said(rules, { number: '12a' }).number).toMatch(/whole number/);
  expect(said(rules, { number: '0' }).number).toMatch(/at least 1/);
});

test('text is judged without the spaces around it', () => {
  const rules = rulesOf('machine', ['name', 'notes']);
  expect(said(rules, { name: ' Boiler node ', notes: '' })).toEqual({});
  expect(said(rules, { name: '  ', notes: 'n' })).toEqual({ name: expect.stringMatching(/missing/) as string });
});

test('what may be empty may be left empty', () => {
  const rules = rulesOf('machine', ['modelId', 'locked']);
  expect(said(rules, { modelId: '', locked: true })).toEqual({});
  expect(said(rules, { modelId: '', locked: 'yes' }).locked).toMatch(/yes or no/);
});

test('text that cannot be read shows the reader’s own sentence', () => {
  const rules = object({ range: readBy(readRange) });
  expect(said(rules, { range: '3/1-24' })).toEqual({});
  const refused = readRange('3/900');
  expect(said(rules, { range: '3/900' })).toEqual({ range: refused.ok ? '' : refused.why });
});
