/** Proving: a rig walked by people of even pace, marks made while the server is away, every failure tried, and paper. */
import type { CoveredReply, EveryReply, GivenMark, ShowReply } from '@taxiarch/core/whole/contract';
import { added } from '@taxiarch/core/show/edit';
import { rigOf } from '@taxiarch/core/rig/patch';
import {
  PLAIN_LINE,
  PLAIN_MACHINE,
  PLAIN_MARK,
  PLAIN_PORT,
  PROOF_PARTS,
  type Machine,
  type ShowRecords,
  type Walk,
} from '@taxiarch/core/show/records';
import { WhatIf, fromPlan, tryFailures } from '@taxiarch/core/truth/whatif';
import type { Page } from '@playwright/test';
import { ratio, wait, type Extent, type Figure } from './figure';
import { largeRig } from './large';
import { base, get, inPage, post, withPhones, withServer } from './server';

const LAMPS = 420;
/** At each lamp */
const LOOK_MS = 1000;
const AWAY_MARKS = 200;
const PHONES = 3;

async function begun(count: number, name: string): Promise<Walk> {
  const covers = { kind: 'rig', id: '', part: '' } as const;
  const { lampIds } = await post<CoveredReply>('/api/walks/cover', { covers, order: 'number', chosen: [] });
  const walk: Walk = {
    ...{ id: name, rev: 0, name, by: 'Mira', at: new Date().toISOString(), covers, order: 'number', unit: 'lamp' },
    ...{ pictures: ['full'], lampIds: lampIds.slice(0, count) },
  };
  await post('/api/edits', { author: 'Mira', sentence: 'Began a walk', changes: [added('walk', walk)] });
  return walk;
}

/** Somebody who looks at each lamp for as long and marks it, on the page itself; resolves with how many they marked. */
const walked = (page: Page, lookMs: number): Promise<number> =>
  inPage<number>(
    page,
    `(async () => {
      const inHand = () => document.querySelector('[aria-label="Number of the lamp in hand"]')?.textContent ?? '';
      const until = (met) => new Promise((done) => {
        const look = () => (met() ? done() : void setTimeout(look, 4));
        look();
      });
      for (let count = 0; ; count += 1) {
        await until(() => inHand() !== '' || document.body.innerText.includes('Everything is marked'));
        const now = inHand();
        if (now === '') return count;
        await new Promise((done) => setTimeout(done, ${lookMs}));
        document.querySelector('[aria-label="Proved"]').click();
        await until(() => inHand() !== now);
      }
    })()`,
  );

/** Seconds for a walk by so many people. */
async function walkTime(page: (person: string) => Promise<Page>, people: number, count: number): Promise<number> {
  const walk = await begun(count, `walk-${people}`);
  const pages = await Promise.all(Array.from({ length: people }, (_, i) => page(`Person ${i + 1}`)));
  for (const one of pages) {
    await one.goto(`${base}/prove/walks/${walk.id}`);
    await one.getByRole('button', { name: 'Walk on' }).waitFor();
  }
  await post('/api/output/hot', { hot: true, by: 'Mira' });
  const began = performance.now();
  const marked = await Promise.all(
    pages.map(async (one) => {
      await one.getByRole('button', { name: 'Walk on' }).click();
      return walked(one, LOOK_MS);
    }),
  );
  const took = (performance.now() - began) / 1000;
  const sum = marked.reduce((all, one) => all + one, 0);
  if (sum !== count) throw new Error(`${sum} marks for ${count} lamps.`);
  for (const one of pages) await one.context().close();
  return took;
}

function walking(extent: Extent): Promise<Figure[]> {
  const count = extent.of(LAMPS, 8);
  return withServer([], () =>
    withPhones(async (page) => {
      const [one, two] = [await walkTime(page, 1, count), await walkTime(page, 2, count)];
      const own = (count * LOOK_MS) / 1000;
      return [
        {
          figure: `${count} lamps walked by one person, 1 s at each`,
          asked: 'at most 1.05 × their own time',
          seen: `${one.toFixed(1)} s beside ${own} s: ${ratio(one, own)} ×`,
          met: one <= own * 1.05,
        },
        {
          figure: `the same by two people`,
          asked: 'at most 0.55 ×',
          seen: `${two.toFixed(1)} s: ${ratio(two, own)} ×`,
          met: two <= own * 0.55,
        },
      ];
    }),
  );
}

