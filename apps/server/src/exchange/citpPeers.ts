/** Programs that speak CITP: found by multicast, joined by TCP; their patch and their selection as they say them. */
import { createSocket, type Socket as UdpSocket } from 'node:dgram';
import { connect, createServer, type Server, type Socket } from 'node:net';
import type { CitpReply } from '@taxiarch/core/whole/contract';
import {
  Citp,
  CitpPeer,
  CitpReader,
  decodeCitp,
  encodeCitp,
  type CitpFixture,
  type CitpMessage,
} from '@taxiarch/core/protocol/citp';
import { type InterfaceInfo, isNear } from '@taxiarch/core/network/ip';
import { ok, refuse, type Result } from '@taxiarch/core/base/result';
import { CONNECT_MS, Doorkeeper, whyNot } from './bounds';
import { pour } from './pour';

const TELL_MS = 1000;
/** Who has not told of itself for so long, and is not connected, is gone, ms. */
const GONE_MS = 10_000;
const KEEP_ALIVE_MS = 1000;
const AGAIN_MS = 5000;
/** A peer that was asked for its patch and sends no more of it is through, or has none, ms. */
const PATCH_QUIET_MS = 1500;
const MOST_PEERS = 50;

interface Known {
  readonly id: string;
  readonly address: string;
  port: number;
  type: string;
  state: string;
  seenAt: number;
  peer: CitpPeer;
  socket: Socket | undefined;
  connecting: boolean;
  triedAt: number;
  trouble: string;
  patchAt: number;
  selectedAt: number;
}

export interface AskedPatch {
  readonly name: string;
  readonly fixtures: readonly CitpFixture[];
  /** The row came to its end; otherwise it only fell silent */
  readonly whole: boolean;
}

export interface CitpSetup {
  readonly name: string;
  readonly iface: InterfaceInfo;
  readonly port: number;
  /** The show's lamps as CITP tells them, for whoever asks */
  readonly patch: () => Promise<readonly CitpFixture[]>;
  /** Whether others may select lamps here and be told what is selected here */
  readonly selects: () => boolean;
}

export class CitpPeers {
  private readonly known = new Map<string, Known>();
  private readonly door = new Doorkeeper();
  private readonly guests = new Set<Socket>();
  private readonly timers: NodeJS.Timeout[] = [];
  private udp: UdpSocket | undefined;
  private server: Server | undefined;
  private trouble = '';
  /** Lamps chosen here, as they were last told */
  private chosen: readonly number[] = [];

  constructor(private readonly setup: CitpSetup) {}

  async start(): Promise<void> {
    const { iface, port } = this.setup;
    this.server = createServer((socket) => this.guest(socket));
    await new Promise<void>((ready, failed) => {
      this.server!.once('error', failed);
      this.server!.listen(0, iface.address, ready);
    });
    const udp = createSocket({ type: 'udp4', reuseAddr: true });
    this.udp = udp;
    udp.on('error', (error) => (this.trouble = `Programs cannot be found by this interface: ${error.message}.`));
    udp.on('message', (bytes, { address }) => this.heard(new Uint8Array(bytes), address));
    udp.bind(port, '0.0.0.0', () => {
      try {
        udp.setMulticastInterface(iface.address);
        udp.setMulticastLoopback(true);
        for (const group of Citp.GROUPS) udp.addMembership(group, iface.address);
      } catch (error) {
        this.trouble = `Programs cannot be found by this interface: ${(error as Error).message}.`;
      }
      this.tell();
      this.timers.push(setInterval(() => this.tell(), TELL_MS));
    });
  }

  /** TCP port on which others may connect */
  get port(): number {
    const at = this.server?.address();
    return typeof at === 'object' && at !== null ? at.port : 0;
  }

  private tell(): void {
    const now = Date.now();
    const here = encodeCitp({ kind: 'PLoc', port: this.port, type: 'Unknown', name: this.setup.name, state: '' });
    for (const group of Citp.GROUPS) this.udp?.send(here, this.setup.port, group, () => undefined);
    for (const one of this.known.values()) {
      const silent = now - one.seenAt > GONE_MS;
      // Whoever tells of itself every second and has fallen silent is gone, also where its cable was pulled and nobody
      // closed the connection.
      if (silent && one.socket && one.port > 0) {
        one.trouble = `${one.peer.name} has been silent for ${GONE_MS / 1000} s.`;
        one.socket.destroy();
        one.socket = undefined;
      } else if (silent && !one.socket) this.known.delete(one.id);
      else if (!one.socket && !one.connecting && one.port > 0 && now - one.triedAt > AGAIN_MS) this.connect(one);
    }
  }

