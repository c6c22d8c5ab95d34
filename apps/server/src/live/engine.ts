/** The live engine: listens, keeps the account, merges, polls, and sends what is taken. Runs in a thread of its own. */
import { wireKey } from '@taxiarch/core/address';
import { ArtNet, encodePoll } from '@taxiarch/core/artnet';
import { ROUTE_KEYS, type InterfaceInfo, type Settings } from '@taxiarch/core/contract';
import { OWN_NAME, type Network } from '@taxiarch/core/show';
import { Sacn } from '@taxiarch/core/sacn';
import { Discovered } from './discovered';
import { Ingest } from './ingest';
import type { Using } from './ear';
import { broadcastOf, chooseInterfaces, listInterfaces, plainTrouble } from './interfaces';
import type { EngineReport, EngineSetup, EngineUniverse, FromEngine, ToEngine } from './messages';
import { NodeTable } from './nodes';
import { Output } from './output';
import { FaderFinder } from './faderFinder';
import { Polling } from './polling';
import { program } from './programmer';
import { Router } from './router';
import { SharedLevels } from './shared';
import { Sockets } from './sockets';
import { Rates, Trouble } from './state';
import { LiveUniverse } from './universe';
import { warmUp } from './warmUp';

const EPOCH = performance.timeOrigin;
const clock = () => performance.now();

/** Universes that somebody looks at are merged this often; what nobody looks at is not merged at all. */
const WATCHED_MS = 8;
/** Routes with several inputs, controls, and what must be sent again are looked at this often. */
const ROUTES_MS = 5;
/** A fader that a person moves to be learnt is looked for this often. */
const LEARN_MS = 50;
const SWEEP_MS = 250;
const REPORT_MS = 500;
/** With many universes a report on all of them at once would hold up the packets, so it is made in parts. */
const REPORT_PARTS = 8;
const UNIVERSES_A_PART = 128;
const INTERFACES_MS = 1000;

export class Engine {
  private readonly ingest: Ingest;
  private readonly nodes = new NodeTable();
  private readonly discovered = new Discovered();
  private readonly output: Output;
  private readonly router: Router;
  private readonly sockets: Sockets;
  private settings: Settings;
  private using: Using = { sacn: null, artnet: null };
  private networks: readonly Network[] = [];
  private watched = new Set<number>();
  private inspected: readonly (readonly [number, number])[] = [];
  private readonly timers: NodeJS.Timeout[] = [];
  private outputTimer: NodeJS.Timeout | undefined;
  private readonly listeningSince = Math.round(EPOCH + clock());
  private readonly troubles = new Trouble();
  private readonly rates = new Rates({ at: clock(), heard: 0, sent: 0 });
  private readonly polling: Polling;
  private moving = Promise.resolve();

  constructor(
    setup: EngineSetup,
    private readonly tell: (message: FromEngine) => void,
    earFile: URL,
  ) {
    this.settings = setup.settings;
    const routeCid = cidOfRoutes(setup.cid);
    const shared = new SharedLevels(setup.memory);
    this.ingest = new Ingest(
      shared,
      (key, row, memory) => new LiveUniverse(key, row, memory),
      { taken: setup.cid, routes: routeCid },
      {
        onLevels: (key, now) => this.router.came(key, now),
        onSyncAddress: (universe) => this.sockets.join(universe),
        onUniverse: ({ key, row }) => this.newRows.push([key, row]),
        onDiscovered: (page, address, now) => {
          this.discovered.note(page, address, now);
          page.universes.forEach((universe) => this.sockets.join(universe));
        },
        onPoll: (poll, address) => this.polling.answer(poll, address),
        onPollReply: (reply, address, now) => {
          if (address !== this.using.artnet?.address) this.nodes.note(reply, address, now);
        },
        onIpProgReply: (reply, address) => this.nodes.noteIp(reply, address),
      },
    );
    this.sockets = new Sockets(earFile, setup.ports, EPOCH, {
      sacn: (bytes, address, at) => this.ingest.sacn(bytes, address, at),
      artnet: (bytes, address, sent, at) => this.ingest.artnet(bytes, address, sent, at),
      trouble: (error) => this.trouble(plainTrouble(error)),
    });
    this.output = new Output(setup.cid, outputSettings(setup.settings), {
      levelsOfOthers: (key) => this.ingest.universe(key)!.levelsOfOthers(clock(), this.timeoutOf(key)),
      sendSacn: (bytes, universe) => this.sockets.sendSacn(bytes, universe),
      sendArtNet: (bytes, address) => this.sockets.sendArtNet(bytes, address),
      artnetTargets: (portAddress) => this.nodes.listeners(portAddress, clock()),
      broadcastAddress: () => (this.using.artnet ? broadcastOf(this.using.artnet) : undefined),
      ownAddress: () => this.using.artnet?.address,
    });
    this.polling = new Polling({
      wanted: () => this.settings.poll,
      artnet: () => this.using.artnet,
      send: (bytes, to) => this.sockets.sendFromArtNetPort(bytes, to),
      toAskForIp: (now, before) => this.nodes.toAskForIp(now, before),
    });
    this.router = new Router(routeCid, shared, {
      universe: (key) => this.ingest.known(key),
      timeoutOf: (key) => this.timeoutOf(key),
      isHot: () => this.output.isHot,
      sacn: (bytes, universe, address, by) => this.sockets.sendRoutedSacn(bytes, universe, address, by),
      artnet: (bytes, address, by) => this.sockets.sendRoutedArtNet(bytes, address, by),
      artnetListeners: (portAddress) => {
        const own = this.using.artnet?.address;
        const others = this.nodes.listeners(portAddress, clock()).addresses;
        return own === undefined || others.includes(own) ? others : [...others, own];
      },
      broadcastAddress: (by) => {
        const found = by === '' ? this.using.artnet : listInterfaces().find(({ address }) => address === by);
        return found ? broadcastOf(found) : undefined;
      },
    });
  }

