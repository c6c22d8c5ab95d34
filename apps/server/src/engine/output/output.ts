/**
 * What Taxiarch sends: the slots that people have taken, and around them what others send, so that
 * nothing else on the universe moves. Safe until a person makes it hot.
 */
import type { TakeOrder } from '../../bridge/engineMessages';
import { holderOf } from '../../bridge/holder';
import type { Sending } from '../../keep/lastWords';
import { fromWireKey, SLOTS } from '@taxiarch/core/base/address';
import { encodeDmx } from '@taxiarch/core/protocol/artnet';
import type { HoldReport, OutputReport } from '@taxiarch/core/whole/contract';
import { OWN_NAME } from '@taxiarch/core/signal/stream';
import { SyncOut } from './syncOut';
import { encodeData, encodeDiscoveryPages, Sacn } from '@taxiarch/core/protocol/sacn';

/** Packets sent after the last change before the rate drops (E1.31-2018, 6.6.2). */
const REPEATS = 3;
const KEEP_ALIVE_MS = 900;

export interface OutputSettings {
  readonly rate: number;
  readonly priority: number;
  readonly broadcast: boolean;
  /** sACN universe of the synchronisation packets; 0 for none */
  readonly sync: number;
  readonly artSync: boolean;
}

/** What the output needs of the rest of the engine. */
export interface Surroundings {
  /** Levels of all other sources of a universe, 512. */
  levelsOfOthers(key: number): Uint8Array;
  /** Which slots of a universe are taken now: 512, 0 for those that are not. */
  setTaken(key: number, mask: Uint8Array): void;
  sendSacn(bytes: Uint8Array, universe: number): void;
  sendArtNet(bytes: Uint8Array, address: string): void;
  /** Where an Art-Net universe goes: devices that list it, and whether one of them merges LTP. */
  artnetTargets(portAddress: number): { addresses: string[]; ltp: boolean };
  broadcastAddress(): string | undefined;
  /** This computer's own address in use, to which a copy is sent so that Listen hears it. */
  ownAddress(): string | undefined;
}

interface Hold {
  readonly client: string;
  readonly by: string;
  readonly since: number;
  readonly stay: boolean;
}

interface OutputUniverse {
  readonly key: number;
  readonly show: number;
  readonly holds: (Hold | undefined)[];
  readonly levels: Uint8Array;
  readonly last: Uint8Array;
  sequence: number;
  repeats: number;
  sentAt: number;
  /** When priorities were last sent: a receiver that hears none for 2.5 s takes all slots for ours */
  prioritiesAt: number;
  /** Holds or their priority changed since the last packet of priorities. */
  holdsChanged: boolean;
}

export class Output {
  private hot = false;
  private hotSince = 0;
  private hotBy = '';
  private readonly universes = new Map<number, OutputUniverse>();

  private readonly syncs: SyncOut;

  constructor(
    private readonly cid: Uint8Array,
    private settings: OutputSettings,
    private readonly around: Surroundings,
  ) {
    this.syncs = new SyncOut(cid, {
      sacn: (bytes, universe) => around.sendSacn(bytes, universe),
      artnet: (bytes) => {
        const address = around.broadcastAddress();
        if (address !== undefined) around.sendArtNet(bytes, address);
      },
    });
  }

  get isHot(): boolean {
    return this.hot;
  }

  configure(settings: OutputSettings): void {
    this.settings = settings;
    for (const universe of this.universes.values()) universe.holdsChanged = true;
  }

  makeHot(by: string, at: number): void {
    if (this.hot) return;
    this.hot = true;
    this.hotSince = at;
    this.hotBy = by;
  }

  /** Gives everything back and sends nothing more. */
  makeSafe(): void {
    this.giveBack(() => true);
    this.hot = false;
    this.hotSince = 0;
    this.hotBy = '';
  }

