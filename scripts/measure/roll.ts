/** The roll call of many lamps whose answers get lost, what it does to the rhythm of DMX, setting addresses, and matching by eye. */
import type { OutputReport } from '@taxiarch/core/whole/contract';
import { keyOfItem, lit, type EyeReply } from '@taxiarch/core/proving/eye';
import type { LampOutcome, RollReply, RollRow } from '@taxiarch/core/truth/roll';
import { ratio, wait, type Extent, type Figure } from './figure';
import { PANEL, base, get, ports, post, withProgram, withServer, withStandIns } from './server';

const LAMPS = 500;
const NODES = 10;
const LOSS = 0.05;
const LOOK_MS = 250;

async function call(): Promise<RollReply> {
  await fetch(`${base}/api/roll/call`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: '{}',
  });
  for (;;) {
    await wait(LOOK_MS);
    const roll = await get<RollReply>('/api/roll');
    if (!roll.progress.running) return roll;
  }
}

/** Intervals between the frames of all ports since they were last asked for, ms, rising. */
async function frames(): Promise<number[]> {
  const all = await Promise.all(
    Array.from({ length: NODES }, async (_, i) => {
      const answer = await fetch(`http://127.0.9.${i + 1}:${PANEL}/frames`);
      return ((await answer.json()) as number[][]).flat();
    }),
  );
  return all.flat().sort((a, b) => a - b);
}
const of99 = (values: readonly number[]): number => values[Math.floor(values.length * 0.99)]!;

async function setting(rows: readonly RollRow[], address: number): Promise<number> {
  const began = performance.now();
  const lamps = rows.map(({ uid }, i) => ({ uid, address: address + (i % 50) }));
  const { results } = await post<{ results: LampOutcome[] }>('/api/lamps/set', { lamps });
  const bad = results.filter(({ state }) => state !== 'done');
  if (bad.length > 0) throw new Error(`${bad.length} lamps were not set: ${bad[0]!.says}`);
  return performance.now() - began;
}

async function many(extent: Extent): Promise<Figure[]> {
  const lamps = extent.of(LAMPS, 80);
  const args = [lamps, NODES, LOSS, ports.artnet, ports.sacn, PANEL];
  return withServer([], () =>
    withProgram('manyLamps', args, async () => {
      // The nodes are found, and have searched their lines.
      await wait(6000);
      await frames();
      await wait(extent.of(8000, 2000));
      const quiet = await frames();
      const roll = await call();
      const busy = await frames();
      const { rdmShare } = await get<{ rdmShare: number }>('/api/settings');
      const { began, ended } = roll.progress;
      const paper = Math.max(...roll.ports.map(({ used }) => used)) / (rdmShare / 100);
      const read = roll.rows.filter(({ seen }) => seen?.says === 'all' && seen.hours !== null && seen.label !== '');
      const lost = roll.ports.reduce((sum, port) => sum + port.lost, 0);
      const sent = roll.ports.reduce((sum, port) => sum + port.asked, 0);
      await post('/api/output/hot', { hot: true, by: 'Measuring' });
      const byPort = new Map<string, RollRow[]>();
      for (const row of read) {
        const key = `${row.seen!.address} ${row.seen!.portAddress}`;
        byPort.set(key, [...(byPort.get(key) ?? []), row]);
      }
      const some = [...byPort.values()].slice(0, 12);
      // Eight or nine of each, a hundred in all
      const chosen = some.map((rows, i) => rows.slice(0, i < 4 ? 9 : 8));
      const together = await setting(chosen.flat(), 300);
      const alone = await setting(chosen[0]!, 400);
      return [
        {
          figure: `Roll call of ${lamps} lamps on ${NODES * 4} ports, ${LOSS * 100} % of answers lost`,
          asked: 'complete, at most 1.5 × the time that the ports’ share allows',
          seen: `${read.length} complete in ${((ended - began) / 1000).toFixed(1)} s, ${ratio(ended - began, paper)} × the ${(paper / 1000).toFixed(1)} s on paper; ${lost} of ${sent} requests unanswered`,
          met: read.length === lamps && ended - began <= 1.5 * paper,
        },
        {
          figure: 'Intervals of DMX frames while lamps are asked, 99 of 100 within',
          asked: 'at most 1.2 × those without',
          seen: `${of99(busy).toFixed(2)} ms beside ${of99(quiet).toFixed(2)} ms, ${ratio(of99(busy), of99(quiet))} ×`,
          met: of99(busy) <= 1.2 * of99(quiet),
        },
        {
          figure: `Addresses of ${chosen.flat().length} lamps over ${chosen.length} ports set and read back`,
          asked: 'at most 2 × the slowest port alone',
          seen: `${(together / 1000).toFixed(2)} s beside ${(alone / 1000).toFixed(2)} s, ${ratio(together, alone)} ×`,
          met: together <= 2 * alone,
        },
      ];
    }),
  );
}

