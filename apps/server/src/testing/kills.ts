/** Ending a server in mid-edit, and copying its folder torn: as often as is asked for. */
import { cpSync, readdirSync, statSync, truncateSync } from 'node:fs';
import { join } from 'node:path';
import type { ShowReply } from '@taxiarch/core/whole/contract';
import type { Place } from '@taxiarch/core/show/records';
import { ServerProcess, newFolder, removeFolder } from './serverProcess';

export const place = (id: string, name: string): Place => ({ id, rev: 0, name, order: 50 });
export const addPlace = (server: ServerProcess, id: string) =>
  server.request('POST', '/api/edits', {
    author: 'Mara',
    sentence: `Added ${id}`,
    changes: [{ kind: 'place', id, rev: null, after: place(id, id) }],
  });
export const placesOf = async (server: ServerProcess): Promise<string[]> =>
  (await server.get<ShowReply>('/api/show')).records.place.map(({ id }) => id);

/** Edits one after another until the server is gone; those that were confirmed go into `confirmed`. */
async function editUntilGone(server: ServerProcess, prefix: string, confirmed: string[]): Promise<void> {
  for (let i = 0; ; i += 1) {
    const id = `${prefix}-${i}`;
    try {
      const reply = await addPlace(server, id);
      if (reply.status === 201) confirmed.push(id);
    } catch {
      return;
    }
  }
}

/** Kills a server in mid-edit as often as asked; returns what was confirmed and is not there. */
export async function lostByKills(rounds: number): Promise<{ confirmed: number; lost: string[] }> {
  const folder = newFolder();
  const confirmed: string[] = [];
  const lost = new Set<string>();
  for (let round = 0; round < rounds; round += 1) {
    const server = await ServerProcess.start(folder, ['--empty']);
    const there = new Set(await placesOf(server));
    for (const id of confirmed) if (!there.has(id)) lost.add(id);
    const editing = editUntilGone(server, `r${round}`, confirmed);
    // Somewhere behind its first edits, another place each round.
    const had = confirmed.length + 1 + (round % 7);
    while (confirmed.length < had) await new Promise((done) => setTimeout(done, (round * 3) % 17));
    await server.kill();
    await editing;
  }
  const last = await ServerProcess.start(folder);
  const there = await placesOf(last);
  const known = new Set(there);
  for (const id of confirmed) if (!known.has(id)) lost.add(id);
  if (known.size !== there.length) lost.add('a place stands twice');
  await last.stop();
  removeFolder(folder);
  return { confirmed: confirmed.length, lost: [...lost] };
}

/** Cuts some files of a folder's copy short, as a power cut may leave them. */
function tear(folder: string, round: number): void {
  const names = readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile())
    .map((entry) => join(entry.parentPath, entry.name))
    .filter((path) => !path.includes('journal') && !path.includes('settings') && statSync(path).size > 0)
    .sort();
  for (let i = round % 5; i < names.length; i += 5) truncateSync(names[i]!, Math.floor(statSync(names[i]!).size / 2));
}

/** Copies the folder of a server in mid-edit, tears the copies, and opens each; returns what is not there. */
export async function lostByTearing(rounds: number): Promise<{ confirmed: number; lost: string[] }> {
  const folder = newFolder();
  const server = await ServerProcess.start(folder, ['--empty']);
  const confirmed: string[] = [];
  const editing = editUntilGone(server, 'p', confirmed);
  const copies: { folder: string; confirmed: string[] }[] = [];
  for (let i = 0; i < rounds; i += 1) {
    const had = confirmed.length;
    while (confirmed.length === had) await new Promise((done) => setTimeout(done, 5));
    const copy = newFolder();
    const before = [...confirmed];
    cpSync(folder, copy, { recursive: true, filter: (path) => !/\.(part|new)$/.test(path) });
    tear(copy, i);
    copies.push({ folder: copy, confirmed: before });
  }
  await server.kill();
  await editing;
  removeFolder(folder);
  const lost: string[] = [];
  for (const copy of copies) {
    const again = await ServerProcess.start(copy.folder);
    const there = new Set(await placesOf(again));
    lost.push(...copy.confirmed.filter((id) => !there.has(id)));
    await again.kill();
    removeFolder(copy.folder);
  }
  return { confirmed: confirmed.length, lost };
}
