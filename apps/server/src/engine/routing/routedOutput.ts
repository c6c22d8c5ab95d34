/** The packets of one running route: numbered, addressed as its plan says, ended as its protocol can. */
import { SLOTS } from '@taxiarch/core/base/address';
import { encodeDmx } from '@taxiarch/core/protocol/artnet';
import { encodeData, Sacn } from '@taxiarch/core/protocol/sacn';
import { OWN_NAME } from '@taxiarch/core/signal/stream';
import type { Route } from '@taxiarch/core/show/records';
import type { Sending } from '../../keep/lastWords';

/** Packets that end an sACN stream (E1.31-2018, 6.2.6). */
const LAST_PACKETS = 3;

/** Sends from this program's sockets for routes; addresses are dotted. */
export interface RouteSender {
  /** To the universe's multicast group, or to one address, by an interface (empty: the one in use) */
  sacn(bytes: Uint8Array, universe: number, address: string | null, by: string): void;
  artnet(bytes: Uint8Array, address: string, by: string): void;
  /** Devices that list an Art-Net universe, and this computer itself so that Listen hears it */
  artnetListeners(portAddress: number): readonly string[];
  broadcastAddress(by: string): string | undefined;
}

/** Told of each frame that waits to be let out; 0 stands for ArtSync. */
export type FrameLeft = (sync: number, by: string) => void;

export class RoutedOutput {
  private sequence = 0;
  packets = 0;
  /** Where the last packet went */
  to: readonly string[] = [];

  constructor(
    private route: Route,
    private readonly cid: Uint8Array,
    private readonly sender: RouteSender,
    private readonly left: FrameLeft = () => undefined,
  ) {}

  /** Goes on with a changed plan of the same route; its packets are numbered on. */
  for(route: Route): this {
    this.route = route;
    return this;
  }

  /** The stream that is sent now; undefined for Art-Net, which cannot be ended, and before the first packet. */
  sending(cid: string, inUse: string): Sending | undefined {
    const { out, priority, delivery, addresses, interface: by } = this.route;
    if (out.protocol !== 'sacn' || this.packets === 0) return undefined;
    const to = delivery === 'unicast' ? addresses : [];
    return { cid, universe: out.number, sequence: this.sequence, priority, by: by || inUse, to };
  }

  send(slots: Uint8Array): void {
    const { out, sync, interface: by } = this.route;
    if (out.protocol === 'sacn') this.sacn(slots, false);
    else this.artnet(slots);
    if (sync > 0) this.left(out.protocol === 'sacn' ? sync : 0, by);
  }

  /** Art-Net has no word for stopping: nodes do what they are set to do when signal is lost. */
  end(): void {
    if (this.route.out.protocol !== 'sacn' || this.packets === 0) return;
    const dark = new Uint8Array(SLOTS);
    for (let i = 0; i < LAST_PACKETS; i += 1) this.sacn(dark, true);
  }

  private sacn(slots: Uint8Array, terminated: boolean): void {
    const { out, priority, delivery, addresses, sync, interface: by } = this.route;
    this.sequence = (this.sequence + 1) & 0xff;
    const bytes = encodeData({
      cid: this.cid,
      sourceName: OWN_NAME,
      priority,
      syncAddress: sync,
      sequence: this.sequence,
      preview: false,
      terminated,
      forceSync: false,
      universe: out.number,
      startCode: Sacn.START_CODE_NULL,
      slots,
    });
    this.packets += 1;
    if (delivery !== 'unicast') {
      this.to = MULTICAST;
      return this.sender.sacn(bytes, out.number, null, by);
    }
    this.to = addresses;
    for (const address of addresses) this.sender.sacn(bytes, out.number, address, by);
  }

  private artnet(slots: Uint8Array): void {
    const { out, delivery, addresses, interface: by } = this.route;
    // Art-Net counts from 1 to 255 and leaves out 0, which says that nothing is counted.
    this.sequence = (this.sequence % 255) + 1;
    const bytes = encodeDmx({ sequence: this.sequence, physical: 0, portAddress: out.number, slots });
    this.packets += 1;
    const broadcast = delivery === 'broadcast' ? this.sender.broadcastAddress(by) : undefined;
    this.to = delivery === 'unicast' ? addresses : broadcast ? [broadcast] : this.sender.artnetListeners(out.number);
    for (const address of this.to) this.sender.artnet(bytes, address, by);
  }
}

const MULTICAST: readonly string[] = ['its multicast group'];
