/** The network at size: nodes found and matched, the list of them, pushing to many, findings on a thousand machines. */
import type { CDPSession, Page } from '@playwright/test';
import { networkFindings } from '@taxiarch/core/truth/check';
import type { LiveReport } from '@taxiarch/core/whole/contract';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { MODELS } from '@taxiarch/core/rig/library';
import { plainPort } from '@taxiarch/core/network/machine';
import { heardMachines, matchMachines, type PushResult } from '@taxiarch/core/network/node';
import { PLAIN_LINE, PLAIN_MACHINE, type Machine, type ShowRecords, type Universe } from '@taxiarch/core/show/records';
import { median, ratio, wait, type Extent, type Figure } from './figure';
import { add, base, get, ports, post, scrollRate, withPage, withProgram, withServer } from './server';

const POLL_PERIOD_MS = 2800;
const BY = 'Measuring';
const QUAD = MODELS.find(({ name }) => name === 'Quad 4')!;

const universe = (i: number, wire: number, protocol: 'artnet' | 'sacn'): Universe => ({
  id: `u${i}`,
  rev: 0,
  number: i + 1,
  name: '',
  protocol,
  wire,
  merge: 'htp',
});

const node = (
  i: number,
  address: string,
  prefix: number,
  carries: (port: number) => number,
  protocol: 'artnet' | 'sacn',
): Machine => ({
  ...PLAIN_MACHINE,
  id: `m${i}`,
  rev: 0,
  name: `Node ${i + 1}`,
  kind: 'node',
  modelId: QUAD.id,
  interfaces: [{ name: '', mac: '', addresses: [{ way: 'fixed', address, prefix }] }],
  ports: [0, 1, 2, 3].map((port) => plainPort(port + 1, carries(port), protocol)),
});

/** The nodes as they stand, and the universes that they carry. */
const planned = (count: number) => ({
  universes: Array.from({ length: count * 4 }, (_, i) => universe(i, Math.floor(i / 4) * 16 + (i % 4), 'artnet')),
  machines: Array.from({ length: count }, (_, i) =>
    node(i, `127.0.${10 + (i >> 7)}.${1 + (i & 127)}`, 8, (port) => i * 4 + port + 1, 'artnet'),
  ),
});

const NETWORK = [
  { id: 'n', rev: 1, name: 'N', network: '10.0.0.0', prefix: 8, dhcp: false, standIn: false, ranges: [] },
];
const within = (i: number) => `10.0.${i >> 7}.${1 + (i & 127)}`;

/** Every tenth shares its address with its neighbour, so that there is something to find. */
const doubled = (count: number): ShowRecords => ({
  ...nightFerry(),
  model: MODELS,
  network: NETWORK,
  machine: Array.from({ length: count }, (_, i) =>
    node(i, within(i - Number(i % 10 === 9)), 8, (port) => ((i * 4 + port + 1) % 12) + 1, 'sacn'),
  ),
});

/** Every fourth universe has no sender, and every tenth machine carries the other protocol. */
const unsent = (machines: number, universes: number): ShowRecords => ({
  ...nightFerry(),
  model: MODELS,
  network: NETWORK,
  universe: Array.from({ length: universes }, (_, i) => universe(i, i + 1, 'sacn')),
  machine: [
    ...Array.from({ length: universes / 20 }, (_, i) => ({
      ...PLAIN_MACHINE,
      id: `s${i}`,
      rev: 1,
      name: `Sender ${i}`,
      kind: 'console' as const,
      sends: {
        pennant: { letter: 'S', cut: 'square' as const, fill: 'plain' as const },
        lines: [{ ...PLAIN_LINE, from: i * 20 + 1, count: 15 }],
      },
    })),
    ...Array.from({ length: machines }, (_, i) =>
      node(i, within(i), 8, (port) => ((i * 4 + port + 1) % universes) + 1, i % 10 === 0 ? 'artnet' : 'sacn'),
    ),
  ],
});

/** The time a machine of both sizes of show, in turns, and how it grows. */
function perMachine(figure: string, extent: Extent, small: ShowRecords, large: ShowRecords): Figure {
  const once = (records: ShowRecords): number => {
    const begun = performance.now();
    networkFindings(records);
    return (performance.now() - begun) / records.machine.length;
  };
  for (let i = 0; i < extent.of(5, 1); i += 1) for (const records of [small, large]) once(records);
  const rounds = Array.from({ length: extent.of(21, 1) }, () => [once(small), once(large)] as const);
  const few = Math.min(...rounds.map(([one]) => one));
  const many = Math.min(...rounds.map(([, one]) => one));
  return {
    figure: `${figure}, time a machine at ${large.machine.length} beside ${small.machine.length}`,
    asked: 'at most 2 (1 is linear, 10 quadratic)',
    seen: `${ratio(many, few)} (${(many * 1000).toFixed(0)} µs beside ${(few * 1000).toFixed(0)} µs)`,
    met: many / few <= 2,
  };
}

