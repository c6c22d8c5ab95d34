/** The network at size: nodes found and matched, the list of them, pushing to many, findings on a thousand machines. */
import { fork } from 'node:child_process';
import { chromium } from '@playwright/test';
import { core, manyNodes } from './core.mjs';
import { base, median, ports, ratio, scrollRate, startServer, stolen, verdict, wait } from './server.mjs';

const NODES = 200;
const PUSHED = 50;
const POLL_PERIOD_MS = 2800;
const ROUNDS = 21;
/** Of the list, with reports and without in turns */
const SCROLLS = 5;

const addressOf = (i) => `127.0.${10 + (i >> 7)}.${1 + (i & 127)}`;

/** The plan of the nodes as they stand, and the universes that they carry. */
function planOf({ PLAIN_MACHINE, MODELS, plainPort }) {
  const model = MODELS.find(({ name }) => name === 'Quad 4');
  const wires = Array.from({ length: NODES }, (_, i) => [0, 1, 2, 3].map((port) => i * 16 + port));
  const universes = wires.flat().map((wire, i) => ({
    id: `u${i}`,
    rev: 0,
    number: i + 1,
    name: '',
    protocol: 'artnet',
    wire,
    merge: 'htp',
  }));
  const machines = wires.map((_, i) => ({
    ...PLAIN_MACHINE,
    id: `m${i}`,
    rev: 0,
    name: `Node ${i + 1}`,
    kind: 'node',
    modelId: model.id,
    interfaces: [{ name: '', mac: '', addresses: [{ way: 'fixed', address: addressOf(i), prefix: 8 }] }],
    ports: [0, 1, 2, 3].map((port) => plainPort(port + 1, i * 4 + port + 1, 'artnet')),
  }));
  return { model, universes, machines };
}

const send = async (path, body) =>
  (
    await fetch(base + path, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    })
  ).json();

const add = (kind, records) => records.map((after) => ({ kind, id: after.id, rev: null, after }));

function findings({ networkFindings, nightFerry, PLAIN_MACHINE, MODELS, plainPort }) {
  const show = (count) => ({
    ...nightFerry(),
    model: MODELS,
    network: [{ id: 'n', rev: 1, name: 'N', network: '10.0.0.0', prefix: 8, dhcp: false, standIn: false, ranges: [] }],
    machine: Array.from({ length: count }, (_, i) => ({
      ...PLAIN_MACHINE,
      id: `m${i}`,
      rev: 1,
      name: i === 0 ? 'Bridge desk' : `Node ${i}`,
      kind: 'node',
      modelId: 'model-marram-quad-4',
      // Every tenth shares its address with its neighbour, so that there is something to find.
      interfaces: [
        {
          name: '',
          mac: '',
          addresses: [{ way: 'fixed', address: `10.0.${i >> 7}.${1 + ((i - (i % 10 === 9)) & 127)}`, prefix: 8 }],
        },
      ],
      ports: [1, 2, 3, 4].map((port) => plainPort(port, ((i * 4 + port) % 12) + 1)),
    })),
  });
  return `findings of the network: ${perMachine(networkFindings, show(100), show(1000))}`;
}

/** Every fourth universe has no sender, and every tenth machine carries the other protocol: there is enough to find. */
function flowFindings({ networkFindings, nightFerry, PLAIN_MACHINE, PLAIN_RANGE, MODELS, plainPort }) {
  const show = (machines, universes) => ({
    ...nightFerry(),
    model: MODELS,
    network: [{ id: 'n', rev: 1, name: 'N', network: '10.0.0.0', prefix: 8, dhcp: false, standIn: false, ranges: [] }],
    universe: Array.from({ length: universes }, (_, i) => ({
      id: `u${i}`,
      rev: 1,
      number: i + 1,
      name: '',
      protocol: 'sacn',
      wire: i + 1,
      merge: 'htp',
    })),
    source: Array.from({ length: universes / 20 }, (_, i) => ({
      id: `s${i}`,
      rev: 1,
      name: `Sender ${i}`,
      address: '',
      ranges: [{ ...PLAIN_RANGE, from: i * 20 + 1, count: 15 }],
      pennant: { letter: 'S', cut: 'square', fill: 'plain' },
    })),
    machine: Array.from({ length: machines }, (_, i) => ({
      ...PLAIN_MACHINE,
      id: `m${i}`,
      rev: 1,
      name: `Node ${i}`,
      kind: 'node',
      modelId: 'model-marram-quad-4',
      interfaces: [
        { name: '', mac: '', addresses: [{ way: 'fixed', address: `10.0.${i >> 7}.${1 + (i & 127)}`, prefix: 8 }] },
      ],
      ports: [1, 2, 3, 4].map((port) =>
        plainPort(port, ((i * 4 + port) % universes) + 1, i % 10 === 0 ? 'artnet' : 'sacn'),
      ),
    })),
  });
  const few = show(50, 100);
  const many = show(500, 1000);
  return `findings of the flow, 100 universes × 50 machines beside 1,000 × 500 (${networkFindings(many).length} found): ${perMachine(networkFindings, few, many)}`;
}

