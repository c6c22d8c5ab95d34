/**
 * The sockets that receive. One pair a protocol: a socket on all addresses for multicast and
 * broadcast, and one on the interface's own address, so that unicast finds us even where
 * another program on this computer shares the port.
 */
import type { Ports, Using } from '../bridge/interfaces';
import { createSocket, type Socket } from 'node:dgram';
import type { InterfaceInfo } from '@taxiarch/core/ip';
import { multicastGroup, type Protocol } from '@taxiarch/core/address';

export interface ReceiverListener {
  packet(bytes: Uint8Array, protocol: Protocol, address: string, port: number): void;
  /** Something went wrong while the sockets were in use. */
  trouble(error: Error): void;
}

/** Bytes asked for to hold packets in; Linux gives what it allows, other systems refuse what they do not allow. */
const RECEIVE_BUFFERS = [32, 16, 8, 4, 2].map((mb) => mb * 1024 * 1024);

function enlarge(socket: Socket): void {
  for (const bytes of RECEIVE_BUFFERS) {
    try {
      return socket.setRecvBufferSize(bytes);
    } catch {
      // This system does not allow so much: the next smaller is tried, and after the last the socket keeps its own.
    }
  }
}

/** A UDP socket bound to an address and port that others may share; rejects with the system's error. */
export function bound(port: number, address: string): Promise<Socket> {
  return new Promise((resolve, reject) => {
    const socket = createSocket({ type: 'udp4', reuseAddr: true });
    socket.once('error', (error) => {
      socket.close();
      reject(error);
    });
    socket.bind(port, address, () => {
      socket.removeAllListeners('error');
      enlarge(socket);
      resolve(socket);
    });
  });
}

export class Receiver {
  private anySacn: Socket | undefined;
  private anyArtNet: Socket | undefined;
  private ownSacn: Socket | undefined;
  private ownArtNet: Socket | undefined;
  /** Some systems allow few memberships a socket; further ones are held by these. */
  private holders: Socket[] = [];
  private readonly joined = new Set<number>();
  private readonly wanted = new Set<number>();
  /** The interface by which multicast groups are joined */
  private using: InterfaceInfo | null = null;

  constructor(
    private readonly ports: Ports,
    private readonly listener: ReceiverListener,
  ) {}

  /** Opens what does not depend on an interface; rejects if a port is taken and not shared. */
  async open(): Promise<void> {
    this.anySacn = this.listen(await bound(this.ports.sacn, '0.0.0.0'), 'sacn');
    this.anyArtNet = this.listen(await bound(this.ports.artnet, '0.0.0.0'), 'artnet');
    this.anyArtNet.setBroadcast(true);
  }

  private listen(socket: Socket, protocol: Protocol): Socket {
    const { listener } = this;
    socket.on('error', (error) => listener.trouble(error));
    socket.on('message', (bytes, { address, port }) => listener.packet(bytes, protocol, address, port));
    return socket;
  }

  /** Moves to other interfaces, or to none while they are gone; multicast groups are joined anew. */
  async use({ sacn, artnet }: Using): Promise<void> {
    for (const socket of [this.ownSacn, this.ownArtNet, ...this.holders]) socket?.close();
    this.ownSacn = undefined;
    this.ownArtNet = undefined;
    this.holders = [];
    for (const universe of this.joined) this.leave(universe);
    this.using = sacn;
    if (artnet) this.ownArtNet = this.listen(await bound(this.ports.artnet, artnet.address), 'artnet');
    if (!sacn) return;
    this.ownSacn = this.listen(await bound(this.ports.sacn, sacn.address), 'sacn');
    for (const universe of this.wanted) await this.joinOne(universe);
  }

  private leave(universe: number): void {
    this.joined.delete(universe);
    try {
      this.anySacn?.dropMembership(multicastGroup(universe), this.using?.address);
    } catch {
      // Gone with the interface, or held by one of the sockets just closed.
    }
  }

  /** Joins universes' multicast groups, now and after every change of interface. */
  async join(universes: readonly number[]): Promise<void> {
    for (const universe of universes) this.wanted.add(universe);
    for (const universe of universes) await this.joinOne(universe);
  }

  private async joinOne(universe: number): Promise<void> {
    if (!this.using || this.joined.has(universe)) return;
    this.joined.add(universe);
    const group = multicastGroup(universe);
    for (const socket of [this.anySacn!, ...this.holders]) {
      if (tryJoin(socket, group, this.using.address)) return;
    }
    const holder = await bound(0, '0.0.0.0');
    this.holders.push(holder);
    if (!tryJoin(holder, group, this.using.address))
      this.listener.trouble(new Error(`The system lets no more multicast groups be joined on ${this.using.name}.`));
  }

  /** Sends from the port that answers to polls come to (Art-Net 4: 6454 to 6454). */
  sendFromArtNetPort(bytes: Uint8Array, address: string): void {
    const socket = this.ownArtNet;
    if (!socket) return;
    socket.setBroadcast(true);
    socket.send(bytes, this.ports.artnet, address, (error) => error && this.listener.trouble(error));
  }

  close(): void {
    for (const socket of [this.anySacn, this.anyArtNet, this.ownSacn, this.ownArtNet, ...this.holders]) socket?.close();
  }
}

function tryJoin(socket: Socket, group: string, address: string): boolean {
  try {
    socket.addMembership(group, address);
    return true;
  } catch (error) {
    // ENOBUFS: this socket holds as many as the system allows. EADDRINUSE: it holds this one already.
    return (error as NodeJS.ErrnoException).code === 'EADDRINUSE';
  }
}
