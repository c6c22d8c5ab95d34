/** Control while the show is being changed as a whole: giving back, the feed, and the edit itself. */
import { createSocket } from 'node:dgram';
import { request } from 'node:http';
import { wireKey } from '@taxiarch/core/base/address';
import { watchFrames } from '../../apps/server/src/testing/feedFrames';
import { largeRig } from './large';
import { median, wait, type Extent, type Figure } from './figure';
import { SLOTS_AT, packet } from './programs/steady';
import { add, base, get, ports, post, withServer } from './server';
import type { ShowRecords } from '@taxiarch/core/show/records';

const LAMPS = 20_000;

/** Posts text that was made before, and waits for the answer's end; ms and its status. */
const postText = (path: string, text: Buffer): Promise<{ took: number; status: number }> =>
  new Promise((done, failed) => {
    const begun = performance.now();
    const asked = request(base + path, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'content-length': text.length },
    });
    asked.once('error', failed);
    asked.once('response', (reply) => {
      reply.resume();
      reply.once('end', () => done({ took: performance.now() - begun, status: reply.statusCode ?? 0 }));
    });
    asked.end(text);
  });

/** Sends universe 1 at 44 Hz with levels that move; returns what stops it. */
function moving(): () => void {
  const socket = createSocket('udp4');
  const bytes = packet(1);
  const timer = setInterval(() => {
    bytes[111] = (bytes[111]! + 1) & 0xff;
    bytes.fill(bytes[111]!, SLOTS_AT);
    socket.send(bytes, ports.sacn, '127.0.0.1');
  }, 1000 / 44);
  return () => {
    clearInterval(timer);
    socket.close();
  };
}

export const measure = (extent: Extent): Promise<Figure[]> =>
  withServer(['--empty'], async () => {
    const count = extent.of(LAMPS, 500);
    const { lamp, place, type, universe } = largeRig(count);
    for (const [kind, records] of [
      ['place', place],
      ['type', type],
      ['universe', universe],
      ['lamp', lamp],
    ] as const)
      await post('/api/edits', { author: 'Measuring', sentence: 'Added', changes: add(kind, records) });
    const { records } = await get<{ records: ShowRecords }>('/api/show');
    const changes = records.lamp.map((one) => ({
      kind: 'lamp',
      id: one.id,
      rev: one.rev,
      after: { ...one, name: `${one.name} again` },
    }));
    const edit = Buffer.from(JSON.stringify({ author: 'Measuring', sentence: 'Changed all', changes }));

    // A universe that moves, and somebody who looks at it.
    const stop = moving();
    try {
      const watcher = await watchFrames(base, wireKey({ protocol: 'sacn', number: 1 }));
      await post('/api/output/hot', { hot: true, by: 'Measuring' });
      await wait(1000);
      const done = postText('/api/edits', edit);
      let editing = true;
      const edited = done.finally(() => (editing = false));
      const from = performance.now();
      const before = watcher.frames();
      const waits: number[] = [];
      while (editing) {
        await post('/api/output/take', { client: 'measuring', by: 'Measuring', slots: { '1/1': 10 }, stay: true });
        const begun = performance.now();
        await post('/api/output/give-back', {});
        waits.push(performance.now() - begun);
        await wait(30);
      }
      const rate = ((watcher.frames() - before) * 1000) / (performance.now() - from);
      const { took, status } = await edited;
      watcher.close();
      if (status !== 201) throw new Error(`The edit was answered with ${status}.`);
      const worst = Math.max(...waits);
      return [
        {
          figure: `${count} lamps changed in one edit, until it is confirmed`,
          asked: 'at most 5 s',
          seen: `${(took / 1000).toFixed(1)} s`,
          met: took <= 5000,
        },
        {
          figure: 'giving everything back meanwhile, the slowest',
          asked: 'at most 50 ms',
          seen: `${worst.toFixed(0)} ms, the middle of ${waits.length} ${median(waits).toFixed(0)} ms`,
          met: worst <= 50,
        },
        {
          figure: 'frames of the feed meanwhile, a universe at 44 Hz',
          asked: 'at least 25 a second',
          seen: `${rate.toFixed(1)} a second`,
          met: rate >= 25,
        },
      ];
    } finally {
      stop();
    }
  });