  private get(address: string, name: string): Known | undefined {
    const id = `${address} ${name}`;
    const found = this.known.get(id);
    if (found || this.known.size >= MOST_PEERS) return found;
    const peer = new CitpPeer();
    peer.name = name;
    const nothing = { port: 0, type: '', state: '', trouble: '', triedAt: 0, patchAt: 0, selectedAt: 0 };
    const made: Known = { id, address, ...nothing, seenAt: Date.now(), peer, socket: undefined, connecting: false };
    this.known.set(id, made);
    return made;
  }

  private heard(bytes: Uint8Array, from: string): void {
    const message = decodeCitp(bytes);
    if (!message.ok || message.value?.kind !== 'PLoc') return;
    const { port, type, name, state } = message.value;
    // Our own words come back to us.
    if (port === this.port && name === this.setup.name) return;
    if (!isNear(from, this.setup.iface)) return;
    const one = this.get(from, name);
    if (!one) return;
    Object.assign(one, { port, type, state, seenAt: Date.now() });
  }

  private connect(one: Known): void {
    one.connecting = true;
    one.triedAt = Date.now();
    const socket = connect({ host: one.address, port: one.port, localAddress: this.setup.iface.address });
    const patience = setTimeout(() => socket.destroy(new Error('it does not take connections')), CONNECT_MS);
    socket.on('connect', () => {
      clearTimeout(patience);
      one.connecting = false;
      one.trouble = '';
      this.join(one, socket);
    });
    socket.on('error', (error) => (one.trouble = whyNot(error, one.peer.name)));
    socket.on('close', () => {
      clearTimeout(patience);
      one.connecting = false;
    });
    this.read(socket, () => one);
  }

  /** Somebody connects to us; who it is its PNam says. */
  private guest(socket: Socket): void {
    const from = socket.remoteAddress ?? '';
    if (!this.door.admit(from)) return void socket.destroy();
    this.guests.add(socket);
    let one: Known | undefined;
    socket.on('error', () => undefined);
    socket.on('close', () => {
      this.door.leave(from);
      this.guests.delete(socket);
    });
    // Who connects and says nothing is not waited for.
    socket.setTimeout(CONNECT_MS, () => one ?? socket.destroy());
    this.read(socket, (message) => {
      if (message.kind === 'PNam' && !one) {
        one = this.get(from, message.name);
        if (one && !one.socket) this.join(one, socket);
      }
      return one;
    });
  }

  private join(one: Known, socket: Socket): void {
    one.socket = socket;
    // One that tells nothing of itself is asked by the system whether it is there.
    socket.setKeepAlive(true, KEEP_ALIVE_MS);
    socket.write(encodeCitp({ kind: 'PNam', name: this.setup.name }));
    socket.on('close', () => {
      if (one.socket === socket) one.socket = undefined;
    });
    socket.write(encodeCitp({ kind: 'SPtc', numbers: [] }));
    if (this.setup.selects() && this.chosen.length > 0)
      socket.write(encodeCitp({ kind: 'Sele', whole: true, numbers: this.chosen }));
  }

  private read(socket: Socket, who: (message: CitpMessage) => Known | undefined): void {
    const reader = new CitpReader();
    socket.on('data', (bytes: Buffer) => {
      const read = reader.push(new Uint8Array(bytes));
      if (!read.ok) return void socket.destroy();
      for (const message of read.value) {
        const one = who(message);
        if (one) this.take(one, socket, message);
      }
    });
  }

  private take(one: Known, socket: Socket, message: CitpMessage): void {
    one.seenAt = Date.now();
    if (message.kind === 'SPtc') return void this.sendPatch(socket, message.numbers);
    const selects = message.kind === 'Sele' || message.kind === 'DeSe';
    // What others select here needs a person's consent.
    if (selects && !this.setup.selects()) return;
    // Its name in the picture is the one by which it was found.
    if (message.kind === 'PNam' || !one.peer.hear(message)) return;
    if (selects) one.selectedAt = Date.now();
    else one.patchAt = Date.now();
  }

