/**
 * A stand-in on real sockets and the simulated world say the same, slot by slot: at random how its ports are set, who
 * sends what to it, at which priority, with how many slots and which start code.
 */
import { createSocket, type Socket } from 'node:dgram';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { multicastGroup, type Protocol } from '@taxiarch/core/base/address';
import { encodeDmx } from '@taxiarch/core/protocol/artnet';
import { random } from '@taxiarch/core/truth/fault';
import { MODELS } from '@taxiarch/core/rig/library';
import { Patch } from '@taxiarch/core/rig/patch';
import { emptyShow, type PortMerge, type PortUse } from '@taxiarch/core/show/records';
import { encodeData } from '@taxiarch/core/protocol/sacn';
import { observe, plainStream, type World, type WorldPort, type WorldSender } from '@taxiarch/core/truth/simulate';
import { WhatIf } from '@taxiarch/core/truth/whatif';
import { NodeBox } from './node';
import type { BoxSetup } from './settings';

jest.setTimeout(180_000);

const UDP = { sacn: 17_011, artnet: 17_012, panel: 17_013 };
const ADDRESS = '127.0.0.77';
const PORTS = 4;
const ROUNDS = 16;
/** Packets of each stream, as many as the simulated world hands out */
const PACKETS = 3;
const SENDERS = ['127.0.0.201', '127.0.0.202', '127.0.0.203', '127.0.0.204'];
const model = MODELS.find(({ id }) => id === 'model-tern-rack-8')!;
const FULL = new Uint8Array(512).fill(255);

const setup: BoxSetup = {
  id: 'tried',
  model,
  mac: [2, 0x7f, 0xf9, 0, 0, 1],
  shortName: 'Tried node',
  longName: 'Tried node',
  address: ADDRESS,
  firmware: [1, 0],
  ports: Array.from({ length: PORTS }, (_, i) => ({ wire: i + 1 })),
};

const folder = mkdtempSync(join(tmpdir(), 'taxiarch-node-'));
const node = new NodeBox(setup, UDP, join(folder, 'tried.json'));
const sockets = new Map<string, Socket>();

beforeAll(async () => {
  await node.start();
  for (const address of SENDERS) {
    const socket = createSocket({ type: 'udp4', reuseAddr: true });
    await new Promise<void>((bound) => socket.bind(0, address, bound));
    socket.setMulticastInterface('127.0.0.1');
    sockets.set(address, socket);
  }
});
afterAll(async () => {
  sockets.forEach((socket) => socket.close());
  await node.power(false);
  rmSync(folder, { recursive: true, force: true });
});

interface Stream {
  readonly sender: number;
  readonly protocol: Protocol;
  readonly wire: number;
  readonly priority: number;
  readonly slots: number;
  readonly startCode: number;
}
interface Round {
  readonly ports: readonly WorldPort[];
  readonly streams: readonly Stream[];
}

/** Universes of a round lie in one sub-net, which is the page's. */
function roundOf(number: number): Round {
  const next = random(number);
  const pick = <T>(all: readonly T[]): T => all[Math.floor(next() * all.length)]!;
  const base = number * 16;
  const near = [1, 2, 3].map((low) => base + low);
  const ports = Array.from({ length: PORTS }, (_, i): WorldPort => ({
    number: i + 1,
    use: pick<PortUse>(['out', 'out', 'out', 'off']),
    protocol: pick(model.protocols),
    wire: pick(near),
    merge: pick<PortMerge>(model.merges),
    loss: { kind: 'hold', after: 0, over: 0 },
    start: 'wait',
    fixed: 255,
    look: [],
    disabled: false,
    cable: true,
  }));
  const streams = SENDERS.flatMap((_, sender) =>
    near.flatMap((wire) =>
      (['sacn', 'artnet'] as const).flatMap((protocol): Stream[] =>
        next() < 0.45
          ? []
          : [
              {
                sender,
                protocol,
                wire,
                priority: pick([50, 100, 100, 150]),
                slots: pick([24, 170, 512]),
                startCode: protocol === 'sacn' && next() < 0.15 ? 0x55 : 0,
              },
            ],
      ),
    ),
  );
  return { ports, streams };
}

