/** What was confirmed is there again, whatever happened to the process or to its files. */
import {
  copyFileSync,
  cpSync,
  existsSync,
  readFileSync,
  readdirSync,
  rmSync,
  truncateSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import type { Edit } from '@taxiarch/core/show/edit';
import { Notices } from '../bridge/notices';
import { lostByKills, place } from '../testing/kills';
import { newFolder, removeFolder } from '../testing/serverProcess';
import { openQuietly } from '../testing/quietStore';
import { Journal } from './journal';

jest.setTimeout(180_000);

// One round here; `npm run soak` does hundreds, and tears copies of the folder too.
test('killed in mid-edit again and again, no confirmed edit is lost', async () => {
  const { confirmed, lost } = await lostByKills(1);
  expect(lost).toEqual([]);
  expect(confirmed).toBeGreaterThan(0);
});

const openStore = (folder: string, notices: Notices) => openQuietly(folder, '.build/server/database.tar', notices);
const asideIn = (folder: string): string[] => readdirSync(folder).filter((name) => /aside|damaged/.test(name));

const edit = (seq: number, id = `e${seq}`): Edit => ({
  seq,
  at: '2026-01-01T00:00:00.000Z',
  author: 'Mara',
  sentence: `Edit ${seq} – ü`,
  changes: [{ kind: 'place', id, before: null, after: { ...place(id, id), rev: seq } }],
});

describe('a folder whose files do not agree', () => {
  /** A stopped show with two places more than it began with. */
  const pattern = newFolder();
  beforeAll(async () => {
    const store = await openStore(pattern, new Notices());
    for (const id of ['one', 'two'])
      await store.propose({
        author: 'Mara',
        sentence: `Added ${id}`,
        changes: [{ kind: 'place', id, rev: null, after: place(id, id) }],
      });
    await store.close();
  });
  afterAll(() => removeFolder(pattern));
  const stopped = (): string => {
    const folder = newFolder();
    cpSync(pattern, folder, { recursive: true });
    return folder;
  };

  async function opened(folder: string): Promise<{ places: string[]; notices: string[] }> {
    const notices = new Notices();
    const store = await openStore(folder, notices);
    const places = store.records().place.map(({ id }) => id);
    await store.close();
    return { places, notices: notices.list().map(({ id }) => id) };
  }

  test('the database is behind: it is brought up, and nobody is alarmed', async () => {
    const folder = stopped();
    const journal = Journal.open(folder);
    journal.append(edit(3, 'late'));
    journal.close();
    expect(await opened(folder)).toEqual({ places: ['one', 'two', 'late'], notices: [] });
    expect(asideIn(folder)).toEqual([]);
    removeFolder(folder);
  });

  test('the database does not open: it is made anew, and that is said', async () => {
    const folder = stopped();
    truncateSync(join(folder, 'database/global/pg_control'), 10);
    expect(await opened(folder)).toEqual({ places: ['one', 'two'], notices: ['database'] });
    expect(asideIn(folder)).toHaveLength(1);
    expect(await opened(folder)).toEqual({ places: ['one', 'two'], notices: [] });
    removeFolder(folder);
  });

  test('a page of the database is zeroed: its rows are not believed', async () => {
    const folder = stopped();
    // The engine gives a zeroed page as an empty one: the rows are gone without an error.
    for (const entry of readdirSync(join(folder, 'database/base'), { recursive: true, withFileTypes: true })) {
      const path = join(entry.parentPath, entry.name);
      if (!entry.isFile()) continue;
      const bytes = readFileSync(path);
      if (bytes.includes('two')) writeFileSync(path, Buffer.alloc(bytes.length));
    }
    expect(await opened(folder)).toMatchObject({ places: ['one', 'two'], notices: ['database'] });
    removeFolder(folder);
  });

  test('the journal is gone: the database gives its edits back', async () => {
    const folder = stopped();
    const path = join(folder, 'journal.jsonl');
    copyFileSync(path, `${path}.copy`);
    rmSync(path);
    expect((await opened(folder)).places).toEqual(['one', 'two']);
    const sentences = (name: string) => readFileSync(join(folder, name), 'utf8').match(/"sentence":"[^"]*"/g);
    expect(sentences('journal.jsonl')).toEqual(sentences('journal.jsonl.copy'));
    removeFolder(folder);
  });

  test('a confirmed line of the journal is flipped: it is told apart from a torn one, and had from the database', async () => {
    const folder = stopped();
    const path = join(folder, 'journal.jsonl');
    writeFileSync(path, readFileSync(path, 'utf8').replace('Added two', 'Added tvo'));
    expect(await opened(folder)).toEqual({ places: ['one', 'two'], notices: ['journal'] });
    expect(asideIn(folder)).toHaveLength(1);
    expect(await opened(folder)).toEqual({ places: ['one', 'two'], notices: [] });
    removeFolder(folder);
  });

  test('journal flipped and database gone: what is lost is said', async () => {
    const folder = stopped();
    const path = join(folder, 'journal.jsonl');
    writeFileSync(path, readFileSync(path, 'utf8').replace('Added one', 'Added onu'));
    rmSync(join(folder, 'database'), { recursive: true });
    expect(await opened(folder)).toEqual({ places: [], notices: ['journal'] });
    removeFolder(folder);
  });
});

test('a long history is folded, and can be read and taken back through the fold', async () => {
  const folder = newFolder();
  const journal = Journal.open(folder);
  const first: Edit = {
    ...edit(1),
    changes: [
      { kind: 'show', id: 'show', before: null, after: { id: 'show', rev: 1, name: 'Long', about: '', file: null } },
    ],
  };
  journal.append(first);
  for (let seq = 2; seq <= 1200; seq += 1) journal.append(edit(seq));
  journal.close();
  const store = await openStore(folder, new Notices());
  expect(existsSync(join(folder, 'history/000000001-000001200.jsonl'))).toBe(true);
  expect(store.records().place).toHaveLength(1199);
  expect(store.undoState('Mara').undo?.seq).toBe(1200);
  expect(store.history(1199).map(({ seq }) => seq)).toEqual(Array.from({ length: 1199 }, (_, i) => i + 2));
  expect(await store.undo('Mara')).toMatchObject({ undoes: 1200 });
  expect(await store.undo('Mara')).toMatchObject({ undoes: 1199 });
  expect(await store.redo('Mara')).toMatchObject({ sentence: 'Redid: Edit 1199 – ü' });
  await store.close();

  // The snapshot is harmed: the show is made of the edits that were put by.
  const [snapshot] = readdirSync(join(folder, 'snapshots'));
  writeFileSync(join(folder, 'snapshots', snapshot!), '0');
  const notices = new Notices();
  const again = await openStore(folder, notices);
  expect(again.records().place).toHaveLength(1198);
  expect(notices.list().map(({ id }) => id)).toContain('snapshot');
  await again.close();
  removeFolder(folder);
});

describe('the journal', () => {
  const written = (count: number): { path: string; folder: string } => {
    const folder = newFolder();
    const journal = Journal.open(folder);
    for (let seq = 1; seq <= count; seq += 1) journal.append(edit(seq));
    journal.close();
    return { path: join(folder, 'journal.jsonl'), folder };
  };
  const read = (folder: string): { seqs: number[]; damaged: boolean } => {
    const journal = Journal.open(folder);
    journal.close();
    return { seqs: journal.tail.map(({ seq }) => seq), damaged: journal.damage !== undefined };
  };

  test('torn anywhere, it keeps every line that is whole and goes on after it, without alarm', () => {
    const { path, folder } = written(3);
    const whole = readFileSync(path);
    const ends = [...whole.entries()].filter(([, byte]) => byte === 0x0a).map(([at]) => at + 1);
    for (let length = 0; length <= whole.length; length += 11) {
      writeFileSync(path, whole.subarray(0, length));
      const expected = ends.filter((end) => end <= length).map((_, i) => i + 1);
      expect(read(folder)).toEqual({ seqs: expected, damaged: false });
      const journal = Journal.open(folder);
      journal.append(edit(expected.length + 1));
      journal.close();
      expect(read(folder).seqs).toEqual([...expected, expected.length + 1]);
    }
    // A file that was made longer before its bytes came is torn too.
    writeFileSync(path, Buffer.concat([whole, Buffer.alloc(40)]));
    expect(read(folder)).toEqual({ seqs: [1, 2, 3], damaged: false });
    removeFolder(folder);
  });

  test('any byte flipped, it says so, and believes nothing from there on', () => {
    const { path, folder } = written(3);
    const whole = readFileSync(path);
    const ends = [...whole.entries()].filter(([, byte]) => byte === 0x0a).map(([at]) => at + 1);
    for (let at = 0; at < whole.length; at += 7) {
      const flipped = Buffer.from(whole);
      flipped[at]! ^= 0x10;
      writeFileSync(path, flipped);
      expect([at, read(folder)]).toEqual([
        at,
        { seqs: ends.filter((end) => end <= at).map((_, i) => i + 1), damaged: true },
      ]);
    }
    removeFolder(folder);
  });
});
