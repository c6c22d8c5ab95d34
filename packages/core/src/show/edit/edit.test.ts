import fc from 'fast-check';
import { nightFerry } from '../../whole/demo';
import {
  applyChanges,
  applyToRecords,
  checkProposedEdit,
  type Edit,
  findConflicts,
  inverseOf,
  type ProposedChange,
  refuseChanges,
  settleChanges,
  type ShowMaps,
  toMaps,
  undoState,
} from '.';
import { checkRecord, emptyShow, KINDS, type Place } from '../records';

const place = (id: string, name: string, rev = 0): Place => ({ id, rev, name, order: 1 });

/** A show that keeps its history, as the store does. */
class Bench {
  readonly maps: ShowMaps = toMaps(emptyShow());
  readonly history: Edit[] = [];

  do(changes: readonly ProposedChange[], author = 'Mara', undoes?: number): Edit {
    expect(findConflicts(this.maps, changes)).toEqual([]);
    const seq = this.history.length + 1;
    const edit: Edit = {
      seq,
      at: '2026-01-01T00:00:00Z',
      author,
      sentence: 's',
      changes: settleChanges(this.maps, changes, seq),
      ...(undoes && { undoes }),
    };
    applyChanges(this.maps, edit.changes);
    this.history.push(edit);
    return edit;
  }

  set(id: string, name: string | null, author = 'Mara'): Edit {
    const rev = this.maps.place.get(id)?.rev ?? null;
    return this.do([{ kind: 'place', id, rev, after: name === null ? null : place(id, name) }], author);
  }

  back(way: 'undo' | 'redo', author = 'Mara'): boolean {
    const edit = undoState(this.history, author)[way];
    if (edit) this.do(inverseOf(edit, this.maps), author, edit.seq);
    return edit !== undefined;
  }

  names(): Record<string, string> {
    return Object.fromEntries([...this.maps.place.values()].map((one) => [one.id, (one as Place).name]));
  }
}

describe('edits', () => {
  test('a record changed since it was read is a conflict that shows it as it is', () => {
    const bench = new Bench();
    bench.set('a', 'Quay');
    bench.set('a', 'Quayside');
    const stale: ProposedChange = { kind: 'place', id: 'a', rev: 1, after: place('a', 'Pier') };
    expect(findConflicts(bench.maps, [stale])).toEqual([
      { kind: 'place', id: 'a', readAt: 1, now: place('a', 'Quayside', 2) },
    ]);
    expect(findConflicts(bench.maps, [{ ...stale, rev: null }])).toHaveLength(1);
    expect(findConflicts(bench.maps, [{ ...stale, id: 'b', rev: null }])).toEqual([]);
  });

  test('carried out on lists, untouched kinds stay the same lists', () => {
    const before = emptyShow();
    const maps = toMaps(before);
    const after = applyToRecords(
      before,
      settleChanges(maps, [{ kind: 'place', id: 'a', rev: null, after: place('a', 'Quay') }], 9),
    );
    expect(after.place).toEqual([place('a', 'Quay', 9)]);
    expect(after.lamp).toBe(before.lamp);
  });

  test('undo and redo walk back and forth, through several edits of one record', () => {
    const bench = new Bench();
    bench.set('a', 'one');
    bench.set('a', 'two');
    bench.set('a', null);
    const seen = [];
    while (bench.back('undo')) seen.push(bench.names()['a']);
    expect(seen).toEqual(['two', 'one', undefined]);
    while (bench.back('redo')) seen.push(bench.names()['a']);
    expect(seen.slice(3)).toEqual(['one', 'two', undefined]);
  });

  test('a new edit ends what could be redone; others’ edits are left alone', () => {
    const bench = new Bench();
    bench.set('a', 'one');
    bench.back('undo');
    bench.set('b', 'Funnel', 'Ivo');
    expect(undoState(bench.history, 'Mara').redo).toBeDefined();
    bench.set('c', 'Quay');
    expect(undoState(bench.history, 'Mara').redo).toBeUndefined();
    bench.back('undo');
    expect(bench.names()).toEqual({ b: 'Funnel' });
    expect(undoState(bench.history, 'Mara').undo).toBeUndefined();
  });

  test('undo of what somebody else has changed since is a conflict', () => {
    const bench = new Bench();
    const edit = bench.set('a', 'one');
    bench.set('a', 'two', 'Ivo');
    expect(findConflicts(bench.maps, inverseOf(edit, bench.maps))).toHaveLength(1);
  });

  test('any edits, all undone, leave the show as it was; all redone, as it became', () => {
    const step = fc.tuple(fc.constantFrom('a', 'b', 'c'), fc.option(fc.constantFrom('x', 'y', 'z')));
    fc.assert(
      fc.property(fc.array(step, { maxLength: 12 }), (steps) => {
        const bench = new Bench();
        for (const [id, name] of steps) if (name !== null || bench.maps.place.has(id)) bench.set(id, name);
        const became = bench.names();
        while (bench.back('undo'));
        expect(bench.names()).toEqual({});
        while (bench.back('redo'));
        expect(bench.names()).toEqual(became);
      }),
    );
  });
});

