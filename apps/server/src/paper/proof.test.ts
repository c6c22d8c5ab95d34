/** Signed records of proof over HTTP: kept as they were signed, checked byte by byte, changed by nobody. */
import type { ImportReply, Problem, ShowReply } from '@taxiarch/core/whole/contract';
import type { ProofContent } from '@taxiarch/core/proving/proof';
import type { Proof } from '@taxiarch/core/show/records';
import { ServerProcess, eventually, newFolder, removeFolder } from '../testing/serverProcess';

jest.setTimeout(180_000);

const folder = newFolder();
let server: ServerProcess;
beforeAll(async () => (server = await ServerProcess.start(folder)));
afterAll(async () => {
  await server.stop();
  removeFolder(folder);
});

const sign = async (words: string): Promise<Proof> => {
  const { status, body } = await server.request('POST', '/api/proofs', {
    ...{ name: 'Mira', role: 'Technician', words, parts: ['lamps', 'not known', 'universes'] },
  });
  expect(status).toBe(201);
  return body as Proof;
};
const file = async (proof: Proof, format: string): Promise<Buffer> => {
  const answer = await fetch(`http://127.0.0.1:${server.port}/api/proofs/${proof.id}/${format}`);
  return Buffer.from(await answer.arrayBuffer());
};
const check = async (bytes: Buffer) => {
  const answer = await fetch(`http://127.0.0.1:${server.port}/api/proofs/check`, {
    method: 'POST',
    body: new Uint8Array(bytes),
  });
  return (await answer.json()) as { sha256: string; says: string; proof: Proof | null };
};
const changed = (bytes: Buffer): Buffer => {
  const other = Buffer.from(bytes);
  other[other.length >> 1]! ^= 1;
  return other;
};

let first: Proof;

test('signed, it is given out in every form as it was made then; one changed bit is found', async () => {
  first = await sign('All seen.');
  for (const format of ['json', 'pdf', 'html', 'csv']) {
    const bytes = await file(first, format);
    expect((await check(bytes)).proof?.id).toBe(first.id);
    expect(await check(changed(bytes))).toMatchObject({ proof: null });
    expect((await file(first, format)).equals(bytes)).toBe(true);
  }
  expect((await check(await file(first, 'json'))).sha256).toBe(first.sha256);
  expect((await file(first, 'html')).toString()).toContain(first.sha256);
  expect((await file(first, 'pdf')).subarray(0, 5).toString()).toBe('%PDF-');
});

test('nobody changes it or takes it out', async () => {
  const edit = (after: object | null) =>
    server.request('POST', '/api/edits', {
      ...{ author: 'Mira', sentence: 'Changed a proof' },
      changes: [{ kind: 'proof', id: first.id, rev: first.rev, after }],
    });
  for (const after of [null, { ...first, sentence: 'All lamps proved.' }]) {
    const { status, body } = await edit(after);
    expect(status).toBeGreaterThanOrEqual(400);
    expect((body as Problem).detail).toBe(
      'A signed record of proof cannot be changed. Sign a later one, which says what differs.',
    );
  }
  const { status } = await server.request('POST', '/api/undo', { author: 'Mira' });
  expect(status).toBeGreaterThanOrEqual(400);
  expect((await server.get<ShowReply>('/api/show')).records.proof).toEqual([first]);
});

test('a later one says what differs from it, and stands on its own', async () => {
  const { records } = await server.get<ShowReply>('/api/show');
  const lamp = records.lamp.find(({ number }) => number === 101)!;
  const changes = [{ kind: 'lamp', id: lamp.id, rev: lamp.rev, after: { ...lamp, channel: 450 } }];
  await server.request('POST', '/api/edits', { author: 'Mira', sentence: 'Moved', changes });
  const before = await file(first, 'json');
  const second = await sign('One moved.');
  const { differs, seq } = JSON.parse((await file(second, 'json')).toString()) as ProofContent;
  expect(differs).toMatchObject({ sha256: first.sha256 });
  expect(differs!.lines).toEqual([expect.stringMatching(/^101 .*then, \d+\/450 now/)]);
  expect(seq).toBeGreaterThan(first.seq);
  expect((await file(first, 'json')).equals(before)).toBe(true);
});

