import { PLAIN_LINE } from '@taxiarch/core/show/records';
import { newLine, UNTOUCHED, lineFormOf, linesFrom, setLines } from './lineForm';

const line = { ...PLAIN_LINE, from: 9, count: 4, note: 'by the stern' };

test('a line as a form is the same line again', () =>
  expect(linesFrom(lineFormOf(line))).toEqual({ ok: true, value: [line] }));

test('a hundred universes in one line, or in several that run on', () => {
  expect(linesFrom({ ...newLine(40), universes: '1-100', protocol: 'artnet', wire: '0.1.0' })).toMatchObject({
    value: [{ from: 1, count: 100, to: { protocol: 'artnet', number: 16 } }],
  });
  expect(linesFrom({ ...newLine(40), universes: '1-4, 9', protocol: 'sacn', wire: '21' })).toMatchObject({
    value: [
      { from: 1, count: 4, to: { protocol: 'sacn', number: 21 } },
      { from: 9, count: 1, to: { protocol: 'sacn', number: 25 } },
    ],
  });
});

test('many lines are set at once; what is left empty stays as each has it', () => {
  const lines = [line, { ...line, from: 20, count: 2, rate: 30 }, { ...line, from: 40 }];
  const set = setLines(lines, new Set([0, 1]), { ...UNTOUCHED, priority: '90', protocol: 'sacn', wire: '100' });
  expect(set).toEqual({
    ok: true,
    value: [
      { ...line, priority: 90, to: { protocol: 'sacn', number: 100 } },
      { ...line, from: 20, count: 2, rate: 30, priority: 90, to: { protocol: 'sacn', number: 104 } },
      lines[2],
    ],
  });
  expect(setLines(lines, new Set([2]), { ...UNTOUCHED, on: 'no' })).toMatchObject({
    value: [{ on: true }, { on: true }, { on: false }],
  });
});

test.each([
  [{ universes: '' }, /Say which universes/],
  [{ universes: 'x' }, /is no universe/],
  [{ universes: '1', protocol: 'sacn', wire: '0' }, /run from 1/],
  [{ universes: '1', protocol: 'artnet', wire: '199.0.0' }, /./],
])('%j is refused in a sentence', (over, why) =>
  expect(linesFrom({ ...newLine(40), ...over })).toMatchObject({
    ok: false,
    why: expect.stringMatching(why) as string,
  }),
);
