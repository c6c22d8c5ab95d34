/** Senders and witnesses for tests: real sockets on loopback, closed together. */
import { createSocket, type Socket } from 'node:dgram';
import { multicastGroup } from '@taxiarch/core/base/address';
import { encodeData, type SacnData } from '@taxiarch/core/protocol/sacn';
import { udpPorts } from './serverProcess';

const sockets: Socket[] = [];
const running = new Set<Sender>();

export function openSocket(address: string, port: number, receive?: (bytes: Buffer) => void): Promise<Socket> {
  return new Promise((done) => {
    const socket = createSocket({ type: 'udp4', reuseAddr: true });
    if (receive) socket.on('message', receive);
    sockets.push(socket);
    socket.bind(port, address, () => {
      socket.setMulticastInterface('127.0.0.1');
      socket.setBroadcast(true);
      done(socket);
    });
  });
}

export const stopSenders = (): void => running.forEach((sender) => sender.stop());
export const closeSockets = (): void => sockets.splice(0).forEach((socket) => socket.close());

/** A packet of levels as a desk sends it, but for what is given. */
export const levelsFrom = (over: Partial<SacnData> = {}): SacnData => ({
  kind: 'data',
  cid: new Uint8Array(16).fill(9),
  sourceName: 'Test desk',
  priority: 100,
  syncAddress: 0,
  sequence: 1,
  preview: false,
  terminated: false,
  forceSync: false,
  universe: 2,
  startCode: 0,
  slots: new Uint8Array(512),
  ...over,
});

/** A made-up sACN source that sends its levels every 25 ms. */
export class Sender {
  private sequence = 0;
  private timer: NodeJS.Timeout | undefined;

  constructor(
    private readonly socket: Socket,
    readonly fields: { -readonly [K in keyof SacnData]?: SacnData[K] },
  ) {}

  send(more: Partial<SacnData> = {}): void {
    this.sequence = (this.sequence + 1) & 0xff;
    const message = levelsFrom({ sequence: this.sequence, ...this.fields, ...more });
    this.socket.send(encodeData(message), udpPorts.sacn, multicastGroup(message.universe));
  }

  start(): this {
    this.timer = setInterval(() => this.send(), 25);
    running.add(this);
    return this;
  }

  stop(): void {
    clearInterval(this.timer);
    running.delete(this);
  }
}