/** The time a machine of both sizes of show, in turns, and how it grows. */
function perMachine(find, small, large) {
  const once = (records) => {
    const begun = performance.now();
    find(records);
    return (performance.now() - begun) / records.machine.length;
  };
  for (let i = 0; i < 5; i += 1) for (const records of [small, large]) once(records);
  const rounds = Array.from({ length: ROUNDS }, () => [once(small), once(large)]);
  const [few, many] = [0, 1].map((which) => Math.min(...rounds.map((round) => round[which])));
  const sizes = [small, large].map(({ machine }) => machine.length);
  return `${(few * 1000).toFixed(1)} µs a machine at ${sizes[0]}, ${(many * 1000).toFixed(1)} µs at ${sizes[1]}: ratio ${ratio(many, few)} (1 is linear, 10 quadratic; at most 2: ${verdict(many / few <= 2)})`;
}

async function settle({ heardMachines, matchMachines }) {
  const begun = performance.now();
  const { records } = await (await fetch(`${base}/api/show`)).json();
  for (;;) {
    const live = await (await fetch(`${base}/api/live`)).json();
    const matched = matchMachines(records, heardMachines(live)).filter(({ state }) => state === 'matched').length;
    const took = performance.now() - begun;
    if (matched === NODES || took > 30_000)
      return `${matched} of ${NODES} nodes of 4 ports found and matched in ${(took / 1000).toFixed(1)} s, ${(took / POLL_PERIOD_MS).toFixed(1)} poll periods (at most 2: ${verdict(matched === NODES && took <= 2 * POLL_PERIOD_MS)})`;
    await wait(100);
  }
}

/** Turns the plan of some nodes, and pushes it; seconds that the push took. */
async function pushTo(from, count, first) {
  const { records } = await (await fetch(`${base}/api/show`)).json();
  const machines = Array.from({ length: count }, (_, i) => records.machine.find(({ id }) => id === `m${from + i}`));
  await send('/api/edits', {
    author: 'Measure',
    sentence: 'Turned ports',
    changes: machines.map((one) => ({
      kind: 'machine',
      id: one.id,
      rev: one.rev,
      after: { ...one, ports: one.ports.map((port) => ({ ...port, merge: first })) },
    })),
  });
  const begun = performance.now();
  const { results } = await send('/api/nodes/push', { machineIds: machines.map(({ id }) => id) });
  const took = performance.now() - begun;
  const done = results.filter(
    ({ fields }) => fields.length === 4 && fields.every(({ state }) => state === 'done'),
  ).length;
  return { took, done };
}

async function push() {
  await send('/api/output/hot', { hot: true, by: 'Measure' });
  const one = [];
  const many = [];
  let done = 0;
  for (const merge of ['ltp', 'htp', 'ltp', 'htp', 'ltp']) {
    one.push((await pushTo(0, 1, merge)).took);
    const all = await pushTo(10, PUSHED, merge);
    many.push(all.took);
    done += all.done;
  }
  const [single, fifty] = [median(one), median(many)];
  return `push to ${PUSHED} nodes at once ${fifty.toFixed(0)} ms, to one ${single.toFixed(0)} ms: ratio ${ratio(fifty, single)} (at most 3: ${verdict(fifty <= 3 * single && done === 5 * PUSHED)}); ${done} of ${5 * PUSHED} came out as planned in every field`;
}

async function openList(page) {
  await page.goto(`${base}/wire`);
  await page.getByText(`${NODES} of ${NODES} machines matched.`).waitFor({ timeout: 20_000 });
}

export async function measure() {
  const words = await core('demo', 'check', 'ip', 'library', 'machine', 'node', 'show');
  const ticks = stolen();
  const lines = [findings(words), flowFindings(words)];
  const server = await startServer(undefined, ['--empty']);
  await fetch(`${base}/api/settings`, {
    method: 'PATCH',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ interface: '127.0.0.1' }),
  });
  const { model, universes, machines } = planOf(words);
  await send('/api/edits', {
    author: 'Measure',
    sentence: 'Planned the nodes',
    changes: [...add('model', [model]), ...add('universe', universes), ...add('machine', machines)],
  });
  const nodes = fork(await manyNodes(), [NODES, ports.artnet, ports.sacn, 37_630].map(String), {
    stdio: ['ignore', 'pipe', 'inherit', 'ipc'],
  });
  await new Promise((ready) => nodes.stdout.once('data', ready));
  lines.push(await settle(words));
  lines.push(await push());
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--disable-background-networking'],
  });
  const page = await browser.newPage({ viewport: { width: 390, height: 844 } });
  const slow = await page.context().newCDPSession(page);
  const alive = [];
  const still = [];
  for (let i = 0; i < SCROLLS; i += 1) {
    await openList(page);
    alive.push(await scrollRate(page, slow));
    await openList(page);
    // The same list while nothing is reported: what the page costs by itself on this computer.
    process.kill(server.pid, 'SIGSTOP');
    await wait(300);
    still.push(await scrollRate(page, slow));
    process.kill(server.pid, 'SIGCONT');
  }
  const [moved, bare] = [median(alive), median(still)];
  lines.push(
    `scrolling ${NODES} machines that answer, processor slowed 4×, median of ${SCROLLS}: ${moved.toFixed(0)} fps, ${bare.toFixed(0)} fps while nothing is reported: ratio ${ratio(moved, bare)} (at least 50 fps, or 0.9 of what the computer can: ${verdict(moved >= 50 || moved >= 0.9 * bare)})`,
  );
  await browser.close();
  nodes.kill('SIGTERM');
  await server.stop();
  lines.push(`meanwhile ${(stolen(ticks) * 100).toFixed(1)} % of the computer was stolen by its host`);
  return lines;
}
