/** Files in and out of the running server: what is read is compared, and written only when it is asked for. */
import type { ImportReady, ImportReply, ImportWritten, Problem, ShowReply } from '@taxiarch/core/whole/contract';
import { makeZip, openZip, readGdtf, readMvr, writeGdtf, writeMvr } from '@taxiarch/core/files/format/archive';
import { LIBRARY } from '@taxiarch/core/rig/library';
import { emptyShow, type Lamp } from '@taxiarch/core/show/records';
import { ServerProcess, eventually, newFolder, removeFolder } from '../testing/serverProcess';

jest.setTimeout(180_000);

const folder = newFolder();
let server: ServerProcess;
beforeAll(async () => (server = await ServerProcess.start(folder)));
afterAll(async () => {
  await server.stop();
  removeFolder(folder);
});

const bytesAt = async (path: string): Promise<Uint8Array> =>
  new Uint8Array(await (await fetch(`http://127.0.0.1:${server.port}${path}`)).arrayBuffer());
const show = async () => (await server.get<ShowReply>('/api/show')).records;

async function bringIn(kind: string, bytes: Uint8Array | string, name = 'test'): Promise<ImportReply> {
  const reply = await fetch(`http://127.0.0.1:${server.port}/api/import/${kind}?name=${name}`, {
    method: 'POST',
    body: typeof bytes === 'string' ? bytes : Buffer.from(bytes),
    headers: { 'content-type': 'application/octet-stream' },
  });
  const started = (await reply.json()) as ImportReply;
  if (reply.status !== 202) return started;
  return eventually(
    () => server.get<ImportReply>(`/api/import/${started.id}`),
    ({ state }) => state !== 'working',
  );
}

const write = (id: string, keys: readonly string[]) =>
  server.request('POST', `/api/import/${id}/write`, { author: 'Mara', keys });
const rowsOf = (reply: ImportReply) => (reply.state === 'ready' ? reply.rows : []);

test('the rig that goes out comes in as the same, row by row', async () => {
  const reply = await bringIn('mvr', await bytesAt('/api/export/mvr'));
  expect(rowsOf(reply).filter(({ kind }) => kind === 'lamp')).toHaveLength(420);
  expect(new Set(rowsOf(reply).map(({ state }) => state))).toEqual(new Set(['same']));
});

test('only the chosen rows are written, as one edit that can be taken back; the file’s other parts go out again', async () => {
  const records = await show();
  const lamps = records.lamp.map((lamp): Lamp => (lamp.number === 101 ? { ...lamp, name: 'Figurehead' } : lamp));
  const extra: Lamp = { ...lamps[0]!, id: 'x', number: 950, name: 'Bowsprit', universe: 8, channel: 300 };
  const file = writeMvr({ ...records, lamp: [...lamps, extra] }, () => undefined);
  const reply = await bringIn('mvr', file, 'Bow.mvr');
  const changed = rowsOf(reply).filter(({ state }) => state !== 'same');
  expect(changed.map(({ state, subject, fields }) => [state, subject, fields])).toEqual([
    ['changed', '101 Figurehead', [{ field: 'name', was: 'Port spot 1', is: 'Figurehead' }]],
    ['added', '950 Bowsprit', [{ field: 'address', was: '', is: '8/300' }]],
  ]);
  const written = await write(reply.id, [changed[1]!.key]);
  expect(written).toMatchObject({
    status: 201,
    body: { sentence: 'Imported Bow.mvr' } satisfies Partial<ImportWritten>,
  });
  const after = await show();
  expect(after.lamp.find(({ number }) => number === 950)?.name).toBe('Bowsprit');
  expect(after.lamp.find(({ number }) => number === 101)?.name).toBe('Port spot 1');
  expect(after.show[0]!.file).toMatch(/^[0-9a-f]{64}$/);
  const out = readMvr(await bytesAt('/api/export/mvr'));
  // With its machines and runs of pixels, of which the runs have channels.
  expect(out.ok && out.value.lamps).toHaveLength(421);
  expect(out.ok && out.value.runs).toHaveLength(after.run.length);
  await server.request('POST', '/api/undo', { author: 'Mara' });
  expect((await show()).lamp).toHaveLength(420);
  expect((await write(reply.id, [changed[0]!.key])).status).toBe(422);
});

