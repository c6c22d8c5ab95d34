import { nightFerry } from '@taxiarch/core/demo';
import { PLAIN_RANGE, type Source } from '@taxiarch/core/show';
import { formOf, planOf, type SenderForm } from './senderForm';

const ferry = nightFerry();
const bridge = ferry.source[0]!;
const planned = (form: SenderForm, base?: Source) => planOf(form, base, 'new', ferry, () => 'u-new');

test('a sender of the show as a form changes nothing', () => {
  for (const source of ferry.source)
    expect(planned(formOf(source), source)).toMatchObject({ why: 'Nothing would change.' });
});

test('what changes is told line by line, and universes that the show lacks come along', () => {
  const ranges = [...bridge.ranges, { ...PLAIN_RANGE, from: 60 }];
  expect(planned({ ...formOf(bridge), ranges, address: '' }, bridge)).toMatchObject({
    ok: true,
    value: {
      sentence: 'Changed the sender Bridge desk',
      changes: [
        { kind: 'universe', after: { number: 60 } },
        { kind: 'source', id: bridge.id },
      ],
      lines: [
        { subject: 'Universe 60' },
        { subject: 'Bridge desk, address', before: '127.0.0.21', after: 'not known' },
        { subject: 'Bridge desk, universes from 60', before: '' },
      ],
    },
  });
});

test('a new sender gets its first letter on its flag', () => {
  const plan = planned({ ...formOf(undefined), name: 'stern desk', ranges: [{ ...PLAIN_RANGE, from: 1, count: 4 }] });
  expect(plan.ok && plan.value.changes.at(-1)).toMatchObject({
    id: 'new',
    rev: null,
    after: { pennant: { letter: 'S' } },
  });
});

test.each([
  [{ name: ' ' }, /name/i],
  [{ ranges: [{ ...PLAIN_RANGE, from: 1, priority: 201 }] }, /at most 200/],
  [{ ranges: [{ ...PLAIN_RANGE, from: 1, delivery: 'unicast' as const }] }, /to which addresses/],
  [{ address: '10.0.0' }, /four numbers/],
])('%j is refused in a sentence', (over, why) =>
  expect(planned({ ...formOf(bridge), ...over }, bridge)).toMatchObject({
    ok: false,
    why: expect.stringMatching(why) as string,
  }),
);