/** A person taps so long after they see what lights. */
const TAP_MS = 300;
const SEE_MS = 10;

interface Hanging {
  readonly tag: string;
  readonly uid: string;
  readonly lit: number;
  readonly identifying: boolean;
}
const hanging = async (): Promise<Hanging[]> =>
  (await (await fetch(`http://127.0.0.29:${PANEL}/lamps`)).json()) as Hanging[];

/** The lamps of the funnel, the bridge wings and the catwalk */
const chosenLamps = (count: number): string[] =>
  [
    ...Array.from({ length: 36 }, (_, i) => 601 + i),
    ...Array.from({ length: 18 }, (_, i) => 701 + i),
    ...Array.from({ length: 6 }, (_, i) => 381 + i),
  ]
    .slice(0, count)
    .map((number) => `lamp-${number}`);

const byEye = (extent: Extent): Promise<Figure[]> =>
  withStandIns(() =>
    withServer(['--bench-port', String(PANEL)], async () => {
      await wait(8000);
      await call();
      await post('/api/output/hot', { hot: true, by: 'Measuring' });
      const lampIds = chosenLamps(extent.of(60, 6));
      const asked = { by: 'Measuring', how: 'asked', lampIds, forget: 'all' };
      let eye = await post<EyeReply>('/api/eye/begin', asked);
      const began = performance.now();
      let taps = 0;
      while (eye.running && eye.left > 0) {
        const item = lit(eye.running)!;
        let seen: Hanging | undefined;
        while (!seen) {
          seen = (await hanging()).find(
            ({ uid, lit: level, identifying }) => uid === item.uid && (identifying || level > 250),
          );
          if (!seen) await wait(SEE_MS);
        }
        await wait(TAP_MS);
        const lampId = `lamp-${seen.tag}`;
        eye = await post<EyeReply>('/api/eye/answer', { lit: keyOfItem(item), answer: 'tapped', lampIds: [lampId] });
        taps += 1;
      }
      const took = performance.now() - began;
      let done = 0;
      for (const end = Date.now() + 20_000; done < lampIds.length && Date.now() < end; await wait(LOOK_MS))
        done = (await get<EyeReply>('/api/eye')).lamps.filter(({ says }) => says === 'Set and read back.').length;
      await post('/api/eye/end', {});
      const { holds } = await get<OutputReport>('/api/output');
      return [
        {
          figure: `Matching by eye: ${lampIds.length} lamps by a person who taps ${TAP_MS} ms after one lights`,
          asked: 'at most 1.3 × the taps’ own time, all set, nothing held at the end',
          seen: `${ratio(took, taps * TAP_MS)} × for ${taps} taps, ${done} set and read back, ${holds.length} held`,
          met: took <= 1.3 * taps * TAP_MS && done === lampIds.length && holds.length === 0,
        },
      ];
    }),
  );

export const measure = async (extent: Extent): Promise<Figure[]> => [...(await many(extent)), ...(await byEye(extent))];
