/** What was confirmed is there again, whatever happened to the process or to its files. */
import {
  appendFileSync,
  copyFileSync,
  cpSync,
  readFileSync,
  readdirSync,
  rmSync,
  statSync,
  truncateSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import type { ShowReply } from '@taxiarch/core/contract';
import type { Edit, Place } from '@taxiarch/core/show';
import { ServerProcess, newFolder, removeFolder } from '../testing/serverProcess';
import { Journal } from './journal';

// A hundred starts of the server; on a busy computer each takes ten seconds and more.
jest.setTimeout(1_200_000);

const place = (id: string, name: string): Place => ({ id, rev: 0, name, order: 50 });
const add = (server: ServerProcess, id: string) =>
  server.request('POST', '/api/edits', {
    author: 'Mara',
    sentence: `Added ${id}`,
    changes: [{ kind: 'place', id, rev: null, after: place(id, id) }],
  });
const placesOf = async (server: ServerProcess): Promise<string[]> =>
  (await server.get<ShowReply>('/api/show')).records.place.map(({ id }) => id);

/** Kills, and torn copies of the data folder; each takes the program about a second to come back from. */
const KILLS = 50;
const TORN = 50;

test(`killed ${KILLS} times in mid-edit, no confirmed edit is lost`, async () => {
  const folder = newFolder();
  const confirmed: string[] = [];
  for (let round = 0; round < KILLS; round += 1) {
    const server = await ServerProcess.start(folder, ['--empty']);
    const there = new Set(await placesOf(server));
    expect(confirmed.filter((id) => !there.has(id))).toEqual([]);
    const killed = new Promise((done) => setTimeout(() => done(server.kill()), 30 + ((round * 37) % 170)));
    for (let i = 0; ; i += 1) {
      const id = `r${round}-${i}`;
      try {
        const reply = await add(server, id);
        if (reply.status === 201) confirmed.push(id);
      } catch {
        break;
      }
    }
    await killed;
  }
  expect(confirmed.length).toBeGreaterThan(KILLS);
  const last = await ServerProcess.start(folder);
  const there = await placesOf(last);
  expect(there).toEqual(expect.arrayContaining(confirmed));
  expect(new Set(there).size).toBe(there.length);
  await last.stop();
  removeFolder(folder);
});

test(`${TORN} copies of the data folder taken in mid-edit and torn: each opens with every edit confirmed before`, async () => {
  const folder = newFolder();
  const copies: { folder: string; confirmed: string[] }[] = [];
  const server = await ServerProcess.start(folder, ['--empty']);
  const confirmed: string[] = [];
  let over = false;
  const editing = (async () => {
    for (let i = 0; !over; i += 1) {
      const id = `p${i}`;
      if ((await add(server, id)).status === 201) confirmed.push(id);
    }
  })();
  for (let i = 0; i < TORN; i += 1) {
    await new Promise((done) => setTimeout(done, 15));
    const copy = newFolder();
    const before = [...confirmed];
    cpSync(folder, copy, { recursive: true, filter: (path) => !path.endsWith('.part') });
    // What was copied last is torn further: a file of the database, cut at some place.
    const tables = join(copy, 'database/base');
    const [base] = readdirSync(tables).slice(-1);
    const files = readdirSync(join(tables, base!)).filter((name) => /^\d+$/.test(name));
    const torn = join(tables, base!, files[(i * 31) % files.length]!);
    const { size } = statSync(torn);
    if (size > 0) truncateSync(torn, Math.floor((size * ((i * 7) % 10)) / 10));
    copies.push({ folder: copy, confirmed: before });
  }
  over = true;
  await editing;
  await server.stop();
  removeFolder(folder);
  for (const copy of copies) {
    const again = await ServerProcess.start(copy.folder);
    const there = new Set(await placesOf(again));
    expect(copy.confirmed.filter((id) => !there.has(id))).toEqual([]);
    await again.kill();
    removeFolder(copy.folder);
  }
  expect(confirmed.length).toBeGreaterThan(TORN / 2);
});

test('a database that is behind, or does not open, is made up from the journal', async () => {
  const folder = newFolder();
  const first = await ServerProcess.start(folder, ['--empty']);
  await add(first, 'kept');
  await first.stop();

  // Behind: an edit that only the journal has.
  const journal = join(folder, 'journal.jsonl');
  const opened = Journal.open(journal);
  const next: Edit = {
    seq: 3,
    at: new Date().toISOString(),
    author: 'Mara',
    sentence: 'Added late',
    changes: [{ kind: 'place', id: 'late', before: null, after: { ...place('late', 'Late'), rev: 3 } }],
  };
  opened.append(next);
  opened.close();
  const second = await ServerProcess.start(folder);
  expect(await placesOf(second)).toEqual(['kept', 'late']);
  await second.stop();

  // Broken: its control file is torn.
  truncateSync(join(folder, 'database/global/pg_control'), 10);
  const third = await ServerProcess.start(folder);
  expect(await placesOf(third)).toEqual(['kept', 'late']);
  expect(readdirSync(folder).some((name) => name.startsWith('database.damaged-'))).toBe(true);
  await third.stop();

  // The journal is gone: the database gives it back.
  copyFileSync(journal, `${journal}.copy`);
  rmSync(journal);
  const fourth = await ServerProcess.start(folder);
  await fourth.stop();
  expect(Journal.open(journal).edits.map(({ seq, sentence }) => [seq, sentence])).toEqual(
    Journal.open(`${journal}.copy`).edits.map(({ seq, sentence }) => [seq, sentence]),
  );
  removeFolder(folder);
});

describe('the journal', () => {
  const edit = (seq: number): Edit => ({
    seq,
    at: '2026-01-01T00:00:00.000Z',
    author: 'Mara',
    sentence: `Edit ${seq} – ü`,
    changes: [],
  });
  const written = (count: number): { path: string; folder: string } => {
    const folder = newFolder();
    const path = join(folder, 'journal.jsonl');
    const journal = Journal.open(path);
    for (let seq = 1; seq <= count; seq += 1) journal.append(edit(seq));
    journal.close();
    return { path, folder };
  };
  const seqs = (path: string): number[] => Journal.open(path).edits.map(({ seq }) => seq);

  test('torn anywhere, it keeps every line that is whole and goes on after it', () => {
    const { path, folder } = written(3);
    const whole = readFileSync(path);
    const ends = [...whole.entries()].filter(([, byte]) => byte === 0x0a).map(([at]) => at + 1);
    for (let length = 0; length <= whole.length; length += 7) {
      writeFileSync(path, whole.subarray(0, length));
      const expected = ends.filter((end) => end <= length).map((_, i) => i + 1);
      expect(seqs(path)).toEqual(expected);
      const journal = Journal.open(path);
      journal.append(edit(expected.length + 1));
      journal.close();
      expect(seqs(path)).toEqual([...expected, expected.length + 1]);
    }
    removeFolder(folder);
  });

  test('a line that was changed is not believed, and the rest is set aside', () => {
    const { path, folder } = written(3);
    const text = readFileSync(path, 'utf8').replace('Edit 2', 'Edit X');
    writeFileSync(path, text);
    const journal = Journal.open(path);
    expect(journal.edits.map(({ seq }) => seq)).toEqual([1]);
    expect(journal.damage).toMatch(/damaged after edit 1/);
    expect(readFileSync(`${path}.damaged`, 'utf8')).toBe(text);
    removeFolder(folder);
  });

  test('garbage behind the last line is cut off', () => {
    const { path, folder } = written(2);
    appendFileSync(path, '00000000 {"seq":3');
    expect(seqs(path)).toEqual([1, 2]);
    expect(readFileSync(path, 'utf8').endsWith('\n')).toBe(true);
    removeFolder(folder);
  });
});
