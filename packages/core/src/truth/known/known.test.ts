import { seenOf, weakest } from '.';
import type { Sighting } from '../../show/records';

const lamp = { kind: 'lamp', id: 'lamp-1', part: '' } as const;
const sighting = (over: Partial<Sighting> = {}): Sighting => ({
  id: 's',
  rev: 10,
  about: lamp,
  question: 'lit',
  answer: 'yes',
  by: 'Ada',
  at: '2026-11-26T08:00:00.000Z',
  ...over,
});
const at = Date.parse('2026-11-26T08:00:00.000Z');

test('a statement is as strong as the weakest that it rests on', () => {
  expect(weakest(['seen', 'heard'])).toBe('heard');
  expect(weakest(['heard', 'worked out', 'said'])).toBe('worked out');
  expect(weakest(['not known', 'seen'])).toBe('not known');
});

test('the latest answer counts, and only of the same question about the same thing', () => {
  const all = [
    sighting(),
    sighting({ id: 't', rev: 12, answer: 'no' }),
    sighting({ id: 'u', rev: 14, question: 'colour' }),
    sighting({ id: 'v', rev: 15, about: { ...lamp, id: 'lamp-2' } }),
  ];
  expect(seenOf({ sighting: all, mark: [] }, lamp, 'lit', [])).toEqual({ answer: 'no', by: 'Ada', at, changed: [] });
  expect(seenOf({ sighting: all, mark: [] }, lamp, 'pan', [])).toBeUndefined();
});

test('what changed on its path since then makes it old, and is named', () => {
  const path = [
    { name: 'Boiler node', rev: 11 },
    { name: 'universe 3', rev: 10 },
    { name: 'Crow’s nest', began: at + 1 },
    { name: 'Quay node', began: at - 1 },
  ];
  expect(seenOf({ sighting: [sighting()], mark: [] }, lamp, 'lit', path)!.changed).toEqual([
    'Boiler node',
    'Crow’s nest',
  ]);
  // Of what was answered before times were kept nobody knows whether a device began anew since.
  expect(seenOf({ sighting: [sighting({ at: '' })], mark: [] }, lamp, 'lit', path)!.changed).toContain('Quay node');
});
