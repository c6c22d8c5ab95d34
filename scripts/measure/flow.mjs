/** Merge and router: four sources beside a plain loop, and 256 universes sent on beside a bare relay. */
import { createSocket } from 'node:dgram';
import { fork } from 'node:child_process';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { core } from './core.mjs';
import { base, median, noneLost, ports, ratio, startServer, stolen, verdict, wait } from './server.mjs';
import { SLOTS_AT, enlarge, packet, steadily } from './steady.mjs';

const here = dirname(fileURLToPath(import.meta.url));
const SOURCES = 4;
const FRAMES = 40_000;
/** Slots of a source that change from one frame to the next while a cue fades. */
const FADING = 64;
const ROUTES = 256;
const RATE = 44;
const LASTS_MS = 10_000;
const WITNESS = '127.0.0.78';
const RELAY_PORT = 37_100;

/** The merge as one would write it down: every slot of every source, every time. */
function plainMerge(sources, values, owners) {
  for (let slot = 0; slot < 512; slot += 1) {
    let best = -1;
    let owner = 255;
    for (let i = 0; i < sources.length; i += 1) {
      const level = sources[i].values[slot];
      if (level > best) {
        best = level;
        owner = i;
      }
    }
    values[slot] = best;
    owners[slot] = owner;
  }
}

/** Microseconds a merge while `changing` slots of one source after the other change before each. */
function timed(changing, merge) {
  const sources = Array.from({ length: SOURCES }, (_, mark) => ({
    mark,
    priority: 100,
    count: 512,
    values: new Uint8Array(512).map((_, i) => (i * 37 + mark * 91) & 255),
    slotPriority: null,
    changedAt: null,
  }));
  let spent = 0;
  for (let frame = 0; frame < FRAMES; frame += 1) {
    const { values } = sources[frame % SOURCES];
    const from = (frame * 13) % (513 - changing);
    for (let slot = from; slot < from + changing; slot += 1) values[slot] = (values[slot] + 7) & 255;
    const begun = performance.now();
    merge(sources);
    spent += performance.now() - begun;
  }
  return (spent * 1000) / FRAMES;
}

async function mergeFigures({ Merger }) {
  const values = new Uint8Array(512);
  const owners = new Uint8Array(512);
  const plain = (sources) => plainMerge(sources, values, owners);
  const lines = [];
  for (const changing of [FADING, 512]) {
    const rounds = Array.from({ length: 5 }, () => {
      const merger = new Merger();
      return { plain: timed(changing, plain), ours: timed(changing, (sources) => merger.merge(sources, 'htp')) };
    });
    const ours = median(rounds.map((one) => one.ours));
    const bare = median(rounds.map((one) => one.plain));
    lines.push(
      `merge of ${SOURCES} sources with owner, ${changing} slots of one changing: plain loop ${bare.toFixed(2)} µs, ours ${ours.toFixed(2)} µs: ${ratio(bare, ours)} times as quick (at least 2: ${verdict(bare / ours >= 2)})`,
    );
  }
  return lines;
}

/** Sends all universes at a steady pace to `port`; the witness counts what comes of this round and how late. */
async function relayed(port, witness, round) {
  const socket = createSocket('udp4');
  await new Promise((done) => socket.bind(0, '127.0.0.1', done));
  const packets = Array.from({ length: ROUTES }, (_, i) => packet(i + 1));
  const times = new Float64Array(ROUTES * RATE * (LASTS_MS / 1000 + 4));
  const seen = new Set();
  const delays = [];
  witness.removeAllListeners('message');
  witness.on('message', (bytes) => {
    const count = bytes.readUInt32BE(SLOTS_AT);
    // What a route repeats belongs to the round before.
    if (count === 0 || seen.has(count) || bytes.readUInt32BE(SLOTS_AT + 4) !== round) return;
    seen.add(count);
    delays.push(performance.now() - times[count]);
  });
  let sent = 0;
  const ticks = stolen();
  await steadily(ROUTES * RATE, LASTS_MS, () => {
    const bytes = packets[sent % ROUTES];
    sent += 1;
    bytes[111] = Math.ceil(sent / ROUTES) & 0xff;
    bytes.writeUInt32BE(sent, SLOTS_AT);
    bytes.writeUInt32BE(round, SLOTS_AT + 4);
    times[sent] = performance.now();
    socket.send(bytes, port, '127.0.0.1');
  });
  await wait(1000);
  socket.close();
  return { sent, lost: sent - seen.size, delay: median(delays), stolen: stolen(ticks) };
}

const post = async (path, given) => {
  const response = await fetch(base + path, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(given),
  });
  if (!response.ok) throw new Error((await response.json()).detail);
  return response.json();
};

async function routerFigures({ PLAIN_INPUT, PLAIN_ROUTE }) {
  const witness = createSocket({ type: 'udp4', reuseAddr: true });
  await new Promise((done) => witness.bind(ports.sacn, WITNESS, done));
  enlarge(witness);
  const relay = fork(join(here, 'bareRelay.mjs'), [String(RELAY_PORT), WITNESS, String(ports.sacn)], {
    stdio: ['ignore', 'pipe', 'inherit', 'ipc'],
  });
  await new Promise((ready) => relay.stdout.once('data', ready));
  const server = await startServer(undefined, ['--empty']);
  const routes = Array.from({ length: ROUTES }, (_, i) => ({
    ...PLAIN_ROUTE,
    id: `r${i}`,
    rev: 0,
    name: `Route ${i + 1}`,
    order: i,
    inputs: [{ ...PLAIN_INPUT, wire: { protocol: 'sacn', number: i + 1 } }],
    out: { protocol: 'sacn', number: 1001 + i },
    delivery: 'unicast',
    addresses: [WITNESS],
  }));
  await post('/api/edits', {
    author: 'Measuring',
    sentence: 'Planned routes',
    changes: routes.map((after) => ({ kind: 'route', id: after.id, rev: null, after })),
  });
  await post('/api/output/hot', { hot: true, by: 'Measuring' });
  await post('/api/routes/run', { ids: routes.map(({ id }) => id), on: true, by: 'Measuring' });
  await wait(5000);
  const rounds = [];
  for (let i = 0; i < 3; i += 1)
    rounds.push({
      bare: await relayed(RELAY_PORT, witness, 2 * i),
      ours: await relayed(ports.sacn, witness, 2 * i + 1),
    });
  relay.kill();
  witness.close();
  await server.stop();
  const added = median(rounds.map(({ bare, ours }) => ours.delay - bare.delay));
  const said = ({ sent, lost, delay, stolen: share }) =>
    `sent ${sent}, lost ${lost}, median delay ${delay.toFixed(2)} ms (${(share * 100).toFixed(1)} % of the computer stolen)`;
  return [
    `${ROUTES} universes × ${RATE} Hz through the router for ${LASTS_MS / 1000} s: added delay, median, ${added.toFixed(2)} ms (at most 3: ${verdict(added <= 3)}); none lost: ${noneLost(rounds)}`,
    ...rounds.flatMap(({ bare, ours }) => [`  bare relay: ${said(bare)}`, `  router:     ${said(ours)}`]),
  ];
}

export async function measure() {
  const words = await core('merge', 'show');
  return [...(await mergeFigures(words)), ...(await routerFigures(words))];
}
