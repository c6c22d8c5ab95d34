/** How many packets a second the engine takes in, with full account and merge, beside a bare socket. */
import { spawn, type ChildProcess } from 'node:child_process';
import { join } from 'node:path';
import { out } from '../bundle.mjs';
import { noneLost, percent, ratio, stolen, ticks, wait, type Extent, type Figure, type Round } from './figure';
import { get, ports, withProgram, withServer } from './server';

const BARE_PORT = 37_000;
/** The database's own code is still being compiled in the background for some seconds. */
const SETTLE_MS = 10_000;
/** Bytes that let a socket hold half a second of these packets; Linux says twice what was allowed. */
const ROOMY = 64 * 1024 * 1024;

/** Universes, frames a second (0: as fast as can be), milliseconds. */
type Load = readonly [universes: number, rate: number, ms: number];
type Counted = Round & { readonly taken: number; readonly seconds: number };

/** Runs the sender; resolves to the number of packets it sent. */
const send = (port: number, load: Load): Promise<number> =>
  new Promise((done) => {
    const sender = spawn(process.execPath, [join(out, 'scripts/programs/sender.mjs'), port, ...load].map(String));
    sender.stdout.once('data', (text) => done(Number(text)));
  });

/** Packets that the engine has taken in since it began. */
const taken = async (): Promise<number> => (await get<{ packets: number }>('/api/live')).packets;

async function round(port: number, count: () => Promise<number>, load: Load): Promise<Counted> {
  const began = ticks();
  const before = await count();
  const sent = await send(port, load);
  await wait(1200);
  const counted = (await count()) - before;
  return { sent, taken: counted, lost: Math.max(0, sent - counted), stolen: stolen(began), seconds: load[2] / 1000 };
}

const counter = (bare: ChildProcess) => (): Promise<number> =>
  new Promise((done) => {
    bare.once('message', (count) => done(Number(count)));
    bare.send('count');
  });

export const measure = (extent: Extent): Promise<Figure[]> =>
  withProgram('bareReceiver', [BARE_PORT], async (bare, first) => {
    const bareCount = counter(bare);
    const buffer = Number(first);
    const rounds = extent.of(3, 1);
    const blast: Load = [200, 0, extent.of(4000, 500)];
    const best = { bare: 0, ours: 0 };
    await withServer([], async () => {
      for (let i = 0; i < rounds; i += 1) {
        const bareRound = await round(BARE_PORT, bareCount, blast);
        const ourRound = await round(ports.sacn, taken, blast);
        best.bare = Math.max(best.bare, bareRound.taken / bareRound.seconds);
        best.ours = Math.max(best.ours, ourRound.taken / ourRound.seconds);
      }
    });
    const figures: Figure[] = [
      {
        figure: 'packets taken in with full account, beside a bare Node socket',
        asked: 'at least 0.35',
        seen: `${ratio(best.ours, best.bare)} (${Math.round(best.ours)} a second beside ${Math.round(best.bare)})`,
        met: best.ours / best.bare >= 0.35,
      },
    ];
    // A fresh engine, so that no stream begins where the blast left off.
    await withServer([], async () => {
      await wait(extent.of(SETTLE_MS, 0));
      const cold = await round(ports.sacn, taken, [2000, 44, extent.of(2000, 300)]);
      const steady: { bare: Counted; ours: Counted }[] = [];
      const load: Load = [2000, 44, extent.of(10_000, 500)];
      for (let i = 0; i < rounds; i += 1)
        steady.push({ bare: await round(BARE_PORT, bareCount, load), ours: await round(ports.sacn, taken, load) });
      const { seen, met } = noneLost(steady);
      const room = buffer < ROOMY ? ', more after `sudo sysctl net.core.rmem_max=33554432`' : '';
      figures.push({
        figure: `2,000 universes × 44 Hz for ${load[2] / 1000} s, packets lost`,
        asked: 'none',
        seen: `${seen}; the system holds ${Math.round(buffer / 1024)} KB a socket${room}. While all 2,000 began at once: ${cold.lost} of ${cold.sent} (${percent(cold.stolen)} taken away)`,
        met,
      });
    });
    return figures;
  });
