/** Cases on real sockets: the built server and the stand-ins as processes of their own, and time as it passes. */
import { Patch } from '@taxiarch/core/rig/patch';
import type { StandingReport, WhyReport } from '@taxiarch/core/truth/known';
import type { LiveReport } from '@taxiarch/core/whole/contract';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { wait } from '../figure';
import { PANEL, get, ports, withServer, withStandIns } from '../server';
import { drawCase } from './cases';
import { calm, tryCase } from './judge';
import type { Numbered } from './pool';
import type { Ship } from './ship';

const SETTLE_MS = 12_000;
const demo = nightFerry();
const patch = new Patch(demo.lamp, demo.type, demo.run, demo.machine);

async function panel<T>(address: string, knob: string, given?: object): Promise<T> {
  const response = await fetch(
    `http://${address}:${PANEL}/${knob}`,
    given && { method: 'POST', body: JSON.stringify(given) },
  );
  const body = (await response.json()) as T & { why?: string };
  if (!response.ok) throw new Error(body.why);
  return body;
}

const ship: Ship = {
  ports,
  wait,
  panel,
  live: () => get<LiveReport>('/api/live'),
  standing: () => get<StandingReport>('/api/standing'),
  why: ({ kind, id, part }) => get<WhyReport>(`/api/why?${new URLSearchParams({ kind, id, part }).toString()}`),
  records: () => demo,
  plan: () => Promise.reject(new Error('The plan stays as it is here.')),
};

/** So many cases that leave the plan as it is. */
export const runReal = (seed: number, count: number): Promise<readonly Numbered[]> =>
  withStandIns(() =>
    withServer(['--bench-port', String(PANEL)], async () => {
      await wait(SETTLE_MS);
      await calm(ship);
      const all: Numbered[] = [];
      for (let number = 0; all.length < count; number += 1) {
        const drawn = await drawCase(seed, number, ship);
        if (drawn.some(({ sort }) => sort.startsWith('plan'))) continue;
        all.push({ number, ...(await tryCase(ship, drawn, () => patch)) });
      }
      return all;
    }),
  );
