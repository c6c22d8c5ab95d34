/** A stand-in as a station of MVR-xchange: announced by mDNS, reached by TCP; what is committed to it, it takes. */
import { randomUUID } from 'node:crypto';
import { connect, createServer, type Server, type Socket } from 'node:net';
import multicastDns, { type ResponsePacket } from 'multicast-dns';
import {
  encodeFile,
  encodeJson,
  groupOf,
  PackageReader,
  readMessage,
  recordsOf,
  type ServiceRecord,
  Sightings,
  Station,
  writeMessage,
  Xchange,
  type Commit,
  type Message,
} from '@taxiarch/core/protocol/xchange';
import type { HeldRig } from './heldRig';

const LOOPBACK = '127.0.0.1';

export interface StationSetup {
  readonly stationId: string;
  readonly name: string;
  readonly provider: string;
  readonly address: string;
  readonly mdnsPort: number;
}

export class StationBox {
  private readonly station: Station;
  private port = 0;
  private mdns: ReturnType<typeof multicastDns> | undefined;
  private server: Server | undefined;
  private on = true;
  /** For tests: it goes away after so many bytes of a file */
  vanishesAfter = Infinity;

  constructor(
    private readonly setup: StationSetup,
    private readonly rig: HeldRig,
  ) {
    this.station = new Station(setup);
  }

  async start(): Promise<void> {
    const server = createServer((socket) => this.serve(socket));
    this.server = server;
    await new Promise<void>((ready, failed) => {
      server.once('error', failed);
      server.listen(0, this.setup.address, ready);
    });
    this.port = (server.address() as { port: number }).port;
    this.commit(this.rig.origin.comment);
    const mdns = multicastDns({ interface: LOOPBACK, bind: '0.0.0.0', port: this.setup.mdnsPort, loopback: true });
    this.mdns = mdns;
    mdns.on('error', () => undefined);
    mdns.on('query', ({ questions }) => {
      if (this.on && questions.some(({ name }) => groupOf(name) !== undefined)) this.announce();
    });
    mdns.on('ready', () => this.announce());
  }

  private announce(ttl?: number): void {
    const { name, stationId, address } = this.setup;
    const group = Xchange.DEFAULT_GROUP;
    this.mdns?.respond(recordsOf({ name, stationId, group, address, port: this.port }, ttl));
  }

  private serve(socket: Socket): void {
    const reader = new PackageReader();
    const from = { address: socket.remoteAddress ?? '', port: 0 };
    socket.on('error', () => undefined);
    socket.on('data', (bytes: Buffer) => {
      const read = reader.push(new Uint8Array(bytes));
      if (!read.ok) return void socket.destroy();
      for (const one of read.value) {
        const message = one.kind === 'json' ? readMessage(one.text) : undefined;
        if (!message?.ok) return void socket.destroy();
        const { message: answer, file, fresh } = this.station.hear(message.value, from, Date.now());
        if (file) this.send(socket, file);
        else if (answer) socket.write(encodeJson(writeMessage(answer)));
        for (const commit of fresh ?? []) void this.take(commit);
      }
    });
  }

  private send(socket: Socket, file: Uint8Array): void {
    const whole = Buffer.concat(encodeFile(file));
    socket.write(whole.subarray(0, this.vanishesAfter), () => {
      if (this.vanishesAfter < whole.length) socket.destroy();
    });
  }

  /** Where another station listens, as mDNS tells it now. */
  private find(stationId: string): Promise<{ host: string; port: number } | undefined> {
    return new Promise((done) => {
      const sightings = new Sightings();
      const end = (found?: { host: string; port: number }) => {
        clearTimeout(late);
        this.mdns?.off('response', look);
        done(found);
      };
      const look = ({ answers, additionals }: ResponsePacket, { address }: { address: string }) => {
        const { found } = sightings.hear([...answers, ...additionals] as ServiceRecord[], address);
        const one = found.find((other) => other.stationId === stationId);
        if (one) end({ host: one.address, port: one.port });
      };
      const late = setTimeout(() => end(), 3000);
      this.mdns?.on('response', look);
      this.mdns?.query(Xchange.SERVICE, 'PTR');
    });
  }

  /** Fetches what was committed and takes it over. */
  private async take(commit: Commit): Promise<void> {
    const at = await this.find(commit.stationId);
    if (!at) return;
    const reader = new PackageReader();
    const socket = connect({ ...at, localAddress: this.setup.address });
    socket.on('error', () => undefined);
    socket.on('connect', () =>
      socket.write(encodeJson(writeMessage({ type: 'request', fileId: commit.fileId, fromIds: [commit.stationId] }))),
    );
    socket.on('data', (bytes: Buffer) => {
      const read = reader.push(new Uint8Array(bytes));
      const file = read.ok ? read.value.find(({ kind }) => kind === 'file') : undefined;
      if (file?.kind === 'file') {
        const from = this.station.find(commit.stationId)?.name ?? '';
        this.rig.take(file.bytes, { from, comment: commit.comment });
      }
      if (!read.ok || file) socket.destroy();
    });
  }

  /** Offers its rig as it is now to all who joined it. */
  commit(comment: string): void {
    const message = this.station.offer(
      { fileId: randomUUID(), forIds: [], comment, fileName: `${this.setup.name}.mvr` },
      this.rig.bytes(),
      Date.now(),
    );
    for (const other of this.station.list()) void this.tell(other.stationId, message);
  }

  private async tell(stationId: string, message: Message): Promise<void> {
    const at = await this.find(stationId);
    if (!at) return;
    const socket = connect({ ...at, localAddress: this.setup.address });
    socket.on('error', () => undefined);
    socket.on('connect', () => socket.write(encodeJson(writeMessage(message))));
    socket.on('data', () => socket.destroy());
  }

  run(on: boolean): void {
    this.on = on;
    this.announce(on ? undefined : 0);
  }

  end(): void {
    this.server?.close();
    this.mdns?.destroy();
  }

  report() {
    return { joined: this.station.list().map(({ name }) => name), ...this.rig.origin, lamps: this.rig.lamps().length };
  }
}
