import { ValidationError } from 'yup';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { changeOf, formOf, lampOf, RULES, sentenceOf } from './lampForm';

const lamp = nightFerry().lamp.find(({ number }) => number === 101)!;
const form = formOf(lamp);
/** What is said of each field. */
function faults(over: Partial<typeof form>): Readonly<Record<string, string>> {
  try {
    RULES.validateSync({ ...form, ...over }, { abortEarly: false });
    return {};
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    return Object.fromEntries(error.inner.map(({ path, message }) => [path, message]));
  }
}

test('an untouched form reads back as the lamp, and says nothing was done', () => {
  expect(faults({})).toEqual({});
  expect(lampOf(lamp, form)).toEqual(lamp);
  expect(sentenceOf(lamp, lamp)).toBe('');
});

test('what was changed is told in one sentence, and asks for the revision that was read', () => {
  const next = lampOf(lamp, { ...form, address: '4/7', name: ' Spare ' });
  expect(sentenceOf(lamp, next)).toBe('Lamp 101: renamed it Spare, moved it to 4/7');
  expect(changeOf({ ...lamp, rev: 7 }, next)).toMatchObject({
    kind: 'lamp',
    rev: 7,
    after: { universe: 4, channel: 7 },
  });
});

test.each([
  [{ address: '4' }, 'address', /universe\/channel/],
  [{ address: '4/900' }, 'address', /run from 1 to 512/],
  [{ number: 'x' }, 'number', /whole number/],
  [{ number: '0' }, 'number', /at least 1/],
  [{ name: '  ' }, 'name', /missing/],
] as const)('%j is refused at its field', (over, field, why) => expect(faults(over)[field]).toMatch(why));
