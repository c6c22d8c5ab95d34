/** A stand-in that speaks CITP: it tells its patch to whoever asks, and what is selected in it. */
import type { Socket as UdpSocket } from 'node:dgram';
import { createServer, type Server, type Socket } from 'node:net';
import { Citp, CitpPeer, CitpReader, encodeCitp, type CitpMessage } from '@taxiarch/core/protocol/citp';
import { open } from '../network';
import type { HeldRig } from './heldRig';

export interface CitpSetup {
  readonly name: string;
  readonly type: (typeof Citp.PEER_TYPES)[number];
  readonly address: string;
  readonly port: number;
}

const TELL_MS = 1000;

export class CitpBox {
  private readonly links = new Map<Socket, CitpPeer>();
  private readonly selection = new CitpPeer();
  private tcp = 0;
  private server: Server | undefined;
  private udp: UdpSocket | undefined;
  private telling: NodeJS.Timeout | undefined;
  private on = true;

  constructor(
    private readonly setup: CitpSetup,
    private readonly rig: HeldRig,
  ) {}

  async start(): Promise<void> {
    const { name, type, address, port } = this.setup;
    const server = createServer((socket) => this.serve(socket));
    this.server = server;
    await new Promise<void>((ready, failed) => {
      server.once('error', failed);
      server.listen(0, address, ready);
    });
    this.tcp = (server.address() as { port: number }).port;
    const udp = await open(address, 0);
    this.udp = udp;
    this.telling = setInterval(() => {
      const here = encodeCitp({ kind: 'PLoc', port: this.tcp, type, name, state: 'Running' });
      if (this.on) for (const group of Citp.GROUPS) udp.send(here, port, group);
    }, TELL_MS);
  }

  private serve(socket: Socket): void {
    const reader = new CitpReader();
    const peer = new CitpPeer();
    this.links.set(socket, peer);
    socket.on('error', () => undefined);
    socket.on('close', () => this.links.delete(socket));
    const say = (message: CitpMessage) => socket.write(encodeCitp(message));
    say({ kind: 'PNam', name: this.setup.name });
    socket.on('data', (bytes: Buffer) => {
      const read = reader.push(new Uint8Array(bytes));
      if (!read.ok) return void socket.destroy();
      for (const message of read.value) {
        if (message.kind === 'SPtc') for (const one of CitpPeer.row(this.rig.fixtures(), message.numbers)) say(one);
        else if (message.kind === 'Sele' || message.kind === 'DeSe') this.selection.hear(message);
        else peer.hear(message);
        if (message.kind === 'Ptch' && message.last) this.rig.repatch([...peer.patch.values()], peer.name);
      }
    });
  }

  /** Somebody selects lamps in it. */
  select(numbers: readonly number[]): void {
    const message: CitpMessage = { kind: 'Sele', whole: true, numbers };
    this.selection.hear(message);
    for (const socket of this.links.keys()) socket.write(encodeCitp(message));
  }

  run(on: boolean): void {
    this.on = on;
    if (!on) for (const socket of this.links.keys()) socket.destroy();
  }

  end(): void {
    clearInterval(this.telling);
    this.server?.close();
    this.udp?.close();
    for (const socket of this.links.keys()) socket.destroy();
  }

  report() {
    return { linked: [...this.links.values()].map(({ name }) => name), selected: this.selection.selected };
  }
}