  /** Takes slots, all or none; returns a sentence if that cannot be. */
  take(order: TakeOrder, at: number): string | undefined {
    if (!this.hot) return 'Taxiarch is safe and sends nothing. Make it hot first.';
    for (const { key, show, levels } of order.universes)
      for (const [slot] of levels) {
        const holder = this.universes.get(key)?.holds[slot];
        if (holder && holder.client !== order.client)
          return `${show}/${slot + 1} is taken by ${holder.by} already. Give it back there first, or give back all.`;
      }
    for (const { key, show, levels } of order.universes) {
      const universe = this.universes.get(key) ?? this.begin(key, show);
      const hold: Hold = { client: order.client, by: order.by, since: at, stay: order.stay };
      const received = this.around.levelsOfOthers(key);
      for (const [slot, level] of levels) {
        // Taken anew by who has it: it stays where it is.
        const now = universe.holds[slot] ? universe.levels[slot]! : received[slot]!;
        universe.holds[slot] ??= hold;
        universe.levels[slot] = level ?? now;
      }
      this.changedHolds(universe);
    }
    return undefined;
  }

  /** New levels for slots that `client` holds; others are left alone. */
  setLevels(client: string, key: number, levels: readonly (readonly [number, number])[]): void {
    const universe = this.universes.get(key);
    if (!universe) return;
    for (const [slot, level] of levels) if (universe.holds[slot]?.client === client) universe.levels[slot] = level;
  }

  /** Levels for slots of a universe, of which only those are set that `client` holds; how many these are. */
  paint(client: string, key: number, slots: Uint16Array, levels: Uint8Array): number {
    const universe = this.universes.get(key);
    if (!universe) return 0;
    let count = 0;
    for (let i = 0; i < slots.length; i += 1) {
      const slot = slots[i]!;
      if (universe.holds[slot]?.client !== client) continue;
      universe.levels[slot] = levels[i]!;
      count += 1;
    }
    return count;
  }

  /** Gives back every held slot for which `which` says so. */
  giveBack(which: (hold: Hold, key: number, slot: number) => boolean): void {
    for (const universe of this.universes.values()) {
      let left = 0;
      universe.holds.forEach((hold, slot) => {
        if (hold && which(hold, universe.key, slot)) universe.holds[slot] = undefined;
        else if (hold) left += 1;
      });
      this.changedHolds(universe);
      if (left === 0) this.end(universe);
    }
  }

  private changedHolds(universe: OutputUniverse): void {
    universe.holdsChanged = true;
    this.around.setTaken(universe.key, this.prioritiesOf(universe));
  }

  private prioritiesOf({ holds }: OutputUniverse): Uint8Array {
    return Uint8Array.from(holds, (hold) => (hold ? this.settings.priority : 0));
  }

  private begin(key: number, show: number): OutputUniverse {
    const universe: OutputUniverse = {
      key,
      show,
      holds: new Array<Hold | undefined>(SLOTS).fill(undefined),
      levels: new Uint8Array(SLOTS),
      last: new Uint8Array(SLOTS),
      sequence: 0,
      repeats: 0,
      sentAt: -Infinity,
      prioritiesAt: -Infinity,
      holdsChanged: true,
    };
    this.universes.set(key, universe);
    return universe;
  }

  private end(universe: OutputUniverse): void {
    this.universes.delete(universe.key);
    const wire = fromWireKey(universe.key);
    if (wire.protocol === 'sacn') {
      for (let i = 0; i < REPEATS; i += 1) this.sendSacn(universe, universe.last, Sacn.START_CODE_NULL, true);
      return;
    }
    // Art-Net has no word for stopping: a node keeps our last levels in its merge for ten seconds.
    // Zeros leave an HTP merge at once; where a node merges LTP, the others' own levels do.
    const { ltp } = this.around.artnetTargets(wire.number);
    const last = ltp ? this.around.levelsOfOthers(universe.key) : new Uint8Array(SLOTS);
    for (let i = 0; i < REPEATS; i += 1) this.sendArtNet(universe, last);
  }

  /** Sends what is due at `now` (milliseconds of the engine's clock). */
  tick(now: number): void {
    if (!this.hot) return;
    for (const universe of this.universes.values()) {
      const levels = this.around.levelsOfOthers(universe.key);
      let changed = false;
      for (let slot = 0; slot < SLOTS; slot += 1) {
        const level = universe.holds[slot] ? universe.levels[slot]! : levels[slot]!;
        if (universe.last[slot] !== level) {
          universe.last[slot] = level;
          changed = true;
        }
      }
      const keepAlive = now - universe.sentAt >= KEEP_ALIVE_MS;
      if (changed || universe.holdsChanged) universe.repeats = REPEATS;
      if (!changed && universe.repeats === 0 && !keepAlive) continue;
      if (!changed && universe.repeats > 0) universe.repeats -= 1;
      const priorities = universe.holdsChanged || now - universe.prioritiesAt >= KEEP_ALIVE_MS;
      this.sendUniverse(universe, priorities);
      universe.sentAt = now;
      if (priorities) universe.prioritiesAt = now;
      universe.holdsChanged = false;
    }
    this.syncs.flush();
  }

