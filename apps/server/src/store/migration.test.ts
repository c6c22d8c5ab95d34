/** Folders, databases and show files of earlier versions open as they are, and nothing that was entered is lost. */
import { execFileSync } from 'node:child_process';
import { copyFileSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import type { HistoryReply, LiveReport, ShowReply } from '@taxiarch/core/whole/contract';
import type { Edit } from '@taxiarch/core/show/edit';
import { readShowFile } from '@taxiarch/core/files/format';
import { KINDS, type ShowRecords } from '@taxiarch/core/show/records';
import { ServerProcess, newFolder, removeFolder } from '../testing/serverProcess';
import { DESCRIPTIONS } from '@taxiarch/core/show/records';
import { TABLES } from './tables';

jest.setTimeout(180_000);

const SAMPLES = join(__dirname, '../testing/samples');
const sample = (name: string): string => gunzipSync(readFileSync(join(SAMPLES, `${name}.gz`))).toString('utf8');

/** The show as the sample's own export has it, brought up as a show file. */
function exported(version = 5): ShowRecords {
  const read = readShowFile(sample(`show-${version}.taxiarch.json`));
  if (!read.ok) throw new Error(read.why);
  return read.value.records;
}

const sorted = (records: ShowRecords) =>
  Object.fromEntries(
    KINDS.map((kind) => [
      kind,
      [...records[kind]].map((one) => ({ ...one, rev: 0 })).sort((a, b) => (a.id < b.id ? -1 : 1)),
    ]),
  );

function folderOf(journal: string): string {
  const folder = newFolder();
  writeFileSync(join(folder, 'journal.jsonl'), journal);
  copyFileSync(join(SAMPLES, 'settings-5.json'), join(folder, 'settings.json'));
  return folder;
}

test('a journal of version 5: the show is what its export said, its history can be read and taken back', async () => {
  const folder = folderOf(sample('journal-5.jsonl'));
  const server = await ServerProcess.start(folder);
  const { seq, records } = await server.get<ShowReply>('/api/show');
  expect(seq).toBe(13);
  expect(sorted(records)).toEqual(sorted(exported()));
  const history = await server.get<HistoryReply>('/api/history?author=Ada&newest=20');
  expect(history.edits.map(({ sentence }) => sentence)).toContain('Raised the Bridge desk to 110');

  // Ada's edits are taken back one by one, senders among them.
  const sentences: string[] = [];
  for (;;) {
    const undone = await server.request('POST', '/api/undo', { author: 'Ada' });
    if (undone.status !== 201) break;
    sentences.push((undone.body as Edit).sentence);
  }
  expect(sentences).toEqual([
    'Undid: Took the Purser’s desk out',
    'Undid: Linked the Tender tablet',
    'Undid: Added the sender Tender tablet',
    'Undid: Raised the Bridge desk to 110',
  ]);
  const after = await server.get<ShowReply>('/api/show');
  const bridge = after.records.machine.find(({ name }) => name === 'Bridge desk')!;
  expect(bridge.sends!.lines.map(({ priority }) => priority)).toEqual([100, 100]);
  await server.stop();

  // As it was, it stays beside; the next start finds everything of today.
  expect(readFileSync(join(folder, 'journal.jsonl.before-version-12'), 'utf8')).toBe(sample('journal-5.jsonl'));
  const again = await ServerProcess.start(folder);
  expect(sorted((await again.get<ShowReply>('/api/show')).records)).toEqual(sorted(after.records));
  expect((await again.get<LiveReport>('/api/live')).notices).toEqual([]);
  await again.stop();
  removeFolder(folder);
});

test('a journal of version 6: what was answered to a link is a sighting, and models say that priority comes first', async () => {
  const folder = folderOf(sample('journal-6.jsonl'));
  const server = await ServerProcess.start(folder);
  const { records } = await server.get<ShowReply>('/api/show');
  expect(sorted(records)).toEqual(sorted(exported(6)));
  expect(records.sighting.map(({ question }) => question).sort()).toEqual([
    'firewall',
    'firewall',
    'firewall',
    'order',
    'order',
  ]);
  expect(records.model.every(({ priorityFirst }) => priorityFirst)).toBe(true);
  const undone = await server.request('POST', '/api/undo', { author: 'Bela' });
  expect((undone.body as Edit).sentence).toBe('Undid: Renamed lamp 101');
  await server.stop();
  removeFolder(folder);
});

test('a database of version 5 that is ahead of its journal gives its edits', async () => {
  const lines = sample('journal-5.jsonl').trimEnd().split('\n');
  const folder = folderOf(`${lines.slice(0, 9).join('\n')}\n`);
  const edits = lines.map((line) => JSON.parse(line.slice(9)) as Edit);
  // The database engine loads its parts as modules, which a test's sandbox does not allow: it runs beside.
  execFileSync(
    process.execPath,
    [
      '--input-type=module',
      '-e',
      `import { PGlite } from '@electric-sql/pglite';
       import { readFileSync } from 'node:fs';
       const { sql, folder, edits } = JSON.parse(readFileSync(0, 'utf8'));
       const engine = await PGlite.create(folder);
       for (const statement of sql.split('--> statement-breakpoint')) await engine.exec(statement);
       for (const { seq, at, author, sentence, changes, undoes } of edits)
         await engine.query('INSERT INTO edit VALUES ($1, $2, $3, $4, $5, $6)',
           [seq, Date.parse(at), author, sentence, JSON.stringify(changes), undoes ?? null]);
       await engine.close();`,
    ],
    {
      cwd: join(__dirname, '../..'),
      input: JSON.stringify({
        sql: readFileSync(join(SAMPLES, 'database-5.sql'), 'utf8'),
        folder: join(folder, 'database'),
        edits,
      }),
    },
  );
  const server = await ServerProcess.start(folder);
  const { seq, records } = await server.get<ShowReply>('/api/show');
  expect(seq).toBe(13);
  expect(sorted(records)).toEqual(sorted(exported()));
  expect((await server.get<LiveReport>('/api/live')).notices).toEqual([]);
  await server.stop();
  expect(readdirSync(folder).filter((name) => name.startsWith('database.set-aside'))).toHaveLength(1);
  removeFolder(folder);
});

test('every field of every kind has its column', () => {
  for (const kind of KINDS)
    expect(Object.keys(TABLES[kind])).toEqual(
      expect.arrayContaining(['id', 'rev', ...Object.keys(DESCRIPTIONS[kind].fields)]),
    );
});
