/** The live engine: listens, keeps the account, merges, polls, and sends what is taken. Runs in a thread of its own. */
import type { Settings } from '@taxiarch/core/whole/contract';
import type { InterfaceInfo } from '@taxiarch/core/network/ip';
import type { Network } from '@taxiarch/core/show/records';
import { Sacn } from '@taxiarch/core/protocol/sacn';
import { HeldUp } from '../bridge/heldUp';
import { chooseInterfaces, listInterfaces, plainTrouble } from '../bridge/interfaces';
import { socketDrops } from '../bridge/socketDrops';
import type { EngineSetup, FromEngine } from '../bridge/engineMessages';
import { SharedLevels } from '../bridge/shared';
import type { Using } from '../bridge/interfaces';
import { AlsoHeard } from './listening/alsoHeard';
import { Discovered } from './listening/discovered';
import { Ingest } from './listening/ingest';
import { Membership } from './listening/membership';
import { NodeTable } from './nodes/nodes';
import { Output } from './output/output';
import { Pictures } from './output/pictures';
import { Polling } from './nodes/polling';
import { LampDesk } from './nodes/rdm/lampDesk';
import { REPORT_MS, REPORT_PARTS, Reports } from './reports';
import { Router } from './routing/router';
import { Sockets } from './sockets';
import { Sweep } from './listening/sweep';
import { LiveUniverse } from './listening/universe';
import { warmUp } from './warmUp';
import type { EngineWhole } from './whole';
import * as wiring from './wiring';

/** Universes that somebody looks at are merged this often; what nobody looks at is not merged at all. */
const WATCHED_MS = 4;
/** Routes with several inputs, controls, and what must be sent again are looked at this often. */
const ROUTES_MS = 5;
const SWEEP_MS = 250;
const INTERFACES_MS = 1000;
/** What is announced or heard is joined by this; what somebody opens at once. */
const MEMBERSHIP_MS = 1000;
/** What the system's sockets lost is looked at this often. */
const DROPS_MS = 2000;

export class Engine implements EngineWhole {
  readonly epoch = performance.timeOrigin;
  readonly nodes = new NodeTable();
  readonly discovered = new Discovered();
  readonly alsoHeard = new AlsoHeard();
  readonly ingest: Ingest;
  readonly membership: Membership;
  readonly sweep: Sweep;
  readonly sockets: Sockets;
  readonly output: Output;
  readonly pictures: Pictures;
  readonly polling: Polling;
  readonly router: Router;
  readonly reports: Reports;
  readonly lamps: LampDesk;
  readonly ownCid: Uint8Array;
  settings: Settings;
  networks: readonly Network[] = [];
  using: Using = { sacn: null, artnet: null };
  drops = 0;
  /** The interfaces that were in use last, though they may be gone now */
  private lastUsed: Using = { sacn: null, artnet: null };
  /** Keys of the universes that somebody looks at, and slots that somebody inspects */
  watched: ReadonlySet<number> = new Set();
  planned: readonly number[] = [];
  inspected: readonly (readonly [number, number])[] = [];
  private readonly timers: NodeJS.Timeout[] = [];
  private readonly heldUp = new HeldUp();
  private outputTimer: NodeJS.Timeout | undefined;
  private moving = Promise.resolve();

  constructor(
    private readonly setup: EngineSetup,
    readonly tell: (message: FromEngine) => void,
    private readonly interfaces: () => InterfaceInfo[] = listInterfaces,
  ) {
    const shared = new SharedLevels(setup.memory);
    const cids = { taken: setup.cid, routes: cidOfRoutes(setup.cid) };
    this.settings = setup.settings;
    this.ownCid = setup.cid;
    this.reports = new Reports(this);
    this.ingest = new Ingest(
      shared,
      (key, row, memory) => new LiveUniverse(key, row, memory),
      cids,
      wiring.ingestListener(this),
    );
    this.sockets = new Sockets(setup.ring, setup.receiver, setup.ports, wiring.packetListener(this));
    this.membership = new Membership(wiring.membershipNeeds(this), (universes) => this.sockets.join(universes));
    this.sweep = new Sweep(wiring.sweepSurroundings(this));
    this.output = new Output(cids.taken, wiring.outputSettings(setup.settings), wiring.outputSurroundings(this));
    this.pictures = new Pictures(this.output);
    this.lamps = new LampDesk(wiring.ownUid(cids.taken), wiring.lampWire(this));
    this.polling = new Polling(wiring.pollingSurroundings(this));
    this.router = new Router(cids.routes, shared, wiring.routerSurroundings(this));
  }

  /** Milliseconds, rising; {@link epoch} makes Unix time of it. */
  readonly clock = (): number => performance.now();

  unixTime(): number {
    return Math.round(this.epoch + this.clock());
  }

  timeoutOf(key: number): number {
    return wiring.timeoutOf(key, this.settings);
  }

  trouble(text: string): void {
    this.reports.troubles.note(text, this.clock());
  }

