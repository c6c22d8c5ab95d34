/** Clients that know records as an earlier version had them: what they send stays valid. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { checkProposedEdit } from '@taxiarch/core/show/edit';
import { KINDS, type Kind } from '@taxiarch/core/show/records';

type Loose = Readonly<Record<string, unknown>> & { readonly id: string };
const file = readFileSync(join(__dirname, '../testing/samples/show-5.taxiarch.json.gz'));
const { records } = JSON.parse(gunzipSync(file).toString()) as { records: Readonly<Record<string, readonly Loose[]>> };
const edit = (kind: string, after: object) => ({
  author: 'An older client',
  sentence: 'Wrote what it knows',
  changes: [{ kind, id: (after as Loose).id, rev: null, after }],
});

const inVersion5 = KINDS.filter((kind) => (records[kind] ?? []).length > 0);

test('the sample holds the kinds that most of a show is made of', () => {
  expect(inVersion5).toEqual(expect.arrayContaining(['lamp', 'type', 'universe', 'machine', 'model', 'link', 'place']));
});

test.each(inVersion5)('a %s as version 5 had it is taken', (kind: Kind) => {
  for (const record of records[kind]!) {
    const checked = checkProposedEdit(edit(kind, record));
    expect(checked.ok ? [] : checked.faults).toEqual([]);
  }
});

test('what came later stands at its initial value, what was said stays, and a part that never was is refused', () => {
  const [lamp] = records['lamp']!;
  const checked = checkProposedEdit(edit('lamp', { ...lamp!, name: 'Kept' }));
  expect(checked.ok && checked.value.changes[0]!.after).toMatchObject({ name: 'Kept', uid: '', written: '' });
  expect(checkProposedEdit(edit('lamp', { ...lamp!, sail: 'red' })).ok).toBe(false);
});
