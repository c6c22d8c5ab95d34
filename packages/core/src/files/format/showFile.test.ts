import { nightFerry } from '../../whole/demo';
import { recordsAfter } from '../../show/edit';
import { KINDS, type ShowRecords } from '../../show/records';
import { planShow, readShowFile, writeShowFile } from '.';

const ferry = nightFerry();
const sorted = (records: ShowRecords) =>
  Object.fromEntries(KINDS.map((kind) => [kind, [...records[kind]].sort((a, b) => (a.id < b.id ? -1 : 1))]));

test('a show goes out and comes in equal, and writes the same text again', () => {
  const text = writeShowFile(ferry, { ['a'.repeat(64)]: 'AAAA' });
  const file = readShowFile(text);
  if (!file.ok) throw new Error(file.why);
  expect(sorted(file.value.records)).toEqual(sorted(ferry));
  expect(writeShowFile(file.value.records, file.value.files)).toBe(text);
});

/** Senders as records of their own, as they were up to the fifth version. */
function sendersApart(records: Record<string, Record<string, unknown>[]>): void {
  records['source'] = records['machine']!.flatMap((machine) => {
    const sends = machine['sends'] as { lines: unknown; pennant: unknown } | null;
    delete machine['sends'];
    return sends
      ? [
          {
            id: `source-${String(machine['id'])}`,
            rev: 0,
            name: machine['name'],
            address: '',
            ranges: sends.lines,
            pennant: sends.pennant,
          },
        ]
      : [];
  });
  for (const link of records['link']!) {
    link['sourceId'] = `source-${String(link['senderId'])}`;
    link['machineId'] = link['visualiserId'];
    delete link['senderId'];
    delete link['visualiserId'];
  }
}

test('a file of the first version is brought up to date', () => {
  const old = JSON.parse(writeShowFile(ferry, {})) as {
    version: number;
    records: Record<string, Record<string, unknown>[]>;
  };
  old.version = 1;
  for (const lamp of old.records['lamp']!)
    for (const part of ['blocks', 'groups', 'tag', 'twin', 'locked']) delete lamp[part];
  for (const type of old.records['type']!) for (const part of ['kind', 'file']) delete type[part];
  for (const machine of old.records['machine']!) delete machine['controller'];
  sendersApart(old.records);
  delete old.records['show']![0]!['file'];
  delete old.records['run'];
  const file = readShowFile(JSON.stringify(old));
  expect(file).toMatchObject({ ok: true });
  expect(file.ok && file.value.records.lamp[0]).toMatchObject({ groups: [], twin: null, locked: false });
});

test('a file of the fourth version gets what its models and links did not say', () => {
  const old = JSON.parse(writeShowFile(ferry, {})) as {
    version: number;
    records: Record<string, Record<string, unknown>[]>;
  };
  old.version = 4;
  for (const model of old.records['model']!) delete model['speed'];
  for (const link of old.records['link']!) delete link['startsFirst'];
  sendersApart(old.records);
  const file = readShowFile(JSON.stringify(old));
  if (!file.ok) throw new Error(file.why);
  expect(new Set(file.value.records.model.map(({ speed }) => speed))).toEqual(new Set([100]));
  expect(sorted(file.value.records).link).toEqual(sorted(ferry).link);
});

test('putting a show in place of another leaves exactly that show', () => {
  const other: ShowRecords = {
    ...ferry,
    lamp: ferry.lamp.slice(5).map((lamp) => ({ ...lamp, name: `${lamp.name} B` })),
    run: [],
  };
  const plan = planShow(ferry, other, 'In');
  expect(sorted({ ...recordsAfter(ferry, plan.changes) })).toEqual(sorted(other));
  expect(plan.lines.filter(({ after }) => after === '')).toHaveLength(5 + ferry.run.length);
  expect(planShow(ferry, ferry, 'In').changes).toEqual([]);
});

const broken = (
  alter: (file: { format: string; version: unknown; records: Record<string, unknown[]>; files: unknown }) => void,
) => {
  const file = JSON.parse(writeShowFile(ferry, {})) as Parameters<typeof alter>[0];
  alter(file);
  return readShowFile(JSON.stringify(file));
};

test.each([
  ['another format', broken((file) => (file.format = 'x'))],
  ['a newer version', broken((file) => (file.version = 99))],
  ['no version', broken((file) => (file.version = 'two'))],
  ['a record of the wrong shape', broken((file) => (file.records['lamp'] = [{ id: 1 }]))],
  ['records that are no list', broken((file) => (file.records['lamp'] = { a: 1 } as unknown as unknown[]))],
  ['a lamp without its type', broken((file) => (file.records['type'] = []))],
  ['two shows', broken((file) => file.records['show']!.push(...file.records['show']!))],
  ['a file name that is none', broken((file) => (file.files = { '../x': '' }))],
  ['a document cut short', readShowFile(writeShowFile(ferry, {}).slice(0, 500))],
  ['no document', readShowFile('[]')],
])('%s is refused in a sentence', (_, result) => {
  expect(result).toMatchObject({ ok: false, why: expect.stringMatching(/^[A-Z].*\.$/) as string });
});