test('what was edited between comparing and writing is not overwritten: the row is shown again first', async () => {
  const records = await show();
  const lamps = records.lamp.map((lamp): Lamp => (lamp.number === 102 ? { ...lamp, name: 'From the file' } : lamp));
  const reply = await bringIn(
    'mvr',
    writeMvr({ ...records, lamp: lamps }, () => undefined),
    'Late.mvr',
  );
  const [row] = rowsOf(reply).filter(({ state }) => state === 'changed');
  const before = records.lamp.find(({ number }) => number === 102)!;
  const after = { ...before, name: 'By another hand' };
  const changes = [{ kind: 'lamp', id: before.id, rev: before.rev, after }];
  await server.request('POST', '/api/edits', { author: 'Ivo', sentence: 'Renamed', changes });
  const refused = await write(reply.id, [row!.key]);
  expect([refused.status, (refused.body as Problem).detail]).toEqual([
    409,
    expect.stringMatching(/^lamp 102 Port spot 2 was changed since this was compared\. Nothing was written\./),
  ]);
  expect((await show()).lamp.find(({ number }) => number === 102)!.name).toBe('By another hand');
  await server.get(`/api/import/${reply.id}`);
  expect((await write(reply.id, [row!.key])).status).toBe(201);
  for (const author of ['Mara', 'Ivo']) await server.request('POST', '/api/undo', { author });
});

test('a type comes in, and goes out with the parts that are not ours', async () => {
  const type = { ...LIBRARY[0]!, id: '0f0e0d0c-0b0a-4908-8706-050403020100', maker: 'Tern', name: 'Ember 1' };
  const reply = await bringIn('gdtf', writeGdtf(type));
  expect(rowsOf(reply)).toMatchObject([{ kind: 'type', state: 'added', subject: 'Tern Ember 1' }]);
  expect((await write(reply.id, ['all'])).status).toBe(201);
  const there = (await show()).type.find(({ name }) => name === 'Ember 1')!;
  expect(there.file).not.toBeNull();
  const out = readGdtf(await bytesAt(`/api/export/gdtf/${there.id}`));
  expect(out.ok && out.value.type.modes).toEqual(type.modes);
  expect((await server.request('GET', '/api/export/gdtf/none')).status).toBe(404);
});

test('the whole show goes out, with its files, and comes in over another', async () => {
  const text = new TextDecoder().decode(await bytesAt('/api/export/show'));
  const file = JSON.parse(text) as { files: Record<string, string>; records: { lamp: Lamp[] } };
  expect(Object.keys(file.files).length).toBeGreaterThan(0);
  file.records.lamp = file.records.lamp.slice(0, 400);
  const reply = await bringIn('show', JSON.stringify(file));
  expect(rowsOf(reply).map(({ state }) => state)).toEqual(new Array(20).fill('gone'));
  expect((await write(reply.id, ['all'])).status).toBe(201);
  expect((await show()).lamp).toHaveLength(400);
  const name = Object.keys(file.files)[0]!;
  const forged = await bringIn('show', JSON.stringify({ ...file, files: { [name]: 'AAAA' } }));
  expect(forged).toMatchObject({ state: 'refused', why: 'A file within the show file is not what its name says.' });
});

test('what was left out of a show file is left out of its next version, unless that says something else of it', async () => {
  const text = new TextDecoder().decode(await bytesAt('/api/export/show'));
  const file = JSON.parse(text) as { records: { lamp: Lamp[] } };
  const [one, two, three] = file.records.lamp.slice(0, 3).map((lamp) => ({ ...lamp, name: `${lamp.name} b` }));
  const rest = file.records.lamp.slice(3);
  const next = (lamps: Lamp[]) => JSON.stringify({ ...file, records: { ...file.records, lamp: [...lamps, ...rest] } });
  const reply = await bringIn('show', next([one!, two!, three!]), 'Ferry v1.json');
  expect(rowsOf(reply)).toHaveLength(3);
  expect((await write(reply.id, [`lamp ${one!.id}`])).status).toBe(201);
  const again = await bringIn('show', next([one!, two!, { ...three!, name: 'Otherwise' }]), 'Ferry v2.json');
  expect(rowsOf(again).map(({ key, left }) => [key, left ?? false])).toEqual([
    [`lamp ${two!.id}`, true],
    [`lamp ${three!.id}`, false],
  ]);
  await server.request('POST', '/api/undo', { author: 'Mara' });
});

