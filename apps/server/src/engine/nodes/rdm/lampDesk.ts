/** Lamps that are asked through nodes: a queue for each port, and the tables of who hangs there (Art-Net 4, RDM). */
import {
  ArtNet,
  decodeArtRdm,
  encodeArtRdm,
  encodeTodControl,
  encodeTodRequest,
  type ArtTodData,
} from '@taxiarch/core/protocol/artnet';
import { decodeRdm, encodeRdm, Rdm, type Uid } from '@taxiarch/core/protocol/rdm';
import {
  lampPortKey,
  type LampAnswer,
  type LampPort,
  type LampRequest,
  type LampTable,
  type LineUse,
} from '@taxiarch/core/truth/roll';
import { PortQueue } from './portQueue';

export interface DeskWire {
  send(bytes: Uint8Array, address: string): void;
  now(): number;
  /** Part of a port's time, 0–1 */
  share(): number;
}

interface Asked {
  readonly port: LampPort;
  readonly blocks: Map<number, readonly Uid[]>;
  readonly done: (table: LampTable) => void;
  tries: number;
  /** Art-Net tells that a node still searches: it is asked again. */
  until: number;
  timer: NodeJS.Timeout | undefined;
}

const ASK_MS = 400;
const MOST_TRIES = 3;
/** A search of a full line takes some seconds at most. */
const SEARCH_MS = 6000;

export class LampDesk {
  private readonly queues = new Map<string, PortQueue>();
  private readonly asked = new Map<string, Asked[]>();

  constructor(
    private readonly source: Uid,
    private readonly wire: DeskWire,
  ) {}

  private queue(port: LampPort): PortQueue {
    const key = lampPortKey(port);
    const there = this.queues.get(key);
    if (there) return there;
    const { address, portAddress } = port;
    const made = new PortQueue(this.source, {
      send: (packet) =>
        this.wire.send(
          encodeArtRdm({ portAddress, fifoAvailable: 0, fifoMost: 0, packet: encodeRdm(packet).subarray(1) }),
          address,
        ),
      now: this.wire.now,
      share: this.wire.share,
      later: (act, ms) => {
        const timer = setTimeout(act, ms);
        return () => clearTimeout(timer);
      },
    });
    this.queues.set(key, made);
    return made;
  }

  /** Asks one lamp one thing after the other; the answers come in the order of the requests. */
  ask(port: LampPort, requests: readonly LampRequest[], urgent: boolean): Promise<LampAnswer[]> {
    const queue = this.queue(port);
    return Promise.all(requests.map((request) => new Promise<LampAnswer>((done) => queue.add(request, urgent, done))));
  }

  /** Drops what waits at every port. */
  cancel(): void {
    for (const queue of this.queues.values()) queue.cancel();
  }

  /** What asking has cost a port so far. */
  use(port: LampPort): LineUse {
    return this.queue(port).use;
  }

  /** Who hangs on a port; `afresh` has the node search its line anew. */
  table(port: LampPort, afresh: boolean): Promise<LampTable> {
    return new Promise((done) => {
      const asked: Asked = {
        port,
        blocks: new Map(),
        done,
        tries: 0,
        until: this.wire.now() + SEARCH_MS,
        timer: undefined,
      };
      const key = lampPortKey(port);
      this.asked.set(key, [...(this.asked.get(key) ?? []), asked]);
      if (afresh)
        this.wire.send(encodeTodControl({ command: ArtNet.AtcFlush, portAddress: port.portAddress }), port.address);
      this.askTable(asked);
    });
  }

  private askTable(asked: Asked): void {
    const { port } = asked;
    asked.tries += 1;
    this.wire.send(encodeTodRequest([port.portAddress]), port.address);
    asked.timer = setTimeout(() => {
      if (asked.tries < MOST_TRIES) this.askTable(asked);
      else this.settle(asked, { kind: 'silent', uids: [] });
    }, ASK_MS);
  }

  private settle(asked: Asked, table: LampTable): void {
    clearTimeout(asked.timer);
    const key = lampPortKey(asked.port);
    const left = (this.asked.get(key) ?? []).filter((one) => one !== asked);
    if (left.length > 0) this.asked.set(key, left);
    else this.asked.delete(key);
    asked.done(table);
  }

  private noteTable(data: ArtTodData, address: string): void {
    for (const asked of this.asked.get(lampPortKey({ address, portAddress: data.portAddress })) ?? []) {
      if (!data.full) {
        // It searches still, or has no RDM there: asked again until a search would have ended.
        clearTimeout(asked.timer);
        asked.tries = 0;
        if (this.wire.now() >= asked.until) this.settle(asked, { kind: 'off', uids: [] });
        else asked.timer = setTimeout(() => this.askTable(asked), ASK_MS / 2);
        continue;
      }
      asked.blocks.set(data.block, data.uids);
      const uids = [...asked.blocks].sort(([a], [b]) => a - b).flatMap(([, some]) => some);
      if (uids.length >= data.total) this.settle(asked, { kind: 'known', uids });
    }
  }

  /** A packet about RDM; a sentence if it cannot be read. */
  receive(bytes: Uint8Array, address: string): string | undefined {
    const decoded = decodeArtRdm(bytes);
    if (!decoded.ok) return decoded.reason;
    const message = decoded.value;
    if (message.kind === 'todData') this.noteTable(message, address);
    if (message.kind !== 'rdm') return undefined;
    const packet = decodeRdm(Uint8Array.of(Rdm.SC_RDM, ...message.packet));
    if (!packet.ok) return packet.reason;
    this.queues.get(lampPortKey({ address, portAddress: message.portAddress }))?.receive(packet.value);
    return undefined;
  }
}