  /** Connections to which a patch is under way: whoever asks again meanwhile gets that one */
  private readonly answering = new WeakSet<Socket>();

  private async sendPatch(socket: Socket, numbers: readonly number[]): Promise<number> {
    if (this.answering.has(socket)) return 0;
    this.answering.add(socket);
    try {
      return await this.sendRow(socket, numbers);
    } finally {
      this.answering.delete(socket);
    }
  }

  private async sendRow(socket: Socket, numbers: readonly number[]): Promise<number> {
    const row = CitpPeer.row(await this.setup.patch(), numbers);
    return (await pour(socket, row.map(encodeCitp))) ? row.length : 0;
  }

  private linked(id: string): Result<Known & { readonly socket: Socket }> {
    const one = this.known.get(id);
    if (!one) return refuse('not-found', 'This program is not here any more.');
    return one.socket
      ? ok(one as Known & { readonly socket: Socket })
      : refuse('not-possible', `${one.peer.name} is not connected. ${one.trouble}`.trim());
  }

  /** Asks a program for its patch; resolves when the row has ended or nothing more comes. */
  async askPatch(id: string): Promise<Result<AskedPatch>> {
    const one = this.linked(id);
    if (!one.ok) return one;
    const { peer, socket } = one.value;
    const known = this.known.get(id)!;
    peer.patch.clear();
    peer.patchWhole = false;
    socket.write(encodeCitp({ kind: 'SPtc', numbers: [] }));
    const begun = Date.now();
    known.patchAt = begun;
    while (!peer.patchWhole && Date.now() - known.patchAt < PATCH_QUIET_MS && known.socket === socket)
      await new Promise((go) => setTimeout(go, 20));
    if (peer.patch.size === 0) return refuse('not-possible', `${peer.name} sent no patch. Nothing was changed.`);
    if (known.socket !== socket && !peer.patchWhole)
      return refuse('not-possible', `${peer.name} went after ${peer.patch.size} lamps. Nothing was changed.`);
    return ok({ name: peer.name, fixtures: [...peer.patch.values()], whole: peer.patchWhole });
  }

  /** Sends the show's patch; resolves with the number of lamps told. */
  async givePatch(id: string): Promise<Result<number>> {
    const one = this.linked(id);
    if (!one.ok) return one;
    one.value.socket.write(encodeCitp({ kind: 'UPtc', numbers: [] }));
    return ok(await this.sendRow(one.value.socket, []));
  }

  /** Selects lamps in all programs that are connected; their names. */
  select(numbers: readonly number[]): Result<string[]> {
    if (!this.setup.selects())
      return refuse('not-possible', 'Selecting together is off. Switch it on first, on the page Exchange.');
    this.chosen = numbers.filter((number) => number >= 1 && number <= Citp.LAST_NUMBER);
    const linked = [...this.known.values()].filter((one) => one.socket);
    for (const { socket } of linked)
      socket!.write(
        encodeCitp(
          this.chosen.length === 0
            ? { kind: 'DeSe', numbers: [] }
            : { kind: 'Sele', whole: true, numbers: this.chosen },
        ),
      );
    return ok(linked.map(({ peer }) => peer.name));
  }

  /** `differs` names the lamps of a patch that the show has otherwise. */
  report(differs: (patch: ReadonlyMap<number, CitpFixture>) => number[]): CitpReply {
    return {
      trouble: this.trouble,
      chosen: [...this.chosen],
      peers: [...this.known.values()].map((one) => ({
        id: one.id,
        name: one.peer.name,
        type: one.type,
        state: one.state,
        address: one.address,
        linked: one.socket !== undefined,
        trouble: one.trouble,
        lamps: one.peer.patch.size,
        whole: one.peer.patchWhole,
        patchAt: one.patchAt,
        differ: one.peer.patchWhole ? differs(one.peer.patch) : [],
        selected: [...one.peer.selected],
        selectedAt: one.selectedAt,
      })),
    };
  }

  end(): void {
    for (const timer of this.timers) clearInterval(timer);
    this.udp?.close();
    this.server?.close();
    for (const socket of this.guests) socket.destroy();
    for (const { socket } of this.known.values()) socket?.destroy();
    this.known.clear();
  }
}