test('what cannot be read is refused in a sentence, and nothing is changed', async () => {
  const before = await server.get<ShowReply>('/api/show');
  for (const kind of ['mvr', 'gdtf', 'show'])
    expect(await bringIn(kind, 'Not a file of this kind.')).toMatchObject({
      state: 'refused',
      why: expect.stringMatching(/\.$/) as string,
    });
  expect((await bringIn('pdf', 'x')) as unknown as Problem).toMatchObject({ status: 404 });
  expect(await server.get<ShowReply>('/api/show')).toEqual(before);
});

test('reading can be cancelled', async () => {
  const records = { ...emptyShow(), ...(await show()) };
  const lamps = Array.from({ length: 3000 }, (_, i): Lamp => ({
    ...records.lamp[0]!,
    id: `l${i}`,
    number: i + 1,
    universe: 1 + Math.floor(i / 500),
    channel: 1 + (i % 500),
  }));
  const bytes = writeMvr({ ...records, lamp: lamps }, () => undefined);
  const reply = await fetch(`http://127.0.0.1:${server.port}/api/import/mvr`, {
    method: 'POST',
    body: typeof bytes === 'string' ? bytes : Buffer.from(bytes),
  });
  const { id } = (await reply.json()) as ImportReply;
  expect((await server.request('DELETE', `/api/import/${id}`)).status).toBe(204);
  expect((await server.request('GET', `/api/import/${id}`)).status).toBe(404);
});

test('tables of lamps, channels and pixels', async () => {
  for (const [table, head] of [
    ['lamps', 'Number,Name,Maker'],
    ['channels', 'Address,Absolute'],
    ['pixels', 'Number,Name,Pixels'],
  ] as const) {
    const text = new TextDecoder().decode(await bytesAt(`/api/export/csv/${table}`));
    expect(text.startsWith(head)).toBe(true);
    expect(text.split('\r\n').length).toBeGreaterThan(4);
  }
  const entries = openZip(await bytesAt('/api/export/mvr'));
  expect(entries.ok && Object.keys(entries.value)).toContain('GeneralSceneDescription.xml');
});

test('a table: its unknown type is asked once, and known again in every table of the same heads; all of it is one edit', async () => {
  const table = (numbers: readonly number[]) =>
    [
      'Rig of the quay',
      'Chan;Instrument;Mode;Address;Position',
      ...numbers.map((one) => `${one};Dory;Wide;none;Rail`),
    ].join('\n');
  const { id, ...first } = (await bringIn('table', table([971, 972]), 'quay.csv')) as ImportReply & ImportReady;
  expect(first).toMatchObject({
    form: 'table',
    unknown: [{ key: 'Unknown maker Dory', lamps: 2, settled: false }],
    table: { headLine: 2, columns: ['number', 'type', 'mode', 'address', 'position'], bad: [] },
    known: '',
  });
  const types = [{ key: 'Unknown maker Dory', typeId: 'type-spot-16', modes: [{ said: 'Wide', mode: 'Extended' }] }];
  expect((await server.request('PATCH', `/api/import/${id}`, { types })).body).toMatchObject({
    unknown: [{ settled: true }],
  });
  const { seq } = await server.get<ShowReply>('/api/show');
  expect((await write(id, ['all'])).status).toBe(201);
  expect((await server.get<ShowReply>('/api/show')).seq).toBe(seq + 1);
  expect((await show()).lamp.find(({ number }) => number === 971)).toMatchObject({
    ...{ typeId: 'type-spot-16', mode: 'Extended', universe: 0, channel: 0, position: 'Rail' },
  });
  const next = (await bringIn('table', table([973]), 'another name.csv')) as ImportReply & ImportReady;
  expect(next.unknown).toMatchObject([{ typeId: 'type-spot-16', modeFor: { Wide: 'Extended' }, settled: true }]);
  expect(next.known).not.toBe('');
  expect(
    (await server.request('PATCH', `/api/import/${next.id}`, { table: { columns: ['', 'type'] } })).body,
  ).toMatchObject({
    table: { columns: [null, 'type', null, null, null] },
  });
  expect((await server.request('PATCH', `/api/import/${next.id}`, { table: { unit: 'mile' } })).status).toBe(400);
  await server.request('POST', '/api/undo', { author: 'Mara' });
  expect((await show()).lamp.some(({ number }) => number === 971)).toBe(false);
  expect((await show()).arrival).toEqual([]);
});

