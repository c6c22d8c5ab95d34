/** The engine's side of the network: the thread that receives, and the sockets that send. */
import type { Socket } from 'node:dgram';
import type { MessagePort } from 'node:worker_threads';
import type { InterfaceInfo } from '@taxiarch/core/network/ip';
import { multicastGroup, multicastGroup6, type Protocol } from '@taxiarch/core/base/address';
import { bound } from '../receive/receiver';
import type { Ports, Using } from '../bridge/interfaces';
import type { EngineToReceiver, MembershipState, PlainError, ReceiverToEngine } from '../bridge/receiverMessages';
import { broadcastOf, listInterfaces, zoneOf } from '../bridge/interfaces';
import type { SentBy } from './listening/stream';
import { PacketRing, addressText, type ReceivedPacket } from '../bridge/ring';

export interface PacketListener {
  /** `via` is the socket by which it came. */
  sacn(bytes: Uint8Array, address: string, port: number, via: number, at: number): void;
  artnet(bytes: Uint8Array, address: string, sent: SentBy, via: number, at: number): void;
  /** Something went wrong while the sockets were in use. */
  trouble(error: Error): void;
}

/** Packets taken in before timers and orders have their turn again. */
const AT_ONCE = 1000;
/** So many packets waiting make it worth while to look again soon rather than to sleep. */
const BUSY = 8;
const LOOK_MS = 2;
/** An interface that could not be opened for a route is tried again after this. */
const REOPEN_MS = 1000;
/** Addresses remembered as text; a network with more senders than this begins anew. */
const MOST_ADDRESSES = 4096;

export class Sockets {
  private readonly ring: PacketRing;
  private readonly asked = new Map<number, (error: PlainError | undefined) => void>();
  private asks = 0;
  private sendingSacn: Socket | undefined;
  private sendingSixth: Socket | undefined;
  private sendingArtNet: Socket | undefined;
  private sendingPort = 0;
  private using: Using = { sacn: null, artnet: null };
  /** Sockets that routes send from, by the address of their interface */
  private readonly routing = new Map<string, Promise<Socket | undefined> | Socket>();
  private readonly routePorts = new Set<string>();
  /** Those by IPv6, likewise; undefined where an interface has none */
  private readonly routingSixth = new Map<string, Promise<Socket | undefined>>();
  private readonly addresses = new Map<number, string>();
  private groups: readonly number[] = [];
  /** What came of the last wish */
  joinedBySixth = 0;
  membership: MembershipState = { wanted: 0, joined: 0, full: false };
  sent = 0;

  constructor(
    memory: SharedArrayBuffer,
    private receiver: MessagePort,
    private readonly ports: Ports,
    private readonly listener: PacketListener,
  ) {
    this.ring = new PacketRing(memory);
    this.listenToReceiver();
  }

  /** From now on packets are handed on; those that wait in the ring already come first. */
  begin(): void {
    // An empty ring sends its reader to sleep, from which the first packet wakes it.
    this.look(0);
  }

  private listenToReceiver(): void {
    this.receiver.on('message', (message: ReceiverToEngine) => {
      if (message.type === 'packets') this.look(0);
      else if (message.type === 'trouble') this.listener.trouble(asError(message.error));
      else if (message.type === 'joined') this.membership = message.state;
      else if (message.type === 'joinedBySixth') this.joinedBySixth = message.joined;
      else this.asked.get(message.ask)?.(message.error);
    });
  }

  /** The receiving thread was started anew: it is told again what it is to hear. */
  reconnect(receiver: MessagePort): void {
    this.receiver.close();
    this.receiver = receiver;
    this.listenToReceiver();
    for (const answer of this.asked.values()) answer({ message: 'Receiving was started anew.', code: undefined });
    this.tell({ type: 'join', universes: this.groups });
    this.ask((ask) => ({ type: 'use', next: this.using, ask })).catch((error: Error) => this.listener.trouble(error));
    this.look(0);
  }

  /** Waiting for the next look at the ring; meanwhile nobody needs to wake us. */
  private looking = false;

