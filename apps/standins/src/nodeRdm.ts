/** RDM through a node: finds who hangs on its ports, tells whoever asks, and passes requests on (Art-Net 4, RDM). */
import { ArtNet, decodeArtRdm, encodeArtRdm, encodeTod } from '@taxiarch/core/protocol/artnet';
import type { HungRig } from '@taxiarch/core/truth/hung';
import { DmxLine } from './dmxLine';
import { BROADCAST } from './network';
import { wireOf, type BoxSettings, type BoxSetup } from './settings';
import type { Wire } from './wire';

/** With room for RDM between its frames a box sends no more than so many a second. */
const MOST_RATE = 40;
/** Whether somebody came or went is looked at this often, ms. */
const LOOK_MS = 2000;

export class NodeRdm {
  private lines: DmxLine[] = [];
  /** Who was found at each port; undefined while it is being searched */
  private readonly found = new Map<number, readonly string[] | undefined>();
  private timer: NodeJS.Timeout | undefined;

  constructor(
    private readonly setup: BoxSetup,
    private readonly settings: () => BoxSettings,
    private readonly rig: HungRig,
    private readonly wire: Wire,
    private readonly now: () => number,
  ) {}

  power(on: boolean): void {
    clearInterval(this.timer);
    this.found.clear();
    this.lines = [];
    if (!on) return;
    const { id, model } = this.setup;
    const rate = Math.min(model.rate, MOST_RATE);
    this.lines = this.settings().ports.map((_, i) => new DmxLine({ box: id, port: i + 1 }, this.rig, rate, this.now));
    this.lines.forEach((_, i) => this.search(i));
    this.timer = setInterval(() => this.look(), LOOK_MS);
  }

  /** Forgets who was found at a port and searches it anew. */
  private search(port: number): void {
    const { use, rdm } = this.settings().ports[port]!;
    const line = this.lines[port];
    this.found.set(port, undefined);
    if (use !== 'out' || !rdm || !line) return;
    line.discover((uids) => {
      if (this.lines[port] !== line) return;
      this.found.set(port, uids);
      this.tell(port, BROADCAST);
    });
  }

  /** Searches a port again where others hang than were found, or RDM was switched. */
  private look(): void {
    this.settings().ports.forEach(({ use, rdm }, port) => {
      const before = this.found.get(port);
      const there = use === 'out' && rdm ? this.rig.discover({ box: this.setup.id, port: port + 1 }) : undefined;
      if (before?.join() !== there?.join()) this.search(port);
    });
  }

  private tell(port: number, to: string): void {
    const { model } = this.setup;
    const { rdm } = this.settings().ports[port]!;
    const uids = this.found.get(port);
    const where = {
      port: (port % model.perPage) + 1,
      bindIndex: Math.floor(port / model.perPage) + 1,
      portAddress: wireOf(this.settings(), model, port),
      full: rdm && uids !== undefined,
    };
    for (const packet of encodeTod(uids ?? [], where)) this.wire.sendArtNet(packet, to);
  }

  private at(portAddress: number): number[] {
    return this.settings().ports.flatMap(({ use }, i) =>
      use === 'out' && wireOf(this.settings(), this.setup.model, i) === portAddress ? [i] : [],
    );
  }

  receive(bytes: Uint8Array, from: string): void {
    const decoded = decodeArtRdm(bytes);
    if (!decoded.ok || !this.setup.model.rdm) return;
    const message = decoded.value;
    switch (message.kind) {
      case 'todRequest':
        for (const port of message.portAddresses.flatMap((one) => this.at(one))) this.tell(port, from);
        return;
      case 'todControl':
        if (message.command === ArtNet.AtcFlush) for (const port of this.at(message.portAddress)) this.search(port);
        return;
      case 'rdm': {
        const { portAddress } = message;
        for (const port of this.at(portAddress)) {
          if (!this.settings().ports[port]!.rdm) continue;
          this.lines[port]?.ask(message.packet, (packet) =>
            this.wire.sendArtNet(encodeArtRdm({ portAddress, fifoAvailable: 1, fifoMost: 1, packet }), from),
          );
        }
        return;
      }
      default:
        return;
    }
  }

  /** Intervals between the last frames of each port, ms, rising. */
  takeIntervals(): number[][] {
    return this.lines.map((line) => line.takeIntervals());
  }
}