  async start(): Promise<void> {
    warmUp();
    await this.sockets.open();
    this.sockets.join(Sacn.E131_DISCOVERY_UNIVERSE);
    await this.followInterface();
    this.every(WATCHED_MS, () => this.mergeDue());
    this.every(ROUTES_MS, () => this.router.tick(clock()));
    this.every(SWEEP_MS, () => this.sweep());
    this.every(REPORT_MS / REPORT_PARTS, () => this.reportDue());
    this.every(INTERFACES_MS, () => void this.followInterface());
    this.every(ArtNet.POLL_INTERVAL_MS, () => this.polling.poll(clock()));
    this.every(Sacn.E131_E131_UNIVERSE_DISCOVERY_INTERVAL_MS, () => this.announce());
    this.runOutput(clock());
    this.polling.poll(clock());
    // The first report is there before anybody can ask for it.
    this.tell({ type: 'report', report: this.report() });
  }

  private every(ms: number, act: () => void): void {
    this.timers.push(setInterval(act, ms));
  }

  /** A clock that keeps its beat: each frame is timed from the one before, not from when it ran. */
  private runOutput(due: number): void {
    const next = Math.max(due + 1000 / this.settings.outputRate, clock());
    this.outputTimer = setTimeout(() => {
      this.output.tick(clock());
      this.runOutput(next);
    }, next - clock());
  }

  stop(): void {
    this.router.stopAll();
    this.output.makeSafe();
    this.timers.forEach(clearInterval);
    clearTimeout(this.outputTimer);
    // What was just handed to the sockets leaves before they close.
    setTimeout(() => this.sockets.close(), 50);
  }

  private timeoutOf(key: number): number {
    return key & 0x10000 ? this.settings.artnetTimeout : Sacn.E131_NETWORK_DATA_LOSS_TIMEOUT_MS;
  }

  private trouble(text: string): void {
    this.troubles.note(text, clock());
  }

