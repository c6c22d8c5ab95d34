/** A device that nobody planned, made up at random: what it says of itself, what it sends, how, and to whom. */
import { createSocket, type Socket } from 'node:dgram';
import { between, chosen, type Disturbance, type Random } from './ship';
import { artDmxPacket, groupOf, sacnPacket } from './encoder';

/** A universe as it travels. */
export interface Target {
  readonly protocol: 'sacn' | 'artnet';
  readonly number: number;
  /** Where unicast of it goes; empty where nobody is planned to take it */
  readonly nodes: readonly string[];
  readonly planned: boolean;
  /** Its show universe; null where nobody planned it */
  readonly show: number | null;
}

export interface Known {
  readonly name: string;
  readonly cid: string;
}

interface Stranger {
  readonly address: string;
  readonly target: Target;
  readonly name: string;
  readonly cid: Buffer;
  readonly priority: number;
  readonly slots: Uint8Array;
  /** Priorities for its slots; null for none */
  readonly slotPriority: Uint8Array | null;
  readonly startCode: number;
  readonly sequence: 'counts' | 'still' | 'backwards' | 'jumps' | 'doubled';
  readonly rate: number;
  /** Packets sent at once, then nothing until as many are due */
  readonly burst: number;
  readonly options: number;
  readonly syncAddress: number;
  readonly physical: number;
  readonly to: 'all' | 'nodes';
  /** Seconds on and off in turn; 0 for on all the time */
  readonly cycle: number;
  /** What it is, for the report */
  readonly says: string;
}

function prioritiesOf(next: Random, priority: number): Uint8Array {
  const how = next();
  if (how < 0.3) return new Uint8Array(512);
  if (how < 0.6) return new Uint8Array(512).map(() => (next() < 0.5 ? 0 : priority));
  return new Uint8Array(512).map(() => between(next, 0, 200));
}

/** Draws one. `known` are senders that are planned: it may use their names and component ids. */
function drawStranger(next: Random, address: string, targets: readonly Target[], known: readonly Known[]): Stranger {
  const target = chosen(next, targets);
  const like = next() < 0.25 ? chosen(next, known) : undefined;
  const copiesCid = like !== undefined && next() < 0.3;
  const cid = copiesCid
    ? Buffer.from(like.cid.replaceAll('-', ''), 'hex')
    : Buffer.from(Array.from({ length: 16 }, () => between(next, 0, 255)));
  const priority = next() < 0.5 ? 100 : between(next, 0, 200);
  const level = between(next, 1, 255);
  const sacn = target.protocol === 'sacn';
  const startCode = next() < 0.85 ? 0 : chosen(next, [0x17, 0x55, 0xcf, 0xfe]);
  const name = like?.name ?? chosen(next, ['', 'Console', 'Laptop', 'Crew tablet']);
  const slotPriority = sacn && next() < 0.3 ? prioritiesOf(next, priority) : null;
  const sequence: Stranger['sequence'] =
    next() < 0.6 ? 'counts' : chosen(next, ['still', 'backwards', 'jumps', 'doubled']);
  const options = sacn && next() < 0.15 ? chosen(next, [0x80, 0x20, 0xc0]) : 0;
  const syncAddress = sacn && next() < 0.1 ? 7000 : 0;
  const one = {
    ...{ address, target, name, cid, priority, slotPriority, startCode, sequence, options, syncAddress },
    slots: new Uint8Array(next() < 0.6 ? 512 : between(next, 1, 511)).map(() => (next() < 0.5 ? level : 0)),
    rate: between(next, 2, 44),
    burst: next() < 0.15 ? between(next, 5, 30) : 1,
    physical: between(next, 0, 3),
    to: (target.nodes.length > 0 && next() < 0.4 ? 'nodes' : 'all') as Stranger['to'],
    cycle: next() < 0.1 ? between(next, 1, 4) : 0,
  };
  const traits = [
    `${target.protocol} ${target.number}${target.planned ? '' : ' (not planned)'}`,
    `“${name}”${copiesCid ? ' with its CID' : ''}`,
    sacn && `priority ${priority}`,
    slotPriority && `${slotPriority.filter((of) => of > 0).length} slots with a priority`,
    startCode !== 0 && `start code 0x${startCode.toString(16)}`,
    sequence !== 'counts' && `sequence ${sequence}`,
    `${one.rate} a second`,
    one.burst > 1 && `bursts of ${one.burst}`,
    options !== 0 && `options 0x${options.toString(16)}`,
    syncAddress !== 0 && 'synchronised',
    one.slots.length < 512 && `${one.slots.length} slots`,
    one.to === 'nodes' && 'unicast',
    one.cycle > 0 && `${one.cycle} s on and off`,
  ];
  return { ...one, says: traits.filter(Boolean).join(', ') };
}

