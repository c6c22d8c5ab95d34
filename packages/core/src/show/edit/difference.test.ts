import { nightFerry } from '../../whole/demo';
import { DESCRIPTIONS, type Link, type Universe } from '../records';
import { recordDifference, recordPlan } from '.';

const ferry = nightFerry();
const [universe] = ferry.universe as [Universe];
const [link] = ferry.link as [Link];

test('what changes is told field by field under its label, with its unit, and nothing else', () => {
  const after: Universe = { ...universe, name: 'Bow wash', wire: 41 };
  expect(recordDifference('universe', universe, after, 'Universe 1')).toEqual([
    { subject: 'Universe 1, name', before: universe.name, after: 'Bow wash' },
    { subject: 'Universe 1, wire number', before: String(universe.wire), after: '41' },
  ]);
  const model = ferry.model[0]!;
  expect(recordDifference('model', model, { ...model, rate: 30 }, 'it')).toEqual([
    { subject: 'it, most frames of a port', before: `${model.rate} Hz`, after: '30 Hz' },
  ]);
});

test('of a new record all is told that it says, by tellers where it does not say it itself', () => {
  const told = recordDifference('link', undefined, link, 'new', {
    name: null,
    senderId: (id) => `sender ${id}`,
  });
  expect(told).toContainEqual({ subject: 'new, sender', before: '', after: `sender ${link.senderId}` });
  expect(told.map(({ subject }) => subject)).not.toContain('new, name');
});

test('the plan of a record follows on the one that it was begun from; what breaks a rule or changes nothing is refused', () => {
  const plan = recordPlan('universe', { ...universe, rev: 7 }, { ...universe, merge: 'ltp' });
  expect(plan).toMatchObject({
    ok: true,
    value: { sentence: `Changed the universe ${universe.name}`, changes: [{ kind: 'universe', rev: 7 }] },
  });
  expect(recordPlan('universe', universe, { ...universe })).toMatchObject({ reason: 'nothing' });
  expect(recordPlan('universe', universe, { ...universe, wire: 0 })).toMatchObject({
    reason: 'not-understood',
    why: 'sACN universes begin at 1.',
  });
});

test('every field of every kind has a label that a line can be told under', () => {
  for (const { fields, one } of Object.values(DESCRIPTIONS)) {
    const labels = Object.values(fields).map(({ label }) => label);
    expect([one, new Set(labels).size]).toEqual([one, labels.length]);
    expect(labels.every((label) => /^[A-Zxyz]/.test(label))).toBe(true);
  }
});