  /** Follows the interfaces chosen: takes them up when they are there, lets go when they are gone. */
  private followInterface(): Promise<void> {
    const next = chooseInterfaces(listInterfaces(), this.settings, this.networks);
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

  /** Rows not yet told: a thousand universes that begin at once are one message, not a thousand. */
  private newRows: [number, number][] = [];

  private mergeDue(): void {
    const now = clock();
    if (this.newRows.length > 0) {
      this.tell({ type: 'rows', rows: this.newRows });
      this.newRows = [];
    }
    for (const key of this.watched) {
      const universe = this.ingest.universe(key);
      if (universe?.dirty) universe.merge(now, this.timeoutOf(key));
    }
    for (const [key, slot] of this.inspected) {
      const contenders = this.ingest.universe(key)?.contendersAt(slot, now, this.timeoutOf(key)) ?? [];
      const said = JSON.stringify(contenders.map(({ mark, value, priority }) => [mark, value, priority]));
      if (said !== this.said.get(key * 512 + slot)) {
        this.said.set(key * 512 + slot, said);
        this.tell({ type: 'contenders', key, slot, contenders });
      }
    }
  }

  /** What was last told of each inspected slot, so that it is told again only when it changed. */
  private said = new Map<number, string>();

  private sweep(): void {
    const now = clock();
    for (const universe of this.ingest.universes) universe.sweep(now, this.timeoutOf(universe.key));
    this.router.sweep(now);
    this.said.clear();
  }

  private part = 0;
  private reportedTo = 0;

  private reportDue(): void {
    this.part = (this.part + 1) % REPORT_PARTS;
    const many = this.ingest.universes.length > UNIVERSES_A_PART;
    if (many || this.part === 0) this.tell({ type: 'universes', universes: this.nextUniverses(clock()) });
    if (this.part === 0) this.tell({ type: 'report', report: this.report() });
  }

  /** The universes whose turn it is to be reported. */
  private nextUniverses(now: number): EngineUniverse[] {
    const all = this.ingest.universes;
    const from = this.reportedTo >= all.length ? 0 : this.reportedTo;
    this.reportedTo = from + UNIVERSES_A_PART;
    return all.slice(from, this.reportedTo).map(({ key, streams }) => {
      const timeout = this.timeoutOf(key);
      for (const stream of streams)
        if (stream.origin.protocol === 'artnet')
          stream.name = stream.origin.sent === 'others' ? this.nodes.nameOf(stream.address) : OWN_NAME;
      return { key, streams: streams.map((stream) => stream.report(now, timeout, EPOCH)) };
    });
  }

  private announce(): void {
    for (const page of [...this.output.discovery(), ...this.router.discovery()])
      this.sockets.sendSacn(page, Sacn.E131_DISCOVERY_UNIVERSE);
  }

  handle(message: ToEngine): void {
    switch (message.type) {
      case 'settings':
        this.settings = message.settings;
        this.output.configure(outputSettings(message.settings));
        void this.followInterface();
        return;
      case 'plan':
        this.networks = message.networks;
        void this.followInterface();
        for (const { key, merge } of message.universes) {
          this.ingest.universe(key)?.setMode(merge);
          if (key < wireKey({ protocol: 'artnet', number: 0 })) this.sockets.join(key);
        }
        this.router.setPlan(message.router);
        this.router.sacnUniverses.forEach((universe) => this.sockets.join(universe));
        return;
      case 'watch':
        this.watched = new Set(message.keys);
        this.inspected = message.slots;
        this.router.watch(new Set(message.keys.filter((key) => key >= ROUTE_KEYS).map((key) => key - ROUTE_KEYS)));
        this.said.clear();
        for (const [key] of message.slots) this.ingest.universe(key)?.rememberChanges();
        return;
      case 'levels':
        return this.output.setLevels(message.client, message.key, message.levels);
      case 'hot':
        if (message.hot) this.output.makeHot(message.by, Math.round(EPOCH + clock()));
        else {
          this.router.stopAll();
          this.output.makeSafe();
        }
        return this.answer(message.ask, undefined);
      case 'take':
        return this.answer(message.ask, this.output.take(message.order, Math.round(EPOCH + clock())));
      case 'giveBack': {
        const { client, slots } = message.order;
        const wanted = slots && new Set(slots.map(([key, slot]) => key * 512 + slot));
        this.output.giveBack(
          (hold, key, slot) => (!client || hold.client === client) && (!wanted || wanted.has(key * 512 + slot)),
        );
        return this.answer(message.ask, undefined);
      }
      case 'runRoutes':
        return this.answer(
          message.ask,
          this.router.run(message.ids, message.on, message.by, Math.round(EPOCH + clock())),
        );
      case 'giveBackRoute':
        return this.answer(message.ask, this.router.giveBack(message.id));
      case 'learn':
        return this.learn(message.ask);
      case 'program':
        void program(
          {
            send: (bytes, address) => this.sockets.sendFromArtNetPort(bytes, address),
            pollAll: () => this.sockets.sendFromArtNetPort(encodePoll(), 'broadcast'),
            whereIs: () => this.nodes.whereIs(message.mac, message.address),
            now: clock,
          },
          message.address,
          message.packets,
        ).then((refused) => this.tell({ type: 'answer', ask: message.ask, refused }));
        return;
      case 'report':
        return this.answer(message.ask, undefined);
      case 'scan':
        this.sockets.sendFromArtNetPort(encodePoll(), 'broadcast');
        return;
      case 'leave':
        return this.output.giveBack((hold) => hold.client === message.client && !hold.stay);
      case 'stop':
        return this.stop();
    }
  }

  private learn(ask: number): void {
    const finder = new FaderFinder(clock());
    const timer = setInterval(() => {
      const found = finder.look(this.ingest.universes, clock());
      if (found === undefined) return;
      clearInterval(timer);
      this.tell({ type: 'learned', ask, found });
    }, LEARN_MS);
  }

  private answer(ask: number, refused: string | undefined): void {
    this.tell({ type: 'report', report: this.report() });
    this.tell({ type: 'answer', ask, refused });
  }

  private report(): EngineReport {
    const now = clock();
    const rates = this.rates.of(now, this.ingest.packets, this.sockets.sent);
    return {
      at: Math.round(EPOCH + now),
      listeningSince: this.listeningSince,
      interface: this.using.sacn,
      artnetInterface: this.using.artnet,
      trouble: this.troubles.says(this.using, this.settings, now),
      nodes: this.nodes.report(now, EPOCH),
      discovered: this.discovered.report(now, EPOCH),
      output: this.output.report(rates.sent),
      ...this.router.report(now),
      packetsPerSecond: rates.heard,
      packets: this.ingest.packets,
      rejected:
        this.sockets.lost > 0 ? { ...this.ingest.rejected, 'no-room': this.sockets.lost } : this.ingest.rejected,
    };
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

const outputSettings = ({ outputRate, outputPriority, artnetBroadcast }: Settings) => ({
  rate: outputRate,
  priority: outputPriority,
  broadcast: artnetBroadcast,
});
