/** Merge and router: four sources beside a plain loop, and 256 universes sent on beside a bare relay. */
import { createSocket, type Socket } from 'node:dgram';
import { Merger, type Contender } from '@taxiarch/core/signal/merge';
import { PLAIN_INPUT, PLAIN_ROUTE } from '@taxiarch/core/show/records';
import { median, noneLost, stolen, ticks, wait, type Extent, type Figure, type Round } from './figure';
import { SLOTS_AT, enlarge, packet, steadily } from './programs/steady';
import { add, ports, post, withProgram, withServer } from './server';

const SOURCES = 4;
/** Slots of a source that change from one frame to the next while a cue fades. */
const FADING = 64;
const ROUTES = 256;
const RATE = 44;
const WITNESS = '127.0.0.78';
const RELAY_PORT = 37_100;

/** The merge as one would write it down: every slot of every source, every time. */
function plainMerge(sources: readonly Contender[], values: Uint8Array, owners: Uint8Array): void {
  for (let slot = 0; slot < 512; slot += 1) {
    let best = -1;
    let owner = 255;
    for (let i = 0; i < sources.length; i += 1) {
      const level = sources[i]!.values[slot]!;
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
function timed(changing: number, rounds: number, merge: (sources: readonly Contender[]) => void): number {
  const sources = Array.from({ length: SOURCES }, (_, mark): Contender => ({
    mark,
    priority: 100,
    count: 512,
    values: new Uint8Array(512).map((_, i) => (i * 37 + mark * 91) & 255),
    slotPriority: null,
    changedAt: null,
  }));
  let spent = 0;
  for (let frame = 0; frame < rounds; frame += 1) {
    const { values } = sources[frame % SOURCES]!;
    const from = (frame * 13) % (513 - changing);
    for (let slot = from; slot < from + changing; slot += 1) values[slot] = (values[slot]! + 7) & 255;
    const begun = performance.now();
    merge(sources);
    spent += performance.now() - begun;
  }
  return (spent * 1000) / rounds;
}

function mergeFigures(extent: Extent): Figure[] {
  const values = new Uint8Array(512);
  const owners = new Uint8Array(512);
  const plain = (sources: readonly Contender[]) => plainMerge(sources, values, owners);
  const frames = extent.of(40_000, 2000);
  return [FADING, 512].map((changing) => {
    const rounds = Array.from({ length: extent.of(5, 1) }, () => {
      const merger = new Merger();
      return {
        plain: timed(changing, frames, plain),
        ours: timed(changing, frames, (sources) => void merger.merge(sources, 'htp')),
      };
    });
    const ours = median(rounds.map((one) => one.ours));
    const bare = median(rounds.map((one) => one.plain));
    return {
      figure: `merge of ${SOURCES} sources with owner, ${changing} slots of one changing, beside a plain loop`,
      asked: 'at least 2 × as quick',
      seen: `${(bare / ours).toFixed(1)} × (${ours.toFixed(1)} µs beside ${bare.toFixed(1)} µs)`,
      met: bare / ours >= 2,
    };
  });
}

type Relayed = Round & { readonly delay: number };

/** Sends all universes at a steady pace to `port`; the witness counts what comes of this round and how late. */
async function relayed(port: number, witness: Socket, round: number, lasting: number): Promise<Relayed> {
  const socket = createSocket('udp4');
  await new Promise<void>((done) => socket.bind(0, '127.0.0.1', done));
  const packets = Array.from({ length: ROUTES }, (_, i) => packet(i + 1));
  const times = new Float64Array(ROUTES * RATE * (lasting / 1000 + 4));
  const seen = new Set<number>();
  const delays: number[] = [];
  witness.removeAllListeners('message');
  witness.on('message', (bytes) => {
    const count = bytes.readUInt32BE(SLOTS_AT);
    // What a route repeats belongs to the round before.
    if (count === 0 || seen.has(count) || bytes.readUInt32BE(SLOTS_AT + 4) !== round) return;
    seen.add(count);
    delays.push(performance.now() - times[count]!);
  });
  let sent = 0;
  const began = ticks();
  await steadily(ROUTES * RATE, lasting, () => {
    const bytes = packets[sent % ROUTES]!;
    sent += 1;
    bytes[111] = Math.ceil(sent / ROUTES) & 0xff;
    bytes.writeUInt32BE(sent, SLOTS_AT);
    bytes.writeUInt32BE(round, SLOTS_AT + 4);
    times[sent] = performance.now();
    socket.send(bytes, port, '127.0.0.1');
  });
  await wait(1000);
  socket.close();
  return { sent, lost: sent - seen.size, delay: median(delays), stolen: stolen(began) };
}

const ROUTED = Array.from({ length: ROUTES }, (_, i) => ({
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

async function routerFigures(extent: Extent): Promise<Figure[]> {
  const witness = createSocket({ type: 'udp4', reuseAddr: true });
  await new Promise<void>((done) => witness.bind(ports.sacn, WITNESS, done));
  enlarge(witness);
  const lasting = extent.of(10_000, 500);
  const rounds = await withProgram('bareRelay', [RELAY_PORT, WITNESS, ports.sacn], () =>
    withServer(['--empty'], async () => {
      const by = 'Measuring';
      await post('/api/edits', { author: by, sentence: 'Planned routes', changes: add('route', ROUTED) });
      await post('/api/output/hot', { hot: true, by });
      await post('/api/routes/run', { ids: ROUTED.map(({ id }) => id), on: true, by });
      await wait(extent.of(5000, 500));
      const all: { bare: Relayed; ours: Relayed }[] = [];
      for (let i = 0; i < extent.of(3, 1); i += 1)
        all.push({
          bare: await relayed(RELAY_PORT, witness, 2 * i, lasting),
          ours: await relayed(ports.sacn, witness, 2 * i + 1, lasting),
        });
      return all;
    }),
  ).finally(() => witness.close());
  const added = median(rounds.map(({ bare, ours }) => ours.delay - bare.delay));
  return [
    {
      figure: `${ROUTES} universes × ${RATE} Hz through the router, delay added beside a bare relay`,
      asked: 'at most 3 ms, median',
      seen: `${added.toFixed(2)} ms`,
      met: added <= 3,
    },
    { figure: 'the same, packets lost', asked: 'none', ...noneLost(rounds) },
  ];
}

export const measure = async (extent: Extent): Promise<Figure[]> => [
  ...mergeFigures(extent),
  ...(await routerFigures(extent)),
];
