/** A box's sockets on one loopback address, with a cable that can be pulled or go bad. */
import type { Socket } from 'node:dgram';
import { multicastGroup } from '@taxiarch/core/base/address';
import { BROADCAST, hearGroups, open, type Ports } from './network';

export interface Cable {
  plugged: boolean;
  /** Part of the packets that are lost, 0–1 */
  loses: number;
  /** Milliseconds for which the others are kept */
  delays: number;
  /** What does not get through to it */
  deaf: { readonly multicast: boolean; readonly broadcast: boolean; readonly to: readonly string[] };
}

/** A cable with nothing wrong. */
export const sound = (): Cable => ({
  plugged: true,
  loses: 0,
  delays: 0,
  deaf: { multicast: false, broadcast: false, to: [] },
});

/** `broadcast`: it went to everybody. */
export type Receive = (bytes: Uint8Array, from: string, broadcast: boolean) => void;

export class Wire {
  readonly cable: Cable = sound();
  private sockets: Socket[] = [];
  private artnet: Socket | undefined;
  private joined = new Set<string>();

  constructor(
    private readonly udp: Ports,
    private readonly onArtNet: Receive,
    private readonly onSacn: Receive,
  ) {}

  private through(act: () => void): void {
    const { plugged, loses, delays } = this.cable;
    if (!plugged || Math.random() < loses) return;
    if (delays > 0) setTimeout(act, delays);
    else act();
  }

  private isDeaf(from: string, way: boolean): boolean {
    return way || this.cable.deaf.to.includes(from);
  }

  private sacn(bytes: Uint8Array, from: string, multicast: boolean): void {
    if (!this.isDeaf(from, multicast && this.cable.deaf.multicast)) this.through(() => this.onSacn(bytes, from, false));
  }

  private readonly bygroup = (bytes: Uint8Array, from: string): void => this.sacn(bytes, from, true);

  async open(address: string): Promise<void> {
    const artnet = (broadcast: boolean) => (bytes: Uint8Array, from: string) => {
      if (from === address || this.isDeaf(from, broadcast && this.cable.deaf.broadcast)) return;
      this.through(() => this.onArtNet(bytes, from, broadcast));
    };
    // What comes to its own address is unicast; the rest comes by its groups.
    const unicast = (bytes: Uint8Array, from: string) => this.sacn(bytes, from, false);
    this.artnet = await open(address, this.udp.artnet, artnet(false));
    this.sockets = [
      this.artnet,
      await open(BROADCAST, this.udp.artnet, artnet(true)),
      await open(address, this.udp.sacn, unicast),
    ];
    const groups = [...this.joined];
    this.joined = new Set();
    await this.join(groups);
  }

  /** Takes part in the groups of sACN universes. */
  async join(groups: readonly string[]): Promise<void> {
    const fresh = groups.filter((group) => !this.joined.has(group));
    fresh.forEach((group) => this.joined.add(group));
    if (!this.artnet || fresh.length === 0) return;
    const { artnet } = this;
    const heard = await hearGroups(this.udp.sacn, fresh, this.bygroup);
    // It may have been closed meanwhile.
    if (this.artnet === artnet) this.sockets.push(...heard);
    else heard.forEach((socket) => socket.close());
  }

  close(): void {
    this.sockets.forEach((socket) => socket.close());
    this.sockets = [];
    this.artnet = undefined;
  }

  sendArtNet(bytes: Uint8Array, to: string): void {
    this.through(() => this.artnet?.send(bytes, this.udp.artnet, to));
  }

  sendSacn(bytes: Uint8Array, universe: number): void {
    this.through(() => this.artnet?.send(bytes, this.udp.sacn, multicastGroup(universe)));
  }
}