/** Each phone sends what it made while away, in parts, some of them twice, as after torn connections. */
function away(extent: Extent): Promise<Figure[]> {
  const each = extent.of(AWAY_MARKS, 20);
  return withServer([], async () => {
    const walk = await begun(LAMPS, 'walk-away');
    const { stood: _, ...plain } = PLAIN_MARK;
    const phones = Array.from({ length: PHONES }, (_, phone) =>
      Array.from({ length: each }, (_, i): GivenMark => ({
        ...{ ...plain, id: `${phone}-${String(i).padStart(4, '0')}`, lampId: walk.lampIds[i % walk.lampIds.length]! },
        ...{ result: 'proved', by: `Person ${phone}`, at: new Date(1_790_000_000_000 + i * 1000).toISOString() },
      })),
    );
    const send = (marks: readonly GivenMark[]) => post(`/api/walks/${walk.id}/marks`, { marks });
    const began = performance.now();
    await Promise.all(
      phones.map(async (marks) => {
        for (let from = 0; from < marks.length; from += 30) {
          const part = marks.slice(from, from + 30);
          // The answer to every second is lost: it is sent again, with what came after.
          if ((from / 30) % 2 === 1) await send(part);
          await send(marks.slice(Math.max(0, from - 10), from + 30));
        }
      }),
    );
    const took = performance.now() - began;
    const { mark } = (await get<ShowReply>('/api/show')).records;
    const wrong = phones.filter((marks, phone) => {
      const there = mark.filter(({ by }) => by === `Person ${phone}`).map(({ id }) => id);
      return there.join() !== marks.map(({ id }) => id).join();
    });
    return [
      {
        figure: `${each} marks made away on each of ${PHONES} phones, sent through torn connections`,
        asked: 'all there once, in order',
        seen: `${mark.length} of ${each * PHONES} there, ${wrong.length} phones out of order; ${(took / 1000).toFixed(1)} s`,
        met: mark.length === each * PHONES && wrong.length === 0,
      },
    ];
  });
}

/** So many machines on so many universes: consoles with a backup each, and nodes that take two universes a piece. */
function network(machines: number, universes: number): ShowRecords {
  const show = largeRig(universes * 2);
  const consoles = Math.max(2, Math.round(machines / 50));
  const of = Math.ceil(universes / consoles);
  const first = show.universe[0]!;
  const universe = Array.from({ length: universes }, (_, i) => ({
    ...first,
    id: `u${i}`,
    number: i + 1,
    wire: i + 1,
    protocol: 'sacn' as const,
  }));
  const pennant = show.machine.find(({ sends }) => sends)!.sends!.pennant;
  const machine = (i: number, over: Partial<Machine>): Machine => ({
    ...{ ...PLAIN_MACHINE, id: `m${i}`, rev: 1, name: `Machine ${i}`, kind: 'node', interfaces: [] },
    ...over,
  });
  const senders = Array.from({ length: consoles }, (_, i) => {
    const lines = [i, i + 1].flatMap((at, backup) => {
      const from = (((at % consoles) * of) % universes) + 1;
      const count = Math.min(of, universes - from + 1);
      return [{ ...PLAIN_LINE, delivery: 'usual' as const, from, count, priority: backup === 0 ? 100 : 90 }];
    });
    return machine(i, { kind: 'console', sends: { pennant, lines } });
  });
  const nodes = Array.from({ length: machines - consoles }, (_, i) => {
    const ports = Array.from({ length: Math.ceil((universes * 1.2) / (machines - consoles)) }, (_, k) => ({
      ...PLAIN_PORT,
      ...{ number: k + 1, use: 'out' as const, protocol: 'sacn' as const, universe: ((i * 3 + k) % universes) + 1 },
    }));
    return machine(consoles + i, { ports });
  });
  const lamp = show.lamp.map((one, i) => ({ ...one, universe: (i % universes) + 1 }));
  return { ...show, lamp, universe, machine: [...senders, ...nodes], link: [], route: [], control: [] };
}

async function failures(extent: Extent): Promise<Figure[]> {
  const [machines, universes] = [extent.of(500, 40), extent.of(1000, 80)];
  const records = network(machines, universes);
  const { patch } = rigOf(records);
  const began = performance.now();
  const trying = tryFailures(new WhatIf(records, patch, fromPlan(records, patch).world), false);
  let of = 0;
  for (;;) {
    const { done, value } = trying.next();
    if (done) break;
    ({ of } = value);
    await wait(0);
  }
  const seconds = (performance.now() - began) / 1000;
  return [
    {
      figure: `every single failure of ${machines} machines on ${universes} universes`,
      asked: 'at most 10 s',
      seen: `${of} failures in ${seconds.toFixed(1)} s`,
      met: seconds <= 10,
    },
  ];
}

function paper(): Promise<Figure[]> {
  return withServer([], async () => {
    const began = performance.now();
    const answer = await fetch(`${base}/api/proof/draft`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ format: 'pdf', parts: PROOF_PARTS }),
    });
    const { byteLength } = await answer.arrayBuffer();
    const seconds = (performance.now() - began) / 1000;
    const every = await post<EveryReply>('/api/what-if/every', { from: 'plan', pairs: false });
    if (!answer.ok || every.id === '') throw new Error('The paper was refused.');
    return [
      {
        figure: 'the record of proof of the demo show as PDF, all parts',
        asked: 'at most 5 s',
        seen: `${seconds.toFixed(1)} s, ${Math.round(byteLength / 1024)} kB`,
        met: seconds <= 5,
      },
    ];
  });
}

export const measure = async (extent: Extent): Promise<Figure[]> => [
  ...(await paper()),
  ...(await failures(extent)),
  ...(await away(extent)),
  ...(await walking(extent)),
];