describe('the demo show', () => {
  const demo = nightFerry();
  const proposal = {
    author: 'Taxiarch',
    sentence: 'Began',
    changes: KINDS.flatMap((kind) => demo[kind].map((after) => ({ kind, id: after.id, rev: null, after }))),
  };

  test('every record is well-formed and they fit together', () => {
    expect(checkProposedEdit(proposal)).toMatchObject({ ok: true });
    const maps = toMaps(emptyShow());
    expect(refuseChanges(maps, settleChanges(maps, proposal.changes, 1))).toBeUndefined();
    expect(demo.lamp.length).toBeGreaterThan(400);
    expect(new Set(demo.lamp.map(({ number }) => number)).size).toBe(demo.lamp.length);
  });

  const refusal = (change: (maps: ShowMaps) => ProposedChange): string | undefined => {
    const maps = toMaps(demo);
    return refuseChanges(maps, settleChanges(maps, [change(maps)], 2));
  };

  test.each([
    ['a type in use cannot go', { kind: 'type', id: 'type-haze', rev: 0, after: null }, /needs its fixture type/],
    ['a place in use cannot go', { kind: 'place', id: 'place-1', rev: 0, after: null }, /not in the show/],
    [
      'a mode must exist',
      {
        kind: 'lamp',
        id: 'lamp-101',
        rev: 0,
        after: { ...demo.lamp.find(({ id }) => id === 'lamp-101')!, mode: 'Gone' },
      },
      /has no mode “Gone”, which lamp 101 uses/,
    ],
    [
      'a universe is there once',
      { kind: 'universe', id: 'new', rev: null, after: { ...demo.universe[0]!, id: 'new', wire: 900 } },
      /Universe 1 is in the show already/,
    ],
    [
      'a wire universe carries one',
      { kind: 'universe', id: 'new', rev: null, after: { ...demo.universe[0]!, id: 'new', number: 900 } },
      /same wire universe/,
    ],
  ] as const)('%s', (_, change, sentence) => expect(refusal(() => change as ProposedChange)).toMatch(sentence));
});

describe('checking input', () => {
  const faults = (input: unknown): string => {
    const checked = checkProposedEdit(input);
    return checked.ok ? 'accepted' : checked.faults.map(({ why }) => why).join(' ');
  };
  const good = {
    author: 'Mara',
    sentence: 'Named it',
    changes: [{ kind: 'place', id: 'a', rev: null, after: place('a', 'Quay') }],
  };

  test('a good edit passes; removing needs no record', () => {
    expect(faults(good)).toBe('accepted');
    expect(faults({ ...good, changes: [{ kind: 'place', id: 'a', rev: 3, after: null }] })).toBe('accepted');
  });

  test.each([
    [null, /./],
    ['text', /./],
    [{ ...good, author: '' }, /author is missing/],
    [{ ...good, changes: [] }, /changes nothing/],
    [{ ...good, changes: 'all' }, /must be a list/],
    [{ ...good, changes: [null] }, /./],
    [{ ...good, changes: [{ ...good.changes[0], kind: 'ghost' }] }, /must be one of/],
    [{ ...good, changes: [{ ...good.changes[0], id: 'b' }] }, /id cannot be changed/],
    [{ ...good, changes: [{ ...good.changes[0], after: { ...place('a', 'Quay'), order: 'first' } }] }, /whole number/],
  ])('bad input %# is refused in a sentence', (input, sentence) => expect(faults(input)).toMatch(sentence));

  test('any JSON at all is accepted or refused, never thrown', () => {
    fc.assert(
      fc.property(fc.jsonValue(), (value) => {
        expect(typeof checkProposedEdit(value).ok).toBe('boolean');
        for (const kind of KINDS) expect(typeof checkRecord(kind, value).ok).toBe('boolean');
      }),
    );
  });

  test('wire numbers are held to their protocol', () => {
    const universe = { id: 'u', rev: 0, number: 1, name: '', merge: 'htp' };
    const ok = (protocol: string, wire: number) => checkRecord('universe', { ...universe, protocol, wire }).ok;
    expect([ok('sacn', 0), ok('sacn', 1), ok('artnet', 0), ok('artnet', 32768)]).toEqual([false, true, true, false]);
  });
});
