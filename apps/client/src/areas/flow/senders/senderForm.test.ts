import { nightFerry } from '@taxiarch/core/demo';
import type { Source } from '@taxiarch/core/show';
import { formOf, planOf, type SenderForm } from './senderForm';

const ferry = nightFerry();
const bridge = ferry.source[0]!;
const planned = (form: SenderForm, base?: Source) => planOf(form, base, 'new', ferry, () => 'u-new');

test('a sender of the show as a form changes nothing', () => {
  for (const source of ferry.source)
    expect(planned(formOf(source), source)).toMatchObject({ why: 'Nothing would change.' });
});

test('what changes is told field by field, and universes that the show lacks come along', () => {
  const plan = planned({ ...formOf(bridge), universes: '1-12, 60', priority: '120' }, bridge);
  expect(plan).toMatchObject({
    ok: true,
    value: {
      sentence: 'Changed the sender Bridge desk',
      changes: [
        { kind: 'universe', after: { number: 60 } },
        { kind: 'source', id: bridge.id },
      ],
      lines: [
        { subject: 'Universe 60' },
        { subject: 'Bridge desk, universes', before: '1-12', after: '1-12, 60' },
        { subject: 'Bridge desk, priority', before: '100', after: '120' },
      ],
    },
  });
});

test('a new sender gets its first letter on its flag', () => {
  const plan = planned({ ...formOf(undefined), name: 'stern desk', universes: '1-4' });
  expect(plan.ok && plan.value.changes.at(-1)).toMatchObject({
    id: 'new',
    rev: null,
    after: { pennant: { letter: 'S' } },
  });
});

test.each([
  [{ name: ' ' }, /name/i],
  [{ universes: '4-1' }, /ends before/],
  [{ priority: '201' }, /at most 200/],
  [{ priority: 'high' }, /whole number/],
  [{ address: '10.0.0' }, /four numbers/],
])('%j is refused in a sentence', (over, why) =>
  expect(planned({ ...formOf(bridge), ...over }, bridge)).toMatchObject({
    ok: false,
    why: expect.stringMatching(why) as string,
  }),
);