  private readonly drain = (): void => {
    this.looking = false;
    const count = this.ring.drain(AT_ONCE, this.takeIn);
    if (count === AT_ONCE) this.look(0);
    // Being woken costs more than many packets: while they come thick, the ring is looked at by the clock.
    else if (count >= BUSY || !this.ring.sleep()) this.look(LOOK_MS);
  };

  private look(after: number): void {
    if (this.looking) return;
    this.looking = true;
    if (after === 0) setImmediate(this.drain);
    else setTimeout(this.drain, after);
  }

  private readonly takeIn = ({ bytes, protocol, via, address, port, at }: ReceivedPacket): void => {
    const from = typeof address === 'string' ? address : this.addressOf(address);
    if (protocol === 'sacn') this.listener.sacn(bytes, from, port, via, at);
    else this.listener.artnet(bytes, from, this.sentBy(from, port), via, at);
  };

  private sentBy(from: string, port: number): SentBy {
    if (port === this.sendingPort && from === this.using.artnet?.address) return 'taken';
    return this.routePorts.size > 0 && this.routePorts.has(`${from}:${port}`) ? 'route' : 'others';
  }

  private addressOf(bits: number): string {
    const known = this.addresses.get(bits);
    if (known !== undefined) return known;
    if (this.addresses.size >= MOST_ADDRESSES) this.addresses.clear();
    const text = addressText(bits);
    this.addresses.set(bits, text);
    return text;
  }

  /** Packets that came while more waited than there is room for. */
  get lost(): number {
    return this.ring.lost;
  }

  private tell(message: EngineToReceiver): void {
    this.receiver.postMessage(message);
  }

  private ask(order: (ask: number) => EngineToReceiver): Promise<void> {
    this.asks += 1;
    const ask = this.asks;
    return new Promise((resolve, reject) => {
      this.asked.set(ask, (error) => {
        this.asked.delete(ask);
        if (error) reject(asError(error));
        else resolve();
      });
      this.tell(order(ask));
    });
  }

  /** Moves to other interfaces, or to none while they are gone; multicast groups are joined anew. */
  async use(next: Using): Promise<void> {
    this.sendingSacn?.close();
    this.sendingSixth?.close();
    this.sendingArtNet?.close();
    this.sendingSacn = undefined;
    this.sendingSixth = undefined;
    this.sendingArtNet = undefined;
    this.closeRouting();
    this.using = next;
    await this.ask((ask) => ({ type: 'use', next, ask }));
    if (next.sacn) {
      this.sendingSacn = await this.opened(next.sacn);
      this.sendingSacn.setMulticastInterface(next.sacn.address);
      this.sendingSacn.setMulticastTTL(16);
      this.sendingSixth = await this.openedSixth(next.sacn);
    }
    if (next.artnet) {
      this.sendingArtNet = await this.opened(next.artnet);
      this.sendingArtNet.setBroadcast(true);
      this.sendingPort = this.sendingArtNet.address().port;
    }
  }

  /** For sACN over IPv6; undefined where the system or the interface has none */
  private async openedSixth(by: InterfaceInfo): Promise<Socket | undefined> {
    try {
      const socket = await bound(0, '::', 'udp6');
      socket.on('error', () => undefined);
      socket.setMulticastInterface(zoneOf(by));
      socket.setMulticastTTL(16);
      return socket;
    } catch {
      return undefined;
    }
  }

  private async opened({ address }: InterfaceInfo): Promise<Socket> {
    const socket = await bound(0, address);
    socket.on('error', (error) => this.listener.trouble(error));
    return socket;
  }

  /** Joins these universes' multicast groups, the most needed first, and leaves all others; so after every change of interface. */
  join(universes: readonly number[]): void {
    this.groups = universes;
    this.tell({ type: 'join', universes });
  }

  private send(socket: Socket | undefined, bytes: Uint8Array, port: number, address: string): void {
    if (!socket) return;
    this.sent += 1;
    socket.send(bytes, port, address, (error) => error && this.listener.trouble(error));
  }

  /** `sixth`: by IPv6 as well */
  sendSacn(bytes: Uint8Array, universe: number, sixth: boolean): void {
    this.send(this.sendingSacn, bytes, this.ports.sacn, multicastGroup(universe));
    if (sixth) this.sendSixth(this.sendingSixth, bytes, universe);
  }

