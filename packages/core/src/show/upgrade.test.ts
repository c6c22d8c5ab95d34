import { nightFerry } from '../demo';
import { checkRecord, upgradeEdit, upgradeRecord, type AnyRecord, type Edit } from '.';

const OLD = {
  id: 'm',
  rev: 3,
  name: 'Old node',
  model: 'Marram Quad 4',
  address: '127.0.0.31',
  placeId: null,
  ports: [{ number: 1, direction: 'out', protocol: 'sacn', universe: 7 }],
  controller: null,
};

test('a machine of before comes to the form of today and keeps what it said', () => {
  const machine = upgradeRecord('machine', OLD);
  expect(machine).toMatchObject({
    id: 'm',
    rev: 3,
    kind: 'node',
    notes: 'Marram Quad 4',
    interfaces: [{ addresses: [{ way: 'fixed', address: '127.0.0.31', prefix: 8 }] }],
    ports: [{ number: 1, use: 'out', universe: 7, merge: 'htp' }],
  });
  expect(checkRecord('machine', machine)).toMatchObject({ ok: true });
  expect(upgradeRecord('machine', machine)).toBe(machine);
});

test('a controller without an address stays one', () =>
  expect(
    upgradeRecord('machine', {
      ...OLD,
      address: '',
      controller: { firstUniverse: 1, universes: 1, outputs: 1, channelsPerOutput: 1 },
    }),
  ).toMatchObject({ kind: 'pixel controller', interfaces: [{ addresses: [] }] }));

test.each([
  ['model', 'speed', 100],
  ['link', 'startsFirst', 'sender'],
] as const)('a %s of before has what was taken for granted as its %s', (kind, field, value) => {
  const { [field]: _, ...old } = nightFerry()[kind][0]! as unknown as Record<string, unknown>;
  const now = upgradeRecord(kind, old) as unknown as Record<string, unknown>;
  expect(now[field]).toBe(value);
  expect(checkRecord(kind, now)).toMatchObject({ ok: true });
  expect(upgradeRecord(kind, now)).toBe(now);
});

test('edits of the history hold records of today, so that undoing an old one works', () => {
  const old = OLD as unknown as AnyRecord;
  const edit: Edit = {
    seq: 1,
    at: '',
    author: '',
    sentence: '',
    changes: [{ kind: 'machine', id: 'm', before: null, after: old }],
  };
  expect(upgradeEdit(edit).changes[0]).toMatchObject({ before: null, after: { kind: 'node' } });
});

test('a sender of before keeps its universes, as lines at its priority', () => {
  const source = upgradeRecord('source', {
    id: 's',
    rev: 2,
    name: 'Desk',
    address: '',
    universes: [3, 1, 2, 9],
    priority: 120,
    pennant: { letter: 'D', cut: 'square', fill: 'plain' },
  });
  expect(source).toMatchObject({
    ranges: [
      { from: 1, count: 3, priority: 120 },
      { from: 9, count: 1, priority: 120 },
    ],
  });
  expect(checkRecord('source', source)).toMatchObject({ ok: true });
  expect(upgradeRecord('source', source)).toBe(source);
});
