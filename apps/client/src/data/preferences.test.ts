import { Preference } from './preferences';

test('the first value until something is written; then that, also for who reads it anew', () => {
  const kept = new Preference(localStorage, 'test name', 'Technician');
  expect(kept.read()).toBe('Technician');
  kept.write('Mara');
  expect([kept.read(), new Preference(localStorage, 'test name', 'x').read()]).toEqual(['Mara', 'Mara']);
  // An empty word is a word: “all places”, say.
  kept.write('');
  expect(kept.read()).toBe('');
});
