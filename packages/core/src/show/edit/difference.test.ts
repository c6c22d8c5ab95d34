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

test('values are told plainly: yes and no, lists, what is empty, and what has parts', () => {
  const lamp = ferry.lamp[0]!;
  const told = (over: Partial<typeof lamp>) =>
    recordDifference(
      'lamp',
      { ...lamp, locked: false, groups: [], blocks: [], placeId: null, notes: '' },
      {
        ...lamp,
        ...{ locked: false, groups: [], blocks: [], placeId: null, notes: '' },
        ...over,
      },
      'it',
    ).map(({ before, after }) => `${before} → ${after}`);
  expect(told({})).toEqual([]);
  expect(told({ locked: true })).toEqual(['no → yes']);
  expect(told({ groups: ['bow', 'stern'] })).toEqual(['none → bow, stern']);
  expect(told({ blocks: [{ universe: 4, channel: 7 }] })).toEqual(['none → 4 7']);
  expect(told({ placeId: 'place-bow' })).toEqual(['none → place-bow']);
  expect(told({ notes: 'x' })).toEqual(['none → x']);
});

test('a teller that says nothing says none; what does not change by it is not told', () => {
  const tellers = { name: (name: string) => (name === 'Bow' ? '' : name) };
  const lines = recordDifference(
    'universe',
    { ...universe, name: 'Bow' },
    { ...universe, name: 'Stern' },
    'U',
    tellers,
  );
  expect(lines).toEqual([{ subject: 'U, name', before: 'none', after: 'Stern' }]);
  expect(recordDifference('universe', universe, { ...universe, name: 'Other' }, 'U', { name: () => 'same' })).toEqual(
    [],
  );
});

test('a plan’s sentence names the record, or is what was given; what comes along goes first', () => {
  const along = {
    changes: [{ kind: 'place' as const, id: 'p', rev: null, after: null }],
    lines: [{ subject: 'p', before: '', after: 'x' }],
  };
  const plan = recordPlan('universe', universe, { ...universe, name: 'Bow wash' }, { along });
  expect(plan).toMatchObject({
    ok: true,
    value: {
      sentence: 'Changed the universe Bow wash',
      changes: [{ kind: 'place' }, { kind: 'universe', rev: universe.rev }],
      lines: [{ subject: 'p' }, { subject: 'Bow wash, name' }],
    },
  });
  const named = recordPlan('universe', undefined, universe, { sentence: 'Did it', subject: 'It' });
  expect(named.ok && [named.value.sentence, named.value.changes[0]!.rev, named.value.lines[0]!.before]).toEqual([
    'Did it',
    null,
    '',
  ]);
  expect(recordPlan('universe', undefined, { ...universe, name: '' })).toMatchObject({
    value: { sentence: 'Added the universe' },
  });
});