async function settle(nodes: number): Promise<Figure> {
  const begun = performance.now();
  const { records } = await get<{ records: ShowRecords }>('/api/show');
  for (;;) {
    const live = await get<LiveReport>('/api/live');
    const matched = matchMachines(records, heardMachines(live)).filter(({ state }) => state === 'matched').length;
    const took = performance.now() - begun;
    if (matched === nodes || took > 30_000)
      return {
        figure: `${nodes} nodes × 4 ports found and matched`,
        asked: 'within 2 poll periods',
        seen: `${matched} in ${(took / POLL_PERIOD_MS).toFixed(1)} poll periods`,
        met: matched === nodes && took <= 2 * POLL_PERIOD_MS,
      };
    await wait(100);
  }
}

/** Turns the plan of some nodes, and pushes it: how long it took, and how many came out as planned in every field. */
async function pushTo(from: number, count: number, merge: 'htp' | 'ltp'): Promise<{ took: number; done: number }> {
  const { records } = await get<{ records: ShowRecords }>('/api/show');
  const machines = Array.from({ length: count }, (_, i) => records.machine.find(({ id }) => id === `m${from + i}`)!);
  await post('/api/edits', {
    author: BY,
    sentence: 'Turned ports',
    changes: machines.map((one) => ({
      kind: 'machine',
      id: one.id,
      rev: one.rev,
      after: { ...one, ports: one.ports.map((port) => ({ ...port, merge })) },
    })),
  });
  const begun = performance.now();
  const { results } = await post<{ results: PushResult[] }>('/api/nodes/push', {
    machineIds: machines.map(({ id }) => id),
  });
  const done = results.filter(({ fields }) => fields.length === 4 && fields.every(({ state }) => state === 'done'));
  return { took: performance.now() - begun, done: done.length };
}

async function push(extent: Extent): Promise<Figure> {
  await post('/api/output/hot', { hot: true, by: BY });
  const many = extent.of(50, 5);
  const rounds: { one: number; all: number; done: number }[] = [];
  for (let i = 0; i < extent.of(5, 1); i += 1) {
    const merge = i % 2 === 0 ? 'ltp' : 'htp';
    const one = await pushTo(0, 1, merge);
    const all = await pushTo(10, many, merge);
    rounds.push({ one: one.took, all: all.took, done: all.done });
  }
  const single = median(rounds.map(({ one }) => one));
  const all = median(rounds.map((round) => round.all));
  const done = rounds.reduce((sum, round) => sum + round.done, 0);
  return {
    figure: `push to ${many} nodes at once, beside one`,
    asked: 'at most 3 ×, every field as planned',
    seen: `${ratio(all, single)} (${all.toFixed(0)} ms beside ${single.toFixed(0)} ms); ${done} of ${rounds.length * many} as planned in every field`,
    met: all <= 3 * single && done === rounds.length * many,
  };
}

async function scrolled(page: Page, slow: CDPSession, pid: number, nodes: number, extent: Extent): Promise<Figure> {
  const openList = async () => {
    await page.goto(`${base}/wire`);
    await page.getByText(`${nodes} of ${nodes} machines matched.`).waitFor({ timeout: 20_000 });
  };
  const rounds: { alive: number; still: number }[] = [];
  for (let i = 0; i < extent.of(5, 1); i += 1) {
    await openList();
    const alive = await scrollRate(page, slow, extent.of(5, 1));
    await openList();
    // The same list while nothing is reported: what the page costs by itself on this computer.
    process.kill(pid, 'SIGSTOP');
    await wait(300);
    const still = await scrollRate(page, slow, extent.of(5, 1));
    process.kill(pid, 'SIGCONT');
    rounds.push({ alive, still });
  }
  const alive = median(rounds.map((round) => round.alive));
  const still = median(rounds.map((round) => round.still));
  return {
    figure: `scrolling ${nodes} machines that answer, processor slowed 4×`,
    asked: '50 fps, or 0.9 of the same list with nothing reported',
    seen: `${alive.toFixed(0)} fps, or ${ratio(alive, still)} of ${still.toFixed(0)} fps`,
    met: alive >= 50 || alive >= 0.9 * still,
  };
}

export async function measure(extent: Extent): Promise<Figure[]> {
  const nodes = extent.of(200, 60);
  const figures = [
    perMachine('findings of the network', extent, doubled(100), doubled(1000)),
    perMachine('findings of the flow', extent, unsent(50, 100), unsent(500, 1000)),
  ];
  return withServer(['--empty'], async ({ pid }) => {
    await post('/api/settings', { interface: '127.0.0.1' }, 'PATCH');
    const { universes, machines } = planned(nodes);
    const changes = [...add('model', [QUAD]), ...add('universe', universes), ...add('machine', machines)];
    await post('/api/edits', { author: BY, sentence: 'Planned the nodes', changes });
    return withProgram('manyNodes', [nodes, ports.artnet, ports.sacn, 37_630], async () => {
      figures.push(await settle(nodes), await push(extent));
      figures.push(await withPage((page, slow) => scrolled(page, slow, pid, nodes, extent)));
      return figures;
    });
  });
}