const worldOf = ({ ports, streams }: Round): World => ({
  senders: SENDERS.map((address, sender): WorldSender => ({
    id: address,
    name: address,
    address,
    cid: address,
    on: true,
    through: null,
    streams: streams
      .filter((one) => one.sender === sender)
      .map(({ protocol, wire, priority, slots, startCode }) =>
        plainStream(
          { protocol, number: wire },
          { priority, slots, startCode, travels: protocol === 'sacn' ? 'multicast' : { to: [ADDRESS] } },
        ),
      ),
  })),
  nodes: [
    {
      id: 'tried',
      name: 'Tried node',
      address: ADDRESS,
      prefix: 8,
      powered: true,
      plugged: true,
      tells: true,
      firmware: '',
      failSafe: '',
      priority: 100,
      doubled: false,
      multicast: true,
      broadcast: true,
      deafTo: [],
      model,
      ports,
    },
  ],
  visualisers: [],
  lamps: [],
  here: { addresses: [], hears: { sacn: true, artnet: true }, lists: null, ragged: false },
});

/** As the simulated world does: every stream once, in the order of the senders, and that again. */
async function send({ streams }: Round): Promise<void> {
  for (let i = 0; i < PACKETS; i += 1)
    for (const { sender, protocol, wire, priority, slots, startCode } of streams) {
      const socket = sockets.get(SENDERS[sender]!)!;
      const levels = FULL.subarray(0, slots);
      const [bytes, port, to] =
        protocol === 'sacn'
          ? [
              encodeData({
                cid: new Uint8Array(16).fill(sender + 1),
                sourceName: SENDERS[sender]!,
                priority,
                syncAddress: 0,
                sequence: i + 1,
                preview: false,
                terminated: false,
                forceSync: false,
                universe: wire,
                startCode,
                slots: levels,
              }),
              UDP.sacn,
              multicastGroup(wire),
            ]
          : [encodeDmx({ sequence: i + 1, physical: 0, portAddress: wire, slots: levels }), UDP.artnet, ADDRESS];
      await new Promise<void>((sent) => socket.send(bytes, port, to, () => sent()));
    }
}

interface Left {
  /** Levels in stretches: `24 at 255, 488 at 0` */
  readonly levels: string;
  readonly sources: readonly string[];
}

/** Levels slot by slot, equal ones in one; nothing leaves where there are none. */
function stretches(levels: ArrayLike<number> | null): string {
  if (levels === null || levels.length === 0) return 'nothing';
  const all: [number, number][] = [];
  for (let i = 0; i < levels.length; i += 1) {
    const last = all.at(-1);
    if (last && last[1] === levels[i]) last[0] += 1;
    else all.push([1, levels[i]!]);
  }
  return all.map(([count, level]) => `${count} at ${level}`).join(', ');
}

/** What leaves each port, and who has a place there. */
async function leaving(): Promise<Left[]> {
  const found = (await (
    await fetch(`http://${ADDRESS}:${UDP.panel}/ports`, { headers: { connection: 'close' } })
  ).json()) as {
    readonly output: readonly number[];
    readonly sources: readonly { readonly address: string }[];
  }[];
  return found.map(({ output, sources }) => ({
    levels: stretches(output),
    sources: sources.map(({ address }) => address).sort(),
  }));
}

function simulated(round: Round): Left[] {
  const { ports } = observe(worldOf(round));
  return round.ports.map(({ number }) => {
    const { levels, port } = ports.get(`tried ${number}`)!;
    return { levels: stretches(levels), sources: port.sources.map(({ address }) => address).sort() };
  });
}

async function eventually(wanted: readonly Left[], patience: number): Promise<Left[]> {
  const end = Date.now() + patience;
  for (;;) {
    const there = await leaving();
    if (JSON.stringify(there) === JSON.stringify(wanted) || Date.now() > end) return there;
  }
}

test.each(Array.from({ length: ROUNDS }, (_, i) => i + 1))('round %s', async (number) => {
  const round = roundOf(number);
  for (const { number: port, wire, use, protocol, merge } of round.ports)
    node.turn({ port, wire, settings: { use, protocol, merge } });
  // It begins anew: nothing of the round before is held, and its groups are joined.
  await node.power(false);
  await node.power(true);
  await send(round);
  const wanted = simulated(round);
  expect(await eventually(wanted, 2000)).toEqual(wanted);
});