  /** `again`: it was started anew while packets come; the ring holds them better than a warm-up would help. */
  async start(again: boolean): Promise<void> {
    if (!again) warmUp();
    this.sockets.begin();
    this.membership.refresh();
    await this.followInterface();
    this.every(WATCHED_MS, () => this.mergeDue());
    this.every(ROUTES_MS, () => this.router.tick(this.clock()));
    this.every(SWEEP_MS, () => this.lookAfter());
    this.every(MEMBERSHIP_MS, () => this.membership.refresh());
    this.every(REPORT_MS / REPORT_PARTS, () => this.reports.due());
    this.every(INTERFACES_MS, () => void this.followInterface());
    this.every(DROPS_MS, () => (this.drops = socketDrops(Object.values(this.setup.ports)) ?? 0));
    this.every(wiring.POLL_MS, () => this.polling.poll(this.clock()));
    this.every(Sacn.E131_E131_UNIVERSE_DISCOVERY_INTERVAL_MS, () => this.announce());
    this.runOutput(this.clock());
    this.polling.poll(this.clock());
    // The first report is there before anybody can ask for it.
    this.reports.tellNow();
  }

  private every(ms: number, act: () => void): void {
    this.timers.push(setInterval(act, ms));
  }

  /** A clock that keeps its beat: each frame is timed from the one before, not from when it ran. */
  private runOutput(due: number): void {
    const next = Math.max(due + 1000 / this.settings.outputRate, this.clock());
    this.outputTimer = setTimeout(() => {
      this.pictures.tick(this.clock());
      this.output.tick(this.clock());
      this.runOutput(next);
    }, next - this.clock());
  }

  stop(): void {
    this.router.stopAll();
    this.output.makeSafe();
    this.timers.forEach(clearInterval);
    clearTimeout(this.outputTimer);
    // What was just handed to the sockets leaves before they close.
    setTimeout(() => this.sockets.close(), 50);
  }

  /**
   * Follows the interfaces chosen: takes them up when they are there, lets go when they are gone. While hot it moves
   * to others only when a person chose them (`chosen`); otherwise it stops sending and asks.
   */
  followInterface(chosen = false): Promise<void> {
    const next = chooseInterfaces(this.interfaces(), this.settings, this.networks);
    if (!chosen && this.output.isHot) this.stopIfMoved(next);
    this.lastUsed = { sacn: next.sacn ?? this.lastUsed.sacn, artnet: next.artnet ?? this.lastUsed.artnet };
    if (sameInterface(next.sacn, this.using.sacn) && sameInterface(next.artnet, this.using.artnet)) return this.moving;
    this.using = next;
    this.moving = this.moving
      .then(() => this.sockets.use(next))
      .then(() => this.trouble(''))
      .catch((error: Error) => {
        this.using = { sacn: null, artnet: null };
        this.trouble(plainTrouble(error));
      });
    return this.moving;
  }

  /** What is sent would leave by another address than the one a person saw when making it hot. */
  private stopIfMoved(next: Using): void {
    const moved = (['sacn', 'artnet'] as const).find((protocol) => {
      const [before, now] = [this.lastUsed[protocol], next[protocol]];
      return before !== null && now !== null && !sameInterface(before, now);
    });
    if (!moved) return;
    const [before, now] = [this.lastUsed[moved]!, next[moved]!];
    this.router.stopAll();
    this.output.makeSafe();
    this.tell({
      type: 'notice',
      id: 'interface',
      sentence: `The interface changed while hot, from ${before.name} ${before.address} to ${now.name} ${now.address}. Taxiarch made itself safe and sends nothing.`,
      mend: 'Look at This computer; then make it hot again.',
    });
  }

  private mergeDue(): void {
    const now = this.clock();
    this.reports.tellRows();
    for (const key of this.watched) {
      const universe = this.ingest.universe(key);
      if (universe?.dirty) universe.merge(now, this.timeoutOf(key));
    }
    this.reports.tellInspected(this.inspected, now);
  }

  private lookAfter(): void {
    const now = this.clock();
    const away = this.heldUp.look(now);
    if (away > 0) this.nodes.excuse(away, now);
    for (const universe of this.ingest.universes) universe.sweep(now, this.timeoutOf(universe.key));
    this.router.sweep(now);
    this.discovered.sweep(now);
    this.sweep.tick(now);
    this.nodes.sweep(now);
    this.reports.forgetInspected();
  }

  private announce(): void {
    for (const page of [...this.output.discovery(), ...this.router.discovery()])
      this.sockets.sendSacn(page, Sacn.E131_DISCOVERY_UNIVERSE, this.settings.sendIpv6);
  }
}

/** Routes are another component than slots that people take: both may send one universe. */
function cidOfRoutes(cid: Uint8Array): Uint8Array {
  const other = cid.slice();
  other[other.length - 1]! ^= 1;
  return other;
}

const sameInterface = (a: InterfaceInfo | null, b: InterfaceInfo | null): boolean =>
  a?.address === b?.address && a?.netmask === b?.netmask;
