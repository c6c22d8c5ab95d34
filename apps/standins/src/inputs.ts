/** What comes in at a node's inputs from DMX desks, and goes out on the network as they are set. */
import { encodeDmx } from '@taxiarch/core/protocol/artnet';
import { Sacn, encodeData, encodeDiscoveryPages } from '@taxiarch/core/protocol/sacn';
import { BROADCAST } from './network';
import { wireOf, type BoxSettings, type BoxSetup, type PortSettings } from './settings';
import type { Wire } from './wire';

const RATE = 40;

export class Inputs {
  /** What a desk feeds into each, by its place from 0 */
  private readonly fed = new Map<number, Uint8Array>();
  private clock: NodeJS.Timeout | undefined;
  private sequence = 0;
  private powered = false;

  constructor(
    private readonly setup: BoxSetup,
    private readonly settings: () => BoxSettings,
    private readonly wire: Wire,
  ) {}

  power(on: boolean): void {
    this.powered = on;
    clearInterval(this.clock);
    this.clock = undefined;
    this.begin();
  }

  /** The clock runs only while something is plugged in. */
  private begin(): void {
    if (!this.powered || this.clock || this.fed.size === 0) return;
    this.clock = setInterval(() => this.send(), 1000 / RATE);
  }

  /** What a desk puts out; null pulls its plug. */
  feed(port: number, levels: Uint8Array | null): void {
    if (levels) this.fed.set(port, levels);
    else this.fed.delete(port);
    this.begin();
  }

  at(port: number): Uint8Array | undefined {
    return this.fed.get(port);
  }

  /** The component id of what an input sends */
  private cidOf(input: number): Uint8Array {
    return Uint8Array.from([0x7f, 0xf0, ...this.setup.mac, 0, 0, 0, 0, 0, 0, 0, input]);
  }

  /** Those that send: set as inputs, and not switched off. */
  private *sending(): Generator<{ place: number; port: PortSettings; wire: number; slots: Uint8Array }> {
    const settings = this.settings();
    for (const [place, slots] of this.fed) {
      const port = settings.ports[place];
      if (port?.use === 'in' && !port.disabled)
        yield { place, port, wire: wireOf(settings, this.setup.model, place), slots };
    }
  }

  /** Those that send by sACN announce their universes (E1.31-2018, clause 8). */
  announce(): void {
    for (const { place, port, wire } of this.sending())
      if (port.protocol === 'sacn')
        for (const page of encodeDiscoveryPages(this.cidOf(place), this.settings().shortName, [wire]))
          this.wire.sendSacn(page, Sacn.E131_DISCOVERY_UNIVERSE);
  }

  private send(): void {
    this.sequence = (this.sequence + 1) & 0xff;
    const { sequence } = this;
    const { shortName, priority } = this.settings();
    for (const { place, port, wire, slots } of this.sending())
      if (port.protocol === 'artnet') {
        const bytes = encodeDmx({ sequence: Math.max(1, sequence), physical: place, portAddress: wire, slots });
        this.wire.sendArtNet(bytes, BROADCAST);
      } else {
        const plain = { syncAddress: 0, preview: false, terminated: false, forceSync: false };
        const which = { cid: this.cidOf(place), sourceName: shortName, priority, universe: wire };
        this.wire.sendSacn(encodeData({ ...plain, ...which, sequence, startCode: Sacn.START_CODE_NULL, slots }), wire);
      }
  }
}