/** Two that send one universe, one above the other, and one alone: what each port does when the first falls silent. */
const TIMED: readonly { readonly loss: WorldPort['loss']; readonly wire: number }[] = [
  { wire: 1601, loss: { kind: 'hold', after: 0, over: 0 } },
  { wire: 1601, loss: { kind: 'hold-black', after: 1, over: 0 } },
  { wire: 1601, loss: { kind: 'fade', after: 0, over: 5 } },
  { wire: 1602, loss: { kind: 'hold-black', after: 0, over: 0 } },
];
const timed: Round = {
  ports: TIMED.map(({ wire, loss }, i) => ({
    ...{ number: i + 1, use: 'out', protocol: 'sacn', wire, merge: 'htp', loss, start: 'wait', fixed: 255, look: [] },
    ...{ disabled: false, cable: true },
  })),
  streams: [
    { sender: 0, protocol: 'sacn', wire: 1601, priority: 150, slots: 512, startCode: 0 },
    { sender: 0, protocol: 'sacn', wire: 1602, priority: 150, slots: 512, startCode: 0 },
    { sender: 1, protocol: 'sacn', wire: 1602, priority: 100, slots: 512, startCode: 0 },
  ],
};

/** States one after another, each once. The first moment of a fade looks like holding, and whether it is seen is chance. */
const inTurn = (codes: Iterable<string>): string =>
  [...codes]
    .filter((one, i, all) => one !== all[i - 1])
    .join('')
    .replace('HF', 'F');

test('a desk freezes and comes back: ports hold, go dark, fade and follow the backup as what if says', async () => {
  for (const { number: port, wire, use, protocol, merge, loss } of timed.ports)
    node.turn({ port, wire, settings: { use, protocol, merge, loss } });
  await node.power(false);
  await node.power(true);
  const event = { kind: 'freeze', id: SENDERS[0]!, port: 0, at: 2, lasts: 20, amount: 0 } as const;
  const world = { ...worldOf(timed), lossy: new Map(), darkPlaces: new Set<string>(), unsynced: new Set<string>() };
  const { courses } = new WhatIf(emptyShow(), new Patch([], []), world).play([event], 30);
  const wanted = timed.ports.map(({ number }) => inTurn(courses.get(`tried ${number}`)!.codes));
  expect(wanted).toEqual(['LHL', 'LHDL', 'LFDL', 'LCL']);

  let silent = false;
  let sequence = 0;
  const sending = setInterval(() => {
    sequence = (sequence + 1) & 0xff;
    for (const { sender, wire, priority } of timed.streams) {
      if (silent && sender === 0) continue;
      const bytes = encodeData({
        ...{
          cid: new Uint8Array(16).fill(sender + 1),
          sourceName: SENDERS[sender]!,
          priority,
          syncAddress: 0,
          sequence,
        },
        ...{ preview: false, terminated: false, forceSync: false, universe: wire, startCode: 0 },
        slots: FULL.map(() => 200),
      });
      sockets.get(SENDERS[sender]!)!.send(bytes, UDP.sacn, multicastGroup(wire));
    }
  }, 100);
  const seen = timed.ports.map(() => '');
  const look = async () => {
    const found = (await (
      await fetch(`http://${ADDRESS}:${UDP.panel}/ports`, { headers: { connection: 'close' } })
    ).json()) as { output: number[]; sources: { address: string; priority: number }[] }[];
    found.slice(0, TIMED.length).forEach(({ output, sources }, i) => {
      const level = output[0] ?? -1;
      if (level < 0) return;
      const first = sources.some(({ address }) => address === SENDERS[0]);
      seen[i] += sources.length > 0 ? (first ? 'L' : 'C') : level === 0 ? 'D' : level === 200 ? 'H' : 'F';
    });
    return seen.map(inTurn);
  };
  const untilAll = async (met: (codes: string, i: number) => boolean) => {
    const end = Date.now() + 60_000;
    while (!(await look()).every(met) && Date.now() < end);
  };
  try {
    await untilAll((codes) => codes.endsWith('L'));
    silent = true;
    await untilAll((codes, i) => codes.length === wanted[i]!.length - 1);
    silent = false;
    await untilAll((codes, i) => codes === wanted[i]);
    expect(seen.map(inTurn)).toEqual(wanted);
  } finally {
    clearInterval(sending);
  }
});
