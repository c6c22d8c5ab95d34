/** Taxiarch's listening half as its server puts it together, in one thread: receiver, engine, reports, and questions. */
import { EventEmitter } from 'node:events';
import type { MessagePort } from 'node:worker_threads';
import { initialOf } from '@taxiarch/core/base/field';
import type { InterfaceInfo } from '@taxiarch/core/network/ip';
import { rigOf } from '@taxiarch/core/rig/patch';
import type { ShowRecords } from '@taxiarch/core/show/records';
import { settings as settingsShape, type LiveReport, type Settings } from '@taxiarch/core/whole/contract';
import type { FromEngine } from '../../apps/server/src/bridge/engineMessages';
import { Notices } from '../../apps/server/src/bridge/notices';
import { orderOf, planOf } from '../../apps/server/src/bridge/plan';
import type { EngineToReceiver, PlainError, ReceiverToEngine } from '../../apps/server/src/bridge/receiverMessages';
import { Reporting } from '../../apps/server/src/bridge/reporting';
import { PacketRing, addressBits } from '../../apps/server/src/bridge/ring';
import { SharedLevels } from '../../apps/server/src/bridge/shared';
import { Engine } from '../../apps/server/src/engine/engine';
import { carryOut } from '../../apps/server/src/engine/orders';
import { answer, type Answers, type Asked, type Question } from '../../apps/server/src/findings/answer';
import { Receiver } from '../../apps/server/src/receive/receiver';

const RING_BYTES = 1 << 20;
const LOOPBACK: InterfaceInfo = {
  name: 'lo',
  address: '127.0.0.1',
  netmask: '255.0.0.0',
  mac: '00:00:00:00:00:00',
  loopback: true,
  medium: 'loopback',
  up: true,
};

/** One end of a channel between two that are in one thread. */
class Port extends EventEmitter {
  other: Port = this;

  postMessage(message: unknown): void {
    queueMicrotask(() => this.other.emit('message', message));
  }
  close(): void {}
}

function channel(): readonly [Port, Port] {
  const ends = [new Port(), new Port()] as const;
  [ends[0].other, ends[1].other] = [ends[1], ends[0]];
  return ends;
}

const plain = (error: NodeJS.ErrnoException): PlainError => ({ message: error.message, code: error.code });

/** The receiving thread: what comes goes into the ring. */
async function receive(ring: PacketRing, port: Port, ports: { sacn: number; artnet: number }): Promise<void> {
  const tell = (message: ReceiverToEngine) => port.postMessage(message);
  const receiver = new Receiver(ports, {
    packet(bytes, protocol, via, address, from) {
      if (ring.write(bytes, protocol, via, addressBits(address), from, performance.now())) tell({ type: 'packets' });
    },
    trouble: (error) => tell({ type: 'trouble', error: plain(error) }),
    joined: (state) => tell({ type: 'joined', state }),
    joinedBySixth: (joined) => tell({ type: 'joinedBySixth', joined }),
  });
  port.on('message', (message: EngineToReceiver) => {
    if (message.type === 'join') void receiver.join(message.universes);
    else if (message.type === 'send') receiver.sendFromArtNetPort(message.bytes, message.address);
    else void receiver.use(message.next).then(() => tell({ type: 'done', ask: message.ask, error: undefined }));
  });
  await receiver.open();
}

export class Listener {
  private readonly reporting: Reporting;
  private readonly engine: Engine;
  private show: Asked;

  private constructor(
    records: ShowRecords,
    private readonly settings: Settings,
    port: Port,
    ring: SharedArrayBuffer,
    ports: { sacn: number; artnet: number },
  ) {
    const beside = { plan: () => planOf(this.show.records), settings: () => settings, plugs: () => [] };
    const nobody = { onSafe() {}, onReport() {}, onRunning() {}, onSending() {} };
    this.show = { records, patch: rigOf(records).patch };
    this.reporting = new Reporting(beside, nobody, new Notices());
    const setup = {
      memory: new SharedLevels().memory,
      ring,
      receiver: port as unknown as MessagePort,
      cid: new Uint8Array(16).fill(0x77),
      ports,
      settings,
    };
    this.engine = new Engine(
      setup,
      (message) => this.hear(message),
      () => [LOOPBACK],
    );
  }

  static async open(records: ShowRecords, ports: { sacn: number; artnet: number }): Promise<Listener> {
    const [here, there] = channel();
    const ring = PacketRing.memory(RING_BYTES);
    await receive(new PacketRing(ring), there, ports);
    const listener = new Listener(records, initialOf(settingsShape.fields), here, ring, ports);
    await listener.engine.start(true);
    listener.plan(records);
    return listener;
  }

  private hear(message: FromEngine): void {
    if (message.type === 'universes') this.reporting.noteUniverses(message.universes);
    else if (message.type === 'report') this.reporting.note(message.report);
  }

  /** From now on this is the show. */
  plan(records: ShowRecords): void {
    this.show = { records, patch: rigOf(records).patch };
    carryOut(this.engine, orderOf(planOf(records)));
  }

  get records(): ShowRecords {
    return this.show.records;
  }

  get patch(): Asked['patch'] {
    return this.show.patch;
  }

  live(): LiveReport {
    return this.reporting.now()!;
  }

  ask<Q extends Question>(question: Q): Answers[Q['type']] {
    return answer(question, this.show, this.live());
  }
}
