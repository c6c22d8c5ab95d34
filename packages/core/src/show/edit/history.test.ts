/** The history read back, names of records, and how a single change is made and judged. */
import { nightFerry } from '../../whole/demo';
import { PLAIN_MARK, type AnyRecord, type Kind, type Mark, type Place, type Proof } from '../records';
import {
  added,
  changed,
  changesBack,
  checkProposedEdit,
  countOf,
  editLines,
  put,
  recordName,
  recordsAfter,
  removed,
  toMaps,
  type Change,
  type Edit,
} from '.';

const ferry = nightFerry();
const [lamp] = ferry.lamp as [(typeof ferry.lamp)[number]];
const [first, second] = ferry.place as [Place, Place];
const was = (kind: Kind, before: AnyRecord | null, after: AnyRecord | null): Change => ({
  kind,
  id: (after ?? before)!.id,
  before,
  after,
});
const edit = (seq: number, ...changes: Change[]): Edit => ({ seq, at: '', author: 'Mara', sentence: 's', changes });

describe('what an edit changed, in lines', () => {
  const lines = (...changes: Change[]) => editLines({ changes }, ferry);

  test('what was added and what was deleted is one line each', () => {
    expect(lines(was('place', null, first), was('place', second, null))).toEqual([
      { subject: `place ${first.name}`, before: '', after: 'added' },
      { subject: `place ${second.name}`, before: 'there', after: 'deleted' },
    ]);
    expect(editLines({ changes: [{ kind: 'place', id: 'x', before: null, after: null }] }, ferry)).toEqual([]);
  });

  test('what was changed is a line for each field, with names in place of ids', () => {
    const after = { ...lamp, name: 'Spare', placeId: second.id };
    expect(lines(was('lamp', { ...lamp, placeId: first.id }, after))).toEqual([
      { subject: `lamp ${lamp.number} ${lamp.name}, name`, before: lamp.name, after: 'Spare' },
      {
        subject: `lamp ${lamp.number} ${lamp.name}, place`,
        before: `place ${first.name}`,
        after: `place ${second.name}`,
      },
    ]);
  });

  test('ids in a list become names too; what came with the same edit is known by its name', () => {
    const fresh: Place = { id: 'place-new', rev: 0, name: 'Hold', order: 9 };
    const found = lines(was('lamp', lamp, { ...lamp, placeId: 'place-new' }), was('place', null, fresh));
    expect(found[0]).toMatchObject({ after: 'place Hold' });
    const groups = lines(was('lamp', { ...lamp, groups: [] }, { ...lamp, groups: [first.id, 'bow'] }));
    expect(groups[0]!.after).toBe(`place ${first.name}, bow`);
  });
});

describe('the way back', () => {
  test('to before the first of several edits, by the number that each record has now', () => {
    const renamed: Place = { ...first, rev: 7, name: 'Twice' };
    const maps = toMaps({ ...ferry, place: [renamed, second] });
    const back = changesBack(
      [
        edit(6, was('place', first, { ...first, name: 'Once' })),
        edit(7, was('place', { ...first, name: 'Once' }, renamed)),
      ],
      maps,
    );
    expect(back).toEqual([{ kind: 'place', id: first.id, rev: 7, after: first }]);
  });

  test('what was added goes, what was deleted comes again, and what is as it was is left alone', () => {
    const fresh: Place = { id: 'new', rev: 3, name: 'Hold', order: 9 };
    const maps = toMaps({ ...ferry, place: [first, fresh] });
    expect(
      changesBack(
        [edit(3, was('place', null, fresh), was('place', second, null), was('place', first, { ...first, rev: 9 }))],
        maps,
      ),
    ).toEqual([
      { kind: 'place', id: 'new', rev: 3, after: null },
      { kind: 'place', id: second.id, rev: null, after: second },
    ]);
  });

  test('a record of proof that was signed since then stays', () => {
    const proof = { id: 'p', rev: 4, at: '2026-12-01' } as unknown as Proof;
    expect(changesBack([edit(4, was('proof', null, proof))], toMaps({ ...ferry, proof: [proof] }))).toEqual([]);
  });
});

describe('what records are called', () => {
  test('by number and name, by either, or by their id', () => {
    expect(recordName('lamp', lamp)).toBe(`lamp ${lamp.number} ${lamp.name}`);
    expect(recordName('place', first)).toBe(`place ${first.name}`);
    expect(recordName('place', { ...first, name: '' })).toBe(`place ${first.id}`);
  });

  test('a mark by its lamp or run, a sighting by who saw, a proof by its time', () => {
    const mark: Mark = {
      ...PLAIN_MARK,
      ...{ id: 'm', rev: 0, walkId: 'w', lampId: lamp.id, result: 'failed', by: 'Mira', at: '' },
    };
    const run = ferry.run[0]!;
    expect(recordName('mark', mark, ferry)).toBe(`mark: ${lamp.number} ${lamp.name} failed by Mira`);
    expect(recordName('mark', { ...mark, lampId: run.id }, ferry)).toBe(
      `mark: ${run.number} ${run.name} failed by Mira`,
    );
    expect(recordName('mark', { ...mark, lampId: 'gone' }, ferry)).toBe('mark: gone failed by Mira');
    expect(recordName('mark', mark)).toBe(`mark: ${lamp.id} failed by Mira`);
    const sighting = { id: 's', rev: 0, by: 'Jory' } as unknown as AnyRecord;
    expect([recordName('sighting', sighting), recordName('sighting', { ...sighting, by: '' } as AnyRecord)]).toEqual([
      'sighting by Jory',
      'sighting by someone',
    ]);
    expect(recordName('proof', { id: 'p', rev: 0, at: '2026-12-01' } as unknown as AnyRecord)).toBe(
      'record of proof of 2026-12-01',
    );
  });
});

