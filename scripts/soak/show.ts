/**
 * A show for as many minutes as asked: 200 universes at 44 Hz, an edit a second, pages that come and go, a node that
 * flaps. What is confirmed must be there at the end, memory stay flat, and whoever looks on go on seeing it move.
 */
import { createSocket } from 'node:dgram';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ShowReply } from '@taxiarch/core/whole/contract';
import { wireKey } from '@taxiarch/core/base/address';
import { blankPollReply, encodePollReply } from '@taxiarch/core/protocol/artnet';
import { watchFrames, type Watcher } from '../../apps/server/src/testing/feedFrames';
import { median, percent, wait } from '../measure/figure';
import { base, get, ports, post, startServer, withProgram } from '../measure/server';

const UNIVERSES = 200;
const FLAP_S = 20;
const PAGE_S = 10;
const MOST_GROWTH = 0.02;
const LEAST_FRAMES = 25;
const KEY = wireKey({ protocol: 'sacn', number: 1 });

/** MiB that a process holds; 0 where the system does not tell */
function memoryOf(pid: number): number {
  if (process.platform !== 'linux') return 0;
  const [, kib = '0'] = /VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8')) ?? [];
  return Number(kib) / 1024;
}

/** A node that answers for a while, and is gone for as long. */
function flapping(): () => void {
  const socket = createSocket('udp4');
  const reply = encodePollReply({
    ...blankPollReply('127.0.0.99', Uint8Array.of(2, 0x7f, 0, 0, 0, 0x99)),
    portName: 'Flapping node',
  });
  let second = 0;
  const timer = setInterval(() => {
    second += 1;
    if (Math.floor(second / FLAP_S) % 2 === 0) socket.send(reply, ports.artnet, '127.0.0.1');
  }, 1000);
  return () => {
    clearInterval(timer);
    socket.close();
  };
}

/** Returns whether all was as it should be. */
export async function showFor(minutes: number, say: (line: string) => void): Promise<boolean> {
  const folder = mkdtempSync(join(tmpdir(), 'taxiarch-soak-'));
  const server = await startServer(folder);
  const stopNode = flapping();
  const confirmed = new Map<string, string>();
  const frames: number[] = [];
  const memory: number[] = [];
  const pages: Watcher[] = [];
  try {
    await withProgramInBackground(minutes, async () => {
      const watcher = await watchFrames(base, KEY);
      const { records } = await get<ShowReply>('/api/show');
      const revisions = new Map(records.place.map((one) => [one.id, one]));
      let before = 0;
      for (let second = 1; second <= minutes * 60; second += 1) {
        const began = performance.now();
        const place = [...revisions.values()][second % revisions.size]!;
        const after = { ...place, name: `Place, second ${second}` };
        const changes = [{ kind: 'place', id: place.id, rev: place.rev, after }];
        const { seq } = await post<{ seq: number }>('/api/edits', { author: 'Soak', sentence: 'Renamed', changes });
        revisions.set(place.id, { ...after, rev: seq });
        confirmed.set(place.id, after.name);
        if (second % PAGE_S === 0) {
          pages.push(await watchFrames(base, KEY));
          if (pages.length > 3) pages.shift()!.close();
        }
        if (second % 60 === 0) {
          frames.push((watcher.frames() - before) / 60);
          before = watcher.frames();
          memory.push(memoryOf(server.pid));
          say(
            `minute ${second / 60}: ${frames.at(-1)!.toFixed(1)} frames a second, ${memory.at(-1)!.toFixed(0)} MiB, ${second} edits`,
          );
        }
        await wait(Math.max(0, 1000 - (performance.now() - began)));
      }
      watcher.close();
    });
    const { records } = await get<ShowReply>('/api/show');
    const names = new Map(records.place.map(({ id, name }) => [id, name]));
    const lost = [...confirmed].filter(([id, name]) => names.get(id) !== name);
    // The first minutes fill what is kept; from then on it must be flat.
    const from = memory[Math.floor(memory.length / 4)]!;
    const growth = from === 0 ? 0 : memory.at(-1)! / from - 1;
    const fps = median(frames);
    say(
      `${minutes} minutes: ${lost.length} edits lost, memory grew by ${percent(growth)}, ${fps.toFixed(1)} frames a second in the median minute`,
    );
    return lost.length === 0 && growth <= MOST_GROWTH && fps >= LEAST_FRAMES;
  } finally {
    for (const page of pages) page.close();
    stopNode();
    await server.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

/** The sender runs while `work` does. */
const withProgramInBackground = (minutes: number, work: () => Promise<void>): Promise<void> =>
  withProgram('sender', [ports.sacn, UNIVERSES, 44, (minutes * 60 + 30) * 1000], work, false);