test('the paper has contents, an outline, and the size that was asked for', async () => {
  const pdf = async (paper?: string) => {
    const answer = await fetch(`http://127.0.0.1:${server.port}/api/proof/draft`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({
        format: 'pdf',
        parts: ['lamps', 'not known', 'universes', 'ports'],
        ...(paper && { paper }),
      }),
    });
    expect(answer.status).toBe(200);
    return Buffer.from(await answer.arrayBuffer()).toString('latin1');
  };
  const [usual, letter] = [await pdf(), await pdf('Letter')];
  const sizes = (text: string) =>
    new Set(
      [...text.matchAll(/\/MediaBox \[0 0 ([\d.]+) ([\d.]+)\]/g)].map(
        ([, w, h]) => `${Math.round(Number(w))} ${Math.round(Number(h))}`,
      ),
    );
  expect([...sizes(usual)]).toEqual(['595 842']);
  expect([...sizes(letter)]).toEqual(['612 792']);
  expect(usual).toContain('/Outlines');
  expect(usual.match(/\/Type \/Page\b/g)!.length).toBeLessThan(16);
});

test('labels are a PDF of their own', async () => {
  const { status, headers } = await server.request('POST', '/api/labels', {
    ...{ what: 'nodes', ids: [], sheet: 'A4 3 × 7', skip: 0, base: 'http://127.0.0.1:4630', cases: false },
  });
  expect([status, headers.get('content-type')]).toEqual([200, 'application/pdf']);
});

test('names are on paper in the letters in which they were written', async () => {
  const { status, body } = await server.request('POST', '/api/proofs', {
    ...{ name: 'Łukasz Ωραίος', role: 'техник', words: 'Basic → Extended', parts: ['universes'] },
  });
  expect(status).toBe(201);
  const pdf = (await file(body as Proof, 'pdf')).toString('latin1');
  const fonts = new Set([...pdf.matchAll(/\/BaseFont \/(\w+\+[\w-]+)/g)].map(([, name]) => name!));
  // Each alphabet of one design is embedded by itself.
  const [fira, others] = [/\+FiraSans-/, /\+DejaVuSans/].map((one) => [...fonts].filter((name) => one.test(name)));
  expect(fira!.length).toBeGreaterThan(3);
  expect(others).not.toEqual([]);
});

describe('a signed record is never in the way', () => {
  const importShow = async (text: string) => {
    const begun = await fetch(`http://127.0.0.1:${server.port}/api/import/show?name=other.taxiarch.json`, {
      method: 'POST',
      body: text,
      headers: { 'content-type': 'application/octet-stream' },
    });
    const { id } = (await begun.json()) as { id: string };
    await eventually(
      () => server.get<ImportReply>(`/api/import/${id}`),
      ({ state }) => state === 'ready',
    );
    return server.request('POST', `/api/import/${id}/write`, { author: 'Mira', keys: ['all'], fields: [] });
  };
  const exported = () => server.request('GET', '/api/export/show').then(({ body }) => body as object);
  const shown = async () => (await server.get<ShowReply>('/api/show')).records;

  test('an earlier file of the same show comes in; what was signed stays', async () => {
    const earlier = await exported();
    const signed = await sign('Before the earlier file.');
    const { records } = earlier as { records: ShowReply['records'] };
    const [lamp, ...rest] = records.lamp;
    const text = JSON.stringify({
      ...earlier,
      records: { ...records, lamp: [{ ...lamp!, name: 'Earlier' }, ...rest] },
    });
    expect((await importShow(text)).status).toBe(201);
    const { lamp: lamps, proof } = await shown();
    expect(lamps[0]!.name).toBe('Earlier');
    expect(proof.map(({ id }) => id)).toContain(signed.id);
  });

  test('another show opens, and the first one again', async () => {
    const first = (await shown()).show[0]!.name;
    const file = await exported();
    const { records } = file as { records: ShowReply['records'] };
    const other = { ...records, show: [{ ...records.show[0]!, name: 'Another' }], proof: [], walk: [], mark: [] };
    expect((await importShow(JSON.stringify({ ...file, records: other }))).status).toBe(201);
    expect((await shown()).show[0]!.name).toBe('Another');
    expect((await importShow(JSON.stringify(file))).status).toBe(201);
    expect((await shown()).show[0]!.name).toBe(first);
  });
});