test('a change of what is there, of what is not, and of what goes', () => {
  const there = { ...first, rev: 4 };
  expect([put('place', there, second), put('place', undefined, second)]).toEqual([
    changed('place', there, second),
    added('place', second),
  ]);
  expect(changed('place', there, second)).toEqual({ kind: 'place', id: first.id, rev: 4, after: second });
  expect(added('place', second)).toEqual({ kind: 'place', id: second.id, rev: null, after: second });
  expect(removed('place', there)).toEqual({ kind: 'place', id: first.id, rev: 4, after: null });
  expect(recordsAfter(ferry, [removed('place', first)]).place.map(({ id }) => id)).not.toContain(first.id);
  expect([countOf(1, 'lamp'), countOf(2, 'lamp'), countOf(2, 'address', 'addresses')]).toEqual([
    '1 lamp',
    '2 lamps',
    '2 addresses',
  ]);
});

describe('what an edit may hold', () => {
  const good = { kind: 'place', id: first.id, rev: 3, after: first };
  const faults = (...changes: unknown[]) => {
    const checked = checkProposedEdit({ author: 'Mara', sentence: 's', changes });
    return checked.ok ? [] : checked.faults.map(({ at, why }) => `${at}: ${why}`);
  };

  test('a right record, a removal, and one that is added', () =>
    expect([
      faults(good),
      faults({ ...good, after: null }),
      faults({ ...good, rev: null }),
      faults({ ...good, rev: 0 }),
    ]).toEqual([[], [], [], []]));

  test.each<[unknown, RegExp]>([
    [null, /^changes\[0\]/],
    ['place', /^changes\[0\]/],
    [{ ...good, kind: 'boat' }, /^changes\[0\]\.kind: The kind must be one of: show, place/],
    [{ ...good, kind: 'boat', after: null }, /^changes\[0\]\.kind: The kind must be one of/],
    [{ ...good, id: 7 }, /^changes\[0\]\.id: The id must be text\./],
    [{ ...good, id: '' }, /^changes\[0\]\.id: The id is missing\./],
    [{ ...good, id: 'x'.repeat(81), after: null }, /^changes\[0\]\.id: The id may have at most 80 characters\./],
    [{ ...good, rev: -1 }, /^changes\[0\]\.rev/],
    [{ ...good, rev: 1.5 }, /^changes\[0\]\.rev/],
    [{ ...good, rev: '3' }, /^changes\[0\]\.rev/],
    [{ kind: 'place', id: first.id, after: first }, /^changes\[0\]\.rev: The revision read is missing\./],
    [{ ...good, more: 1 }, /^changes\[0\]: A change holds only kind, id, rev and after\./],
    [{ ...good, after: { ...first, name: 7 } }, /^changes\[0\]\.after\.name/],
    [{ ...good, after: { ...first, id: 'other' } }, /A record’s id cannot be changed\./],
  ])('%j is refused at its place', (change, sentence) => expect(faults(change)[0]).toMatch(sentence));

  test('an id of eighty characters may stand; the place of a fault is that of its change', () => {
    expect(faults({ ...good, id: 'x'.repeat(80), after: null })).toEqual([]);
    expect(faults(good, { ...good, id: '' })[0]).toMatch(/^changes\[1\]\.id/);
  });

  test('a record named twice is told at the second', () =>
    expect(faults(good, { ...good, after: null })).toEqual(['changes[1]: One record is named twice in this edit.']));

  test('a record of one kind may have the id of another kind', () =>
    expect(faults({ ...good, after: null }, { kind: 'type', id: first.id, rev: 1, after: null })).toEqual([]));

  test('with very many faults the first are told, and no more is looked at', () => {
    const many = faults(...Array.from({ length: 500 }, () => ({ ...good, id: '' })));
    expect(many.length).toBeGreaterThan(0);
    expect(many.length).toBeLessThan(500);
  });

  test('parts that came later are added; a link of old has its ends renamed', () => {
    const { gel: _, ...older } = lamp;
    const bare = checkProposedEdit({
      ...{ author: 'Mara', sentence: 's' },
      changes: [{ kind: 'lamp', id: lamp.id, rev: 1, after: older }],
    });
    expect(bare.ok ? bare.value.changes[0]!.after : bare.why).toEqual({ ...lamp, gel: '' });
    const link = ferry.link[0]!;
    const { senderId, visualiserId, ...rest } = link;
    const old = { ...rest, sourceId: senderId, machineId: visualiserId, well: true };
    const checked = checkProposedEdit({
      ...{ author: 'Mara', sentence: 's' },
      changes: [{ kind: 'link', id: link.id, rev: 1, after: old }],
    });
    expect(checked.ok ? checked.value.changes[0]!.after : checked.why).toEqual(link);
  });
});
