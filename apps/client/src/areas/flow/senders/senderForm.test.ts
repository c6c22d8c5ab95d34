import { nightFerry } from '@taxiarch/core/whole/demo';
import { sendersOf } from '@taxiarch/core/network/flow';
import { PLAIN_LINE } from '@taxiarch/core/show/records';
import { formOf, planOf, type SenderForm } from './senderForm';

const ferry = nightFerry();
const senders = sendersOf(ferry.machine);
const bridge = senders[0]!;
const planned = (form: SenderForm) => planOf(form, undefined, 'new', ferry, () => 'u-new');

test('a sender of the show as a form changes nothing', () => {
  for (const sender of senders) expect(planned(formOf(sender.machine))).toMatchObject({ why: 'Nothing would change.' });
});

test('what changes is told line by line, and universes that the show lacks come along', () => {
  const lines = [...bridge.lines, { ...PLAIN_LINE, from: 60 }];
  expect(planned({ ...formOf(bridge.machine), lines, pennant: { ...bridge.pennant, cut: 'notch' } })).toMatchObject({
    ok: true,
    value: {
      sentence: 'Changed the sender Bridge desk',
      changes: [
        { kind: 'universe', after: { number: 60 } },
        { kind: 'machine', id: bridge.id, rev: 0 },
      ],
      lines: [
        { subject: 'Universe 60' },
        { subject: 'Bridge desk, flag', before: 'B, swallow, plain', after: 'B, notch, plain' },
        { subject: 'Bridge desk, universes from 60', before: '' },
      ],
    },
  });
});

test('a new sender is a new machine with its address, and its first letter on its flag', () => {
  const form = { ...formOf(undefined), name: 'stern desk', address: '192.168.1.4' };
  const plan = planned({ ...form, lines: [{ ...PLAIN_LINE, from: 1, count: 4 }] });
  expect(plan.ok && plan.value.changes).toMatchObject([
    {
      kind: 'machine',
      id: 'new',
      rev: null,
      after: {
        kind: 'console',
        interfaces: [{ addresses: [{ address: '192.168.1.4', prefix: 24 }] }],
        sends: { pennant: { letter: 'S' } },
      },
    },
  ]);
});

test.each([
  [{ machineId: '' }, /Give the new machine a name/],
  [{ lines: [{ ...PLAIN_LINE, from: 1, priority: 201 }] }, /at most 200/],
  [{ lines: [{ ...PLAIN_LINE, from: 1, delivery: 'unicast' as const }] }, /to which addresses/],
  [{ machineId: '', name: 'New', address: '10.0.0' }, /four numbers/],
])('%j is refused in a sentence', (over, why) =>
  expect(planned({ ...formOf(bridge.machine), ...over })).toMatchObject({
    ok: false,
    why: expect.stringMatching(why) as string,
  }),
);