test('the tables go out as CSV, XLSX and ODS, and each comes in as the same', async () => {
  const { headers } = await fetch(`http://127.0.0.1:${server.port}/api/export/csv/lamps`);
  expect(headers.get('content-type')).toBe('text/csv; charset=utf-8');
  for (const form of ['csv', 'xlsx', 'ods']) {
    const reply = await bringIn('table', await bytesAt(`/api/export/${form}/lamps`), `lamps.${form}`);
    expect(new Set(rowsOf(reply).map(({ state }) => state))).toEqual(new Set(['same']));
  }
  expect((await server.request('GET', '/api/export/pdf/lamps')).status).toBe(404);
});

/** An ODS of two sheets, a table and a note, with nothing in it that may be left out. */
const twoSheets = (() => {
  const row = (...cells: string[]) =>
    `<table:table-row>${cells.map((cell) => `<table:table-cell office:value-type="string"><text:p>${cell}</text:p></table:table-cell>`).join('')}</table:table-row>`;
  const sheet = (name: string, ...rows: string[]) => `<table:table table:name="${name}">${rows.join('')}</table:table>`;
  const sheets = [sheet('Lamps', row('Chan', 'Type'), row('983', 'Spot 16')), sheet('Notes', row('Mind the gangway'))];
  const spaces = ['office', 'table', 'text'].map(
    (name) => `xmlns:${name}="urn:oasis:names:tc:opendocument:xmlns:${name}:1.0"`,
  );
  const content = `<office:document-content ${spaces.join(' ')}><office:body><office:spreadsheet>${sheets.join('')}</office:spreadsheet></office:body></office:document-content>`;
  const bytes = (text: string) => new TextEncoder().encode(text);
  return makeZip({
    mimetype: bytes('application/vnd.oasis.opendocument.spreadsheet'),
    'content.xml': bytes(content),
  });
})();

test('what was said and taken back is not remembered, “all” leaves nothing out, and other sheets are told by name', async () => {
  const table = 'Chan;Instrument;Mode\n981;Dory;Wide\n982;Spot 16;Basic';
  const { id } = await bringIn('table', table, 'sloop.csv');
  const said = (typeId: string, mode: string) =>
    server.request('PATCH', `/api/import/${id}`, {
      types: [{ key: 'Unknown maker Dory', typeId, modes: [{ said: 'Wide', mode }] }],
    });
  await said('type-spot-16', '');
  await said('', '');
  expect((await write(id, ['all'])).status).toBe(201);
  expect((await show()).arrival.find(({ name }) => name === 'sloop')).toMatchObject({
    types: [],
    left: expect.not.arrayContaining([expect.objectContaining({ key: 'lamp 981' })]) as object,
  });
  await server.request('POST', '/api/undo', { author: 'Mara' });

  const sheets = (await bringIn('table', twoSheets)) as ImportReply & ImportReady;
  expect(sheets.notes).toContain('Left out: the sheet Notes.');
  const { body: notes } = await server.request('PATCH', `/api/import/${sheets.id}`, { table: { sheet: 1 } });
  expect(notes).toMatchObject({ state: 'ready', rows: [], table: { sheets: ['Lamps', 'Notes'], sheet: 1 } });
  const { body: back } = await server.request('PATCH', `/api/import/${sheets.id}`, { table: { sheet: 0 } });
  expect((back as ImportReady).rows.some(({ subject }) => subject.startsWith('983'))).toBe(true);
});