  private sendUniverse(universe: OutputUniverse, withPriorities: boolean): void {
    const { sync, artSync } = this.settings;
    if (fromWireKey(universe.key).protocol === 'artnet') {
      if (artSync) this.syncs.frame(0);
      return this.sendArtNet(universe, universe.last);
    }
    if (sync > 0) this.syncs.frame(sync);
    // Priorities go first, so that a receiver never sees our levels without knowing which are ours.
    if (withPriorities) {
      this.sendSacn(universe, this.prioritiesOf(universe), Sacn.START_CODE_SLOT_PRIORITY, false);
    }
    this.sendSacn(universe, universe.last, Sacn.START_CODE_NULL, false);
  }

  private sendSacn(universe: OutputUniverse, slots: Uint8Array, startCode: number, terminated: boolean): void {
    const { number } = fromWireKey(universe.key);
    universe.sequence = (universe.sequence + 1) & 0xff;
    const bytes = encodeData({
      cid: this.cid,
      sourceName: OWN_NAME,
      priority: this.settings.priority,
      syncAddress: this.settings.sync,
      sequence: universe.sequence,
      preview: false,
      terminated,
      forceSync: false,
      universe: number,
      startCode,
      slots,
    });
    this.around.sendSacn(bytes, number);
  }

  private sendArtNet(universe: OutputUniverse, slots: Uint8Array): void {
    const { number } = fromWireKey(universe.key);
    universe.sequence = (universe.sequence % 255) + 1;
    const bytes = encodeDmx({ sequence: universe.sequence, physical: 0, portAddress: number, slots });
    const broadcast = this.settings.broadcast ? this.around.broadcastAddress() : undefined;
    if (broadcast) return this.around.sendArtNet(bytes, broadcast);
    for (const address of this.around.artnetTargets(number).addresses) this.around.sendArtNet(bytes, address);
    const own = this.around.ownAddress();
    if (own) this.around.sendArtNet(bytes, own);
  }

  /** Universe discovery packets for the sACN universes sent now (E1.31-2018, clause 8); none if none are. */
  discovery(): Uint8Array[] {
    const sending = [...this.universes.keys()].map(fromWireKey).filter(({ protocol }) => protocol === 'sacn');
    return sending.length === 0
      ? []
      : encodeDiscoveryPages(
          this.cid,
          OWN_NAME,
          sending.map(({ number }) => number),
        );
  }

  /** The sACN streams that are sent now, for whoever must end them if this cannot. */
  sending(cid: string, by: string): Sending[] {
    return [...this.universes.values()].flatMap(({ key, sequence }) => {
      const { protocol, number } = fromWireKey(key);
      return protocol === 'sacn'
        ? [{ cid, universe: number, sequence, priority: this.settings.priority, by, to: [] }]
        : [];
    });
  }

  report(rate: number): Omit<OutputReport, 'pictures'> {
    const targets: Record<number, string[]> = {};
    for (const key of this.universes.keys()) {
      const wire = fromWireKey(key);
      if (wire.protocol === 'artnet') targets[key] = this.around.artnetTargets(wire.number).addresses;
    }
    return {
      hot: this.hot,
      since: this.hotSince,
      by: this.hotBy,
      holds: [...this.universes.values()].flatMap(holdsOf),
      rate,
      targets,
    };
  }
}

/** The holds of a universe, each taking's slots as runs from 1. */
function holdsOf({ key, show, holds }: OutputUniverse): HoldReport[] {
  const runs = new Map<Hold, [number, number][]>();
  holds.forEach((hold, slot) => {
    if (!hold) return;
    const there = runs.get(hold) ?? [];
    runs.set(hold, there);
    const last = there[there.length - 1];
    if (last && last[1] === slot) last[1] = slot + 1;
    else there.push([slot + 1, slot + 1]);
  });
  return [...runs.entries()].map(([{ client, by, since, stay }, slots]) => ({
    holder: holderOf(client),
    by,
    key,
    universe: show,
    runs: slots,
    since,
    stay,
  }));
}
