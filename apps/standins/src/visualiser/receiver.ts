/** The visualiser's ears: its own address, its own idea of the numbers, and the levels that reach it. */
import type { Socket } from 'node:dgram';
import {
  SLOTS,
  multicastGroup,
  splitPortAddress,
  wireKey,
  type NumberingBase,
  type Protocol,
} from '@taxiarch/core/base/address';
import {
  ArtNet,
  PORTS_PER_PAGE,
  blankPollReply,
  decodeArtNet,
  encodePollReply,
  nodeReportText,
} from '@taxiarch/core/protocol/artnet';
import { Sacn, decodeSacn } from '@taxiarch/core/protocol/sacn';
import { BROADCAST, hearGroups, open, type Ports } from '../network';

export const NAME = 'Crow’s nest';
/** The address that it was planned to have, and one that it has when its other interface is chosen */
export const ADDRESSES = { right: '127.0.0.24', wrong: '127.0.0.124' } as const;
const MAC = Uint8Array.of(2, 0x7f, 0xf5, 0, 0, 0x24);

/** One of its universes, and by which protocol it listens to it. */
export interface OwnUniverse {
  /** As its display says it */
  readonly number: number;
  readonly protocol: Protocol;
}

export interface ReceiverSettings {
  /** What it calls the first Art-Net universe */
  readonly base: NumberingBase;
  readonly iface: keyof typeof ADDRESSES;
  readonly universes: readonly OwnUniverse[];
}

interface Heard {
  readonly levels: Uint8Array;
  at: number;
  readonly priorities: Map<string, { priority: number; at: number }>;
}

export class Receiver {
  /** Polls answered so far */
  private answered = 0;
  private sockets: Socket[] = [];
  /** Its own number by what comes on the wire */
  private byWire = new Map<number, number>();
  private readonly heard = new Map<number, Heard>();
  /** Started before its sender: it never notices what begins later. */
  deaf = false;

  constructor(
    private settings: ReceiverSettings,
    private readonly udp: Ports,
  ) {}

  get address(): string {
    return ADDRESSES[this.settings.iface];
  }

  private wireOf({ number, protocol }: OwnUniverse): number {
    return protocol === 'sacn' ? number : number - this.settings.base;
  }

  async start(): Promise<void> {
    const { universes, iface } = this.settings;
    this.byWire = new Map(universes.map((one) => [wireKey({ ...one, number: this.wireOf(one) }), one.number]));
    this.heard.clear();
    this.deaf = false;
    const artnet = (bytes: Uint8Array, from: string) => this.takeArtNet(bytes, from);
    this.sockets = [
      await open(this.address, this.udp.artnet, artnet),
      await open(BROADCAST, this.udp.artnet, artnet),
      await open(this.address, this.udp.sacn, (bytes, from) => this.takeSacn(bytes, from)),
    ];
    // Multicast comes by the interface that was chosen; by the other one nothing comes.
    if (iface === 'wrong') return;
    const sacn = universes.filter(({ protocol }) => protocol === 'sacn').map(({ number }) => multicastGroup(number));
    this.sockets.push(...(await hearGroups(this.udp.sacn, sacn, (bytes, from) => this.takeSacn(bytes, from))));
  }

  stop(): void {
    this.sockets.splice(0).forEach((socket) => socket.close());
  }

  async change(settings: ReceiverSettings): Promise<void> {
    this.stop();
    this.settings = settings;
    await this.start();
  }

  private takeArtNet(bytes: Uint8Array, from: string): void {
    const decoded = decodeArtNet(bytes);
    if (!decoded.ok || from === this.address) return;
    if (decoded.value.kind === 'poll') this.answer(from);
    else if (decoded.value.kind === 'dmx')
      this.take(wireKey({ protocol: 'artnet', number: decoded.value.portAddress }), decoded.value.slots, from, 100);
  }

  private takeSacn(bytes: Uint8Array, from: string): void {
    const decoded = decodeSacn(bytes);
    if (!decoded.ok || decoded.value.kind !== 'data') return;
    const { universe, startCode, slots, priority, preview } = decoded.value;
    if (startCode === Sacn.START_CODE_NULL && !preview) this.take(universe, slots, from, priority);
  }

  /** Of several senders the one of highest priority counts, the last packet among equals. */
  private take(key: number, slots: Uint8Array, from: string, priority: number): void {
    const own = this.byWire.get(key);
    if (own === undefined || this.deaf) return;
    const now = performance.now();
    const heard = this.heard.get(own) ?? { levels: new Uint8Array(SLOTS), at: 0, priorities: new Map() };
    this.heard.set(own, heard);
    heard.priorities.set(from, { priority, at: now });
    for (const other of heard.priorities.values())
      if (now - other.at < Sacn.E131_NETWORK_DATA_LOSS_TIMEOUT_MS && other.priority > priority) return;
    heard.levels.fill(0).set(slots);
    heard.at = now;
  }

  /** Says which Art-Net universes it wants, four to a page that share net and sub-net. */
  private answer(to: string): void {
    const wanted = this.settings.universes
      .filter(({ protocol }) => protocol === 'artnet')
      .map((one) => this.wireOf(one))
      .sort((a, b) => a - b);
    const pages: number[][] = [];
    for (const number of wanted) {
      const page = pages[pages.length - 1];
      if (page && page.length < PORTS_PER_PAGE && page[0]! >> 4 === number >> 4) page.push(number);
      else pages.push([number]);
    }
    const [socket] = this.sockets;
    const answered = (this.answered += 1);
    pages.forEach((page, i) => {
      const { net, sub } = splitPortAddress(page[0]!);
      socket?.send(
        encodePollReply({
          ...blankPollReply(this.address, MAC),
          style: ArtNet.StVisual,
          portName: NAME,
          longName: NAME,
          nodeReport: nodeReportText(
            answered,
            `receives ${this.received().length} of ${this.settings.universes.length}`,
          ),
          netSwitch: net,
          subSwitch: sub,
          bindIndex: i + 1,
          bindIp: this.address,
          portCount: page.length,
          ports: page.map((number) => ({
            type: ArtNet.PORT_CAN_OUTPUT,
            goodInput: 0,
            goodOutputA: this.isHeard(wireKey({ protocol: 'artnet', number })) ? ArtNet.OUTPUT_SENDING : 0,
            goodOutputB: ArtNet.OUTPUT_RDM_DISABLED,
            swIn: 0,
            swOut: number & 0xf,
          })),
        }),
        this.udp.artnet,
        to,
      );
    });
  }

  private isHeard(key: number): boolean {
    return this.levelsOf(this.byWire.get(key) ?? -1) !== undefined;
  }

  /** Its own universes that it receives now. */
  received(): number[] {
    return this.settings.universes
      .map(({ number }) => number)
      .filter((number) => this.levelsOf(number) !== undefined)
      .sort((a, b) => a - b);
  }

  /** Levels of one of its own universes; undefined if it does not receive it. */
  levelsOf(number: number): Uint8Array | undefined {
    const heard = this.heard.get(number);
    return heard && performance.now() - heard.at < Sacn.E131_NETWORK_DATA_LOSS_TIMEOUT_MS ? heard.levels : undefined;
  }
}