/** The next number of its packets; Art-Net counts from 1 to 255. */
function stepped(how: Stranger['sequence'], last: number, count: number, sacn: boolean): number {
  const step = { counts: 1, still: 0, backwards: -1, jumps: 1 + (count % 7) * 9, doubled: count % 2 }[how];
  return sacn ? (last + step) & 0xff : ((((last - 1 + step) % 255) + 255) % 255) + 1;
}

/** Sends until it is stopped. */
async function startStranger(
  one: Stranger,
  ports: { readonly sacn: number; readonly artnet: number },
): Promise<() => void> {
  const socket: Socket = createSocket({ type: 'udp4', reuseAddr: true });
  await new Promise<void>((done) => socket.bind(0, one.address, done));
  socket.setMulticastInterface('127.0.0.1');
  socket.setMulticastLoopback(true);
  socket.setBroadcast(true);
  const { target, slots } = one;
  const sacn = target.protocol === 'sacn';
  const to = one.to === 'nodes' ? target.nodes : [sacn ? groupOf(target.number) : '127.255.255.255'];
  let sequence = 40;
  let count = 0;
  const began = performance.now();
  const packet = (startCode: number, values: Uint8Array): Buffer =>
    sacn
      ? sacnPacket({ ...one, universe: target.number, sequence, startCode, slots: values })
      : artDmxPacket({ sequence, physical: one.physical, portAddress: target.number, slots: values });
  const send = (startCode: number, values: Uint8Array): void => {
    sequence = stepped(one.sequence, sequence, count, sacn);
    const bytes = packet(startCode, values);
    for (const where of to) socket.send(bytes, sacn ? ports.sacn : ports.artnet, where);
  };
  const timer = setInterval(
    () => {
      const seconds = (performance.now() - began) / 1000;
      if (one.cycle > 0 && Math.floor(seconds / one.cycle) % 2 === 1) return;
      for (let i = 0; i < one.burst; i += 1) {
        count += 1;
        // Priorities for slots come once a second and share the numbering (E1.31-2018, 6.7.2).
        if (one.slotPriority && count % one.rate === 1) send(0xdd, one.slotPriority);
        send(sacn ? one.startCode : 0, slots);
      }
    },
    (1000 * one.burst) / one.rate,
  );
  return () => {
    clearInterval(timer);
    socket.close();
  };
}

/** Discovery, preview, text and other start codes, universes that nobody planned: nobody planned takes them. */
const isHarmless = ({ target, options, startCode }: Stranger): boolean =>
  !target.planned || (target.protocol === 'sacn' && ((options & 0x80) !== 0 || startCode !== 0));

/** A device that nobody planned, sending from `address`. */
export function strangerAt(
  next: Random,
  address: string,
  targets: readonly Target[],
  known: readonly Known[],
): Disturbance {
  const one = drawStranger(next, address, targets, known);
  return {
    sort: 'stranger',
    says: one.says,
    // Whoever is sent to by unicast alone cannot be told who it is.
    isMeantBy: ({ about, cause }) =>
      (about.kind === 'stream' && about.id === address) || (one.to === 'nodes' && cause === 'unheard-source'),
    harmless: isHarmless(one),
    ...(one.to === 'nodes' && one.target.show !== null && { unheard: one.target.show }),
    begin: ({ ports }) => startStranger(one, ports),
  };
}