  private sendSixth(socket: Socket | undefined, bytes: Uint8Array, universe: number): void {
    const failed = (why: string) => this.listener.trouble(new Error(`nothing leaves by IPv6, ${why}`));
    if (!socket) return failed('it has no IPv6');
    socket.send(bytes, this.ports.sacn, multicastGroup6(universe), (error) => error && failed(error.message));
  }

  sendArtNet(bytes: Uint8Array, address: string): void {
    this.send(this.sendingArtNet, bytes, this.ports.artnet, address);
  }

  /** The socket for routes on an interface, empty for the protocol's own; a promise while it is being opened. */
  private routeSocket(by: string, protocol: Protocol): Promise<Socket | undefined> | Socket | undefined {
    const address = by || this.using[protocol]?.address;
    return address === undefined ? undefined : (this.routing.get(address) ?? this.openForRoutes(address));
  }

  /** The socket, or undefined if the interface was left before it was open. */
  private openForRoutes(address: string): Promise<Socket | undefined> {
    const opening = bound(0, address).then((socket) => {
      socket.on('error', (error) => this.listener.trouble(error));
      socket.setMulticastInterface(address);
      socket.setMulticastTTL(16);
      socket.setBroadcast(true);
      if (this.routing.get(address) !== opening) {
        socket.close();
        return undefined;
      }
      this.routing.set(address, socket);
      this.routePorts.add(`${address}:${socket.address().port}`);
      return socket;
    });
    opening.catch((error: Error) => {
      this.listener.trouble(error);
      setTimeout(() => this.routing.delete(address), REOPEN_MS);
    });
    this.routing.set(address, opening);
    return opening;
  }

  private sendRouted(protocol: Protocol, bytes: Uint8Array, address: string, by: string): void {
    const socket = this.routeSocket(by, protocol);
    if (!(socket instanceof Promise)) return this.send(socket, bytes, this.ports[protocol], address);
    // The first packets of a route wait until its socket is open; that it cannot be opened was told already.
    socket.then((opened) => this.send(opened, bytes, this.ports[protocol], address)).catch(() => undefined);
  }

  private closeRouting(): void {
    for (const socket of this.routing.values()) if (!(socket instanceof Promise)) socket.close();
    for (const opening of this.routingSixth.values()) void opening.then((socket) => socket?.close());
    this.routing.clear();
    this.routingSixth.clear();
    this.routePorts.clear();
  }

  /** Sends for a route by an interface; `address` null is the universe's multicast group. `sixth`: to that of IPv6 as well. */
  sendRoutedSacn(bytes: Uint8Array, universe: number, address: string | null, by: string, sixth: boolean): void {
    this.sendRouted('sacn', bytes, address ?? multicastGroup(universe), by);
    if (sixth && address === null) void this.routeSixth(by).then((socket) => this.sendSixth(socket, bytes, universe));
  }

  private routeSixth(by: string): Promise<Socket | undefined> {
    const known = this.routingSixth.get(by);
    if (known) return known;
    const its = by === '' ? this.using.sacn : listInterfaces().find(({ address }) => address === by);
    const opening = its ? this.openedSixth(its) : Promise.resolve(undefined);
    this.routingSixth.set(by, opening);
    return opening;
  }

  sendRoutedArtNet(bytes: Uint8Array, address: string, by: string): void {
    this.sendRouted('artnet', bytes, address, by);
  }

  /** Sends a poll or its answer from the port that answers are sent to. */
  sendFromArtNetPort(bytes: Uint8Array, to: string | 'broadcast'): void {
    const { artnet } = this.using;
    if (artnet) this.tell({ type: 'send', bytes, address: to === 'broadcast' ? broadcastOf(artnet) : to });
  }

  close(): void {
    this.sendingSacn?.close();
    this.sendingSixth?.close();
    this.sendingArtNet?.close();
    this.closeRouting();
    this.receiver.close();
  }
}

const asError = ({ message, code }: PlainError): Error => Object.assign(new Error(message), { code });
