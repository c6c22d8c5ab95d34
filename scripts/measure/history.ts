/** A show with a long history beside the same show with none: how long it takes to start, and what it holds. */
import { cpSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openQuietly } from '../../apps/server/src/testing/quietStore';
import { out } from '../bundle.mjs';
import { median, ratio, type Extent, type Figure } from './figure';
import { startServer } from './server';

const EDITS = 20_000;

const newFolder = (): string => mkdtempSync(join(tmpdir(), 'taxiarch-history-'));

/** Makes so many edits in a stopped show, one after another. */
async function edit(folder: string, count: number): Promise<void> {
  const store = await openQuietly(folder, join(out, 'server/database.tar'));
  for (let i = 0; i < count; i += 1) {
    const lamp = store.records().lamp[i % 400]!;
    const after = { ...lamp, name: `Lamp, edit ${i}` };
    await store.propose({
      author: 'Measuring',
      sentence: `Renamed ${lamp.number}`,
      changes: [{ kind: 'lamp', id: lamp.id, rev: lamp.rev, after }],
    });
  }
  await store.close();
}

/** Milliseconds until a server in this folder serves, and the memory that it holds then, KiB. */
async function startIn(folder: string): Promise<{ took: number; memory: number }> {
  const begun = performance.now();
  const server = await startServer(folder);
  const took = performance.now() - begun;
  const status = process.platform === 'linux' ? readFileSync(`/proc/${server.pid}/status`, 'utf8') : '';
  await server.stop();
  return { took, memory: Number(/VmRSS:\s+(\d+)/.exec(status)?.[1] ?? 0) };
}

export async function measure(extent: Extent): Promise<Figure[]> {
  const edits = extent.of(EDITS, 50);
  const [without, long] = [newFolder(), newFolder()];
  try {
    await (await startServer(without)).stop();
    cpSync(without, long, { recursive: true });
    await edit(long, edits);
    const rounds: { without: Awaited<ReturnType<typeof startIn>>; long: Awaited<ReturnType<typeof startIn>> }[] = [];
    for (let i = 0; i < extent.of(5, 1); i += 1)
      rounds.push({ without: await startIn(without), long: await startIn(long) });
    const middle = (which: 'without' | 'long', of: 'took' | 'memory') =>
      median(rounds.map((round) => round[which][of]));
    const [bare, full] = [middle('without', 'took'), middle('long', 'took')];
    const [bareKept, fullKept] = [middle('without', 'memory'), middle('long', 'memory')];
    return [
      {
        figure: `start with ${edits} edits of history beside the same show with none`,
        asked: 'at most 2',
        seen: `${ratio(full, bare)} (${(full / 1000).toFixed(1)} s beside ${(bare / 1000).toFixed(1)} s)`,
        met: full / bare <= 2,
      },
      {
        figure: `memory after that start`,
        asked: 'at most 1.1',
        seen:
          bareKept === 0
            ? 'this system does not tell'
            : `${ratio(fullKept, bareKept)} (${Math.round(fullKept / 1024)} MiB beside ${Math.round(bareKept / 1024)} MiB)`,
        met: bareKept === 0 ? null : fullKept / bareKept <= 1.1,
      },
    ];
  } finally {
    for (const folder of [without, long]) rmSync(folder, { recursive: true, force: true });
  }
}
