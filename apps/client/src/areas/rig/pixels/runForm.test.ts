import { nightFerry } from '@taxiarch/core/whole/demo';
import { newRun, readRunForm, runForm } from './runForm';

const { run } = nightFerry();

test.each(run.map((one) => [one.name, one] as const))('%s is the same after the form', (_, one) => {
  expect(readRunForm(runForm(one), one)).toEqual({ ok: true, value: one });
});

test('what cannot be is said in a sentence', () => {
  const form = { ...runForm(newRun('r', 900)), name: 'Rail' };
  expect(readRunForm(form, { id: 'r', rev: 0 })).toMatchObject({ ok: true });
  expect(readRunForm({ ...form, order: 'RGX' }, { id: 'r', rev: 0 })).toMatchObject({
    ok: false,
    why: expect.stringContaining('letters') as string,
  });
  expect(readRunForm({ ...form, start: 'at', at: '7' }, { id: 'r', rev: 0 })).toMatchObject({ ok: false });
  expect(readRunForm({ ...form, from: '1; 2' }, { id: 'r', rev: 0 })).toMatchObject({ ok: false });
  expect(readRunForm({ ...form, name: ' ' }, { id: 'r', rev: 0 })).toMatchObject({ ok: false });
});
