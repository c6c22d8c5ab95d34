/**
 * The sockets that receive. One pair a protocol: a socket on all addresses for multicast and
 * broadcast, and one on the interface's own address, so that unicast finds us even where
 * another program on this computer shares the port.
 */
import type { Ports, Using } from '../bridge/interfaces';
import { createSocket, type Socket } from 'node:dgram';
import { multicastGroup, multicastGroup6, type Protocol } from '@taxiarch/core/base/address';
import { zoneOf } from '../bridge/interfaces';
import type { MembershipState } from '../bridge/receiverMessages';
import { Memberships } from './memberships';

export interface ReceiverListener {
  /** `via` is the socket of its protocol by which it came: 0 the one on all addresses, 1 the one on the interface’s own, 2 that of IPv6. */
  packet(bytes: Uint8Array, protocol: Protocol, via: number, address: string, port: number): void;
  /** Something went wrong while the sockets were in use. */
  trouble(error: Error): void;
  /** As many multicast groups as can be are joined. */
  joined(state: MembershipState): void;
  /** So many of them by IPv6 as well */
  joinedBySixth(joined: number): void;
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
export function bound(port: number, address: string, type: 'udp4' | 'udp6' = 'udp4'): Promise<Socket> {
  return new Promise((resolve, reject) => {
    const socket = createSocket({ type, reuseAddr: true, ipv6Only: type === 'udp6' });
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
  private memberships: Memberships | undefined;
  /** sACN over IPv6; undefined where the system has none */
  private sixth: Socket | undefined;
  private sixthMemberships: Memberships | undefined;

  constructor(
    private readonly ports: Ports,
    private readonly listener: ReceiverListener,
  ) {}

  /** Opens what does not depend on an interface; rejects if a port is taken and not shared. */
  async open(): Promise<void> {
    this.anySacn = this.listen(await bound(this.ports.sacn, '0.0.0.0'), 'sacn', 0);
    this.anyArtNet = this.listen(await bound(this.ports.artnet, '0.0.0.0'), 'artnet', 0);
    this.anyArtNet.setBroadcast(true);
    this.memberships = new Memberships(
      this.anySacn,
      multicastGroup,
      () => bound(0, '0.0.0.0'),
      (state) => this.listener.joined(state),
    );
    this.sixth = await bound(this.ports.sacn, '::', 'udp6').catch(() => undefined);
    if (!this.sixth) return;
    this.listen(this.sixth, 'sacn', 2);
    this.sixthMemberships = new Memberships(
      this.sixth,
      multicastGroup6,
      () => bound(0, '::', 'udp6'),
      ({ joined }) => this.listener.joinedBySixth(joined),
    );
  }

  private listen(socket: Socket, protocol: Protocol, via: number): Socket {
    const { listener } = this;
    socket.on('error', (error) => listener.trouble(error));
    socket.on('message', (bytes, { address, port }) => listener.packet(bytes, protocol, via, address, port));
    return socket;
  }

  /** Moves to other interfaces, or to none while they are gone; multicast groups are joined anew. */
  async use({ sacn, artnet }: Using): Promise<void> {
    for (const socket of [this.ownSacn, this.ownArtNet]) socket?.close();
    this.ownSacn = undefined;
    this.ownArtNet = undefined;
    if (artnet) this.ownArtNet = this.listen(await bound(this.ports.artnet, artnet.address), 'artnet', 1);
    if (sacn) this.ownSacn = this.listen(await bound(this.ports.sacn, sacn.address), 'sacn', 1);
    await this.memberships?.use(sacn?.address);
    this.listener.joinedBySixth(0);
    await this.sixthMemberships?.use(sacn ? zoneOf(sacn) : undefined);
  }

  /** Joins these universes' multicast groups, the most needed first, and leaves all others. */
  async join(universes: readonly number[]): Promise<void> {
    await this.memberships?.want(universes);
    await this.sixthMemberships?.want(universes);
  }

  /** Sends from the port that answers to polls come to (Art-Net 4: 6454 to 6454). */
  sendFromArtNetPort(bytes: Uint8Array, address: string): void {
    const socket = this.ownArtNet;
    if (!socket) return;
    socket.setBroadcast(true);
    socket.send(bytes, this.ports.artnet, address, (error) => error && this.listener.trouble(error));
  }

  close(): void {
    this.memberships?.close();
    this.sixthMemberships?.close();
    for (const socket of [this.sixth, this.anySacn, this.anyArtNet, this.ownSacn, this.ownArtNet]) socket?.close();
  }
}
