/** How many packets a second the engine takes in, with full account and merge, beside a bare socket. */
import { spawn, type ChildProcess } from 'node:child_process';
import { join } from 'node:path';
import { out } from '../bundle.mjs';
import { percent, ratio, stolen, ticks, wait, type Extent, type Figure, type Round } from './figure';
import { get, ports, withProgram, withServer } from './server';

const BARE_PORT = 37_000;
const STRANGERS_A_SECOND = 1000;
const STRANGERS_BEFORE_MS = 1500;
/** The database's own code is still being compiled in the background for some seconds. */
const SETTLE_MS = 10_000;
/** Bytes that let a socket hold half a second of these packets; Linux says twice what was allowed. */
const ROOMY = 64 * 1024 * 1024;

/** Universes, frames a second (0: as fast as can be), milliseconds. */
type Load = readonly [universes: number, rate: number, ms: number];
type Counted = Round & { readonly taken: number; readonly seconds: number };

/** Runs a program that sends; resolves to the number of packets it sent. */
const run = (program: string, given: readonly number[]): Promise<number> =>
  new Promise((done) => {
    const sender = spawn(process.execPath, [join(out, `scripts/programs/${program}.mjs`), ...given.map(String)]);
    sender.stdout.once('data', (text) => done(Number(text)));
  });
const send = (port: number, load: Load): Promise<number> => run('sender', [port, ...load]);

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
    const best = { bare: 0, ours: 0, among: 0 };
    const better = (which: keyof typeof best, { taken: count, seconds }: Counted) =>
      (best[which] = Math.max(best[which], count / seconds));
    await withServer([], async () => {
      for (let i = 0; i < rounds; i += 1) {
        better('bare', await round(BARE_PORT, bareCount, blast));
        better('ours', await round(ports.sacn, taken, blast));
        // They are there before it begins and after it ends.
        const lasting = blast[2] + 3 * STRANGERS_BEFORE_MS;
        const strangers = run('strangers', [ports.sacn, ports.artnet, STRANGERS_A_SECOND, lasting]);
        await wait(STRANGERS_BEFORE_MS);
        const among = await round(ports.sacn, taken, blast);
        const share = (blast[2] + 1200) / lasting;
        better('among', { ...among, taken: among.taken - share * (await strangers) });
      }
    });
    const figures: Figure[] = [
      {
        figure: 'packets taken in with full account, beside a bare Node socket',
        asked: 'at least 0.8',
        seen: `${ratio(best.ours, best.bare)} (${Math.round(best.ours)} a second beside ${Math.round(best.bare)})`,
        met: best.ours / best.bare >= 0.8,
      },
      {
        figure: `the same among ${STRANGERS_A_SECOND} packets a second of strangers, beside without them`,
        asked: 'at least 0.9',
        seen: ratio(best.among, best.ours),
        met: best.among / best.ours >= 0.9,
      },
    ];
    // A fresh engine, so that no stream begins where the blast left off.
    await withServer([], async () => {
      await wait(extent.of(SETTLE_MS, 0));
      const cold = await round(ports.sacn, taken, [4000, 44, extent.of(2000, 300)]);
      const steady: { bare: Counted; ours: Counted }[] = [];
      const load: Load = [4000, 44, extent.of(10_000, 500)];
      for (let i = 0; i < rounds; i += 1)
        steady.push({ bare: await round(BARE_PORT, bareCount, load), ours: await round(ports.sacn, taken, load) });
      const lost = (which: 'bare' | 'ours') => steady.reduce((all, one) => all + one[which].lost, 0);
      const room = buffer < ROOMY ? ', more after `sudo sysctl net.core.rmem_max=33554432`' : '';
      figures.push({
        figure: `4,000 universes × 44 Hz for ${load[2] / 1000} s, packets lost`,
        asked: 'no more than by the bare socket',
        seen: `lost ${lost('ours')} of ${steady.reduce((all, { ours }) => all + ours.sent, 0)}, the bare program ${lost('bare')}; the system holds ${Math.round(buffer / 1024)} KB a socket${room}. While all 4,000 began at once: ${cold.lost} of ${cold.sent} (${percent(cold.stolen)} taken away)`,
        met: lost('ours') <= lost('bare'),
      });
    });
    return figures;
  });
