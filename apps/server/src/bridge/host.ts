/** The server's side of the engine: its thread and the receiving one, orders to them, and their reports joined with the plan. */
import { MessageChannel, type MessagePort } from 'node:worker_threads';
import { wireKey } from '@taxiarch/core/base/address';
import type { LiveReport, NodesReply, Settings } from '@taxiarch/core/whole/contract';
import { Happenings } from '@taxiarch/core/truth/known';
import { ROUTE_KEYS } from '@taxiarch/core/whole/contract/feed';
import { addressesOf } from '@taxiarch/core/network/ip';
import type { SlotContender } from '@taxiarch/core/signal/merge';
import type { PlugReport } from '@taxiarch/core/protocol/plug';
import type { LampPort, LampRequest, LampTable } from '@taxiarch/core/truth/roll';
import type { PlanView } from './plan';
import type { ReceiverSetup, ToReceiver } from './receiverMessages';
import { PacketRing } from './ring';
import { universesNow } from './joined';
import type {
  Asking,
  EngineReport,
  EngineSetup,
  EngineUniverse,
  FoundFader,
  FromEngine,
  ToEngine,
} from './engineMessages';
import { Asks } from './asks';
import { Away } from './away';
import { endStreams, type Sending } from '../keep/lastWords';
import type { Notices } from './notices';
import { MOST_UNIVERSES, SharedLevels } from './shared';
import { Supervised } from './supervisor';
import { Unread } from './unread';

/** A report older than this is never given as how it is now. */
const OLD_MS = 2000;
/** At 88,000 packets a second, about a second. Memory that no packet ever came to costs nothing. */
const RING_BYTES = 64 * 1024 * 1024;
/** While no report comes, those who follow are told so this often. */
const TELL_OLD_MS = 500;

export interface EngineFiles {
  readonly engine: URL;
  readonly receiver: URL;
}

export interface EngineStart {
  readonly cid: Uint8Array;
  readonly ports: { readonly sacn: number; readonly artnet: number };
  readonly settings: Settings;
}

const again = (after: number): string => `It was started again after ${(after / 1000).toFixed(1)} s`;

/** What a lamp answered, and what asking has cost its port in all */
export type LampsAnswer = Pick<Extract<FromEngine, { type: 'lamp' }>, 'answers' | 'use'>;

export class EngineHost {
  readonly levels = new SharedLevels();
  private readonly ring = PacketRing.memory(RING_BYTES);
  private readonly rows = new Map<number, number>();
  /** What was last reported of each universe; they are reported in parts. */
  private readonly universes = new Map<number, EngineUniverse>();
  private readonly engine: Supervised<ToEngine, FromEngine>;
  private readonly receiver: Supervised<ToReceiver, { type: 'none' }>;
  /** The receiving thread's end of a fresh channel, until it takes it over */
  private forReceiver: MessagePort | undefined;
  private readonly asks = new Asks();
  private lastReport: LiveReport | undefined;
  readonly happened = new Happenings();
  private reportedAt = -Infinity;
  private away = '';
  private settings: Settings;
  private watched: Extract<ToEngine, { type: 'watch' }> = { type: 'watch', keys: [], slots: [] };
  private readonly unread: Unread;
  private readonly telling: NodeJS.Timeout;
  /** DMX adapters that run */
  plugs: () => readonly PlugReport[] = () => [];
  /** Nothing may be sent: it is safe, or the engine is gone. */
  onSafe: () => void = () => undefined;
  onReport: (report: LiveReport) => void = () => undefined;
  /** The routes that run are others than before. */
  onRunning: (ids: readonly string[]) => void = () => undefined;
  onContenders: (key: number, slot: number, contenders: readonly SlotContender[]) => void = () => undefined;

  private constructor(
    files: EngineFiles,
    private readonly first: EngineStart,
    private plan: PlanView,
    private readonly notices: Notices,
  ) {
    this.settings = first.settings;
    this.unread = new Unread(notices);
    this.receiver = new Supervised({
      file: files.receiver,
      data: () => {
        const port = this.forReceiver ?? this.joinThreads();
        this.forReceiver = undefined;
        const data = { ports: first.ports, memory: this.ring, port, epoch: performance.timeOrigin };
        return { data: data satisfies ReceiverSetup, transfer: [port] };
      },
      received: () => undefined,
      failed: (why) =>
        notices.say('receiver', `Receiving failed: ${why}. It is being started again; nothing is heard until then.`),
      back: (after, why) => notices.say('receiver', `Receiving failed: ${why}. ${again(after)}.`),
    });
    this.engine = new Supervised({
      file: files.engine,
      data: () => {
        const { port1, port2 } = new MessageChannel();
        if (this.receiver.up) this.receiver.tell({ type: 'engine', port: port2 }, [port2]);
        else this.forReceiver = port2;
        const { cid, ports } = first;
        const setup = { memory: this.levels.memory, ring: this.ring, cid, ports, settings: this.settings };
        return { data: { ...setup, receiver: port1 } satisfies EngineSetup, transfer: [port1] };
      },
      received: (message) => this.handle(message),
      failed: (why) => this.engineFailed(why),
      back: (after, why) => this.engineBack(after, why),
    });
    this.telling = setInterval(() => this.tellOld(), TELL_OLD_MS);
    notices.onChange = () => this.tellAgain();
  }

  /** A channel from a receiving thread that starts to the engine that runs. */
  private joinThreads(): MessagePort {
    const { port1, port2 } = new MessageChannel();
    this.engine.tell({ type: 'receiver', port: port1 }, [port1]);
    return port2;
  }

  /** Starts both threads; rejects with the reason if they cannot listen. */
  static async start(files: EngineFiles, start: EngineStart, plan: PlanView, notices: Notices): Promise<EngineHost> {
    const host = new EngineHost(files, start, plan, notices);
    try {
      const engine = host.engine.start();
      await host.receiver.start();
      await engine;
    } catch (error) {
      await host.stop();
      throw error;
    }
    host.setPlan(plan);
    return host;
  }

  private handle(message: FromEngine): void {
    switch (message.type) {
      case 'rows':
        for (const [key, row] of message.rows) this.rows.set(key, row);
        return;
      case 'universes':
        for (const universe of message.universes) this.universes.set(universe.key, universe);
        return;
      case 'report':
        this.note(message.report);
        return;
      case 'notice':
        return this.notices.say(message.id, message.sentence, message.mend);
      case 'contenders':
        this.onContenders(message.key, message.slot, message.contenders);
        return;
      case 'learned':
        return this.asks.settle(message.ask, message.found);
      case 'lamp':
        return this.asks.settle(message.ask, message);
      case 'table':
        return this.asks.settle(message.ask, message.table);
      case 'nodes':
        return this.asks.settle(message.ask, message.page);
      case 'answer':
        return this.asks.settle(message.ask, message.refused);
    }
  }

  private sending: readonly Sending[] = [];
  /** What is sent is other than before. */
  onSending: (streams: readonly Sending[]) => void = () => undefined;

  private note({ sending, ...report }: EngineReport): void {
    this.reportedAt = performance.now();
    if (sending.length > 0 || this.sending.length > 0) {
      this.sending = sending;
      this.onSending(sending);
    }
    const universes = universesNow(report, this.universes.values(), this.plan);
    this.unread.look(report);
    if (!report.output.hot) this.onSafe();
    const plugs = this.plugs();
    this.lastReport = { ...report, plugs, polled: this.settings.poll, age: 0, notices: this.notices.list(), universes };
    this.happened.look(this.lastReport);
    const [newest] = this.happened.list(report.at);
    if (newest) this.lastReport = { ...this.lastReport, newest };
    this.onReport(this.lastReport);
    this.tellRunning(report);
  }

  /** Followers are told that what they have is old, and how old. */
  private tellOld(): void {
    const age = Math.round(performance.now() - this.reportedAt);
    if (!this.lastReport || age < OLD_MS / 2) return;
    this.onReport({
      ...this.lastReport,
      age,
      notices: this.notices.list(),
      trouble: this.away || this.lastReport.trouble,
    });
  }

  /** The notices changed: followers need not wait for the next report. */
  private tellAgain(): void {
    const last = this.last();
    if (last) this.onReport(last);
  }

  private engineFailed(why: string): void {
    const hot = this.lastReport?.output.hot ?? false;
    this.away = `The engine failed: ${why}. It is being started again.`;
    this.notices.say(
      'engine',
      `${this.away}${hot ? ' Taxiarch was hot; it comes back safe, and what was taken is not sent any more.' : ''}`,
    );
    this.onSafe();
    void endStreams(this.sending, this.first.ports.sacn);
    this.sending = [];
    this.onSending([]);
    this.asks.refuse(new Away(this.away));
    this.rows.clear();
    this.universes.clear();
    this.reportedAt = -Infinity;
    if (this.lastReport) {
      const { output } = this.lastReport;
      this.lastReport = {
        ...this.lastReport,
        output: { ...output, hot: false, since: 0, by: '', holds: [], pictures: [], rate: 0 },
      };
      this.onReport({ ...this.lastReport, age: OLD_MS + 1, notices: this.notices.list(), trouble: this.away });
    }
    this.onRunning([]);
    this.running = '';
  }

  private engineBack(after: number, why: string): void {
    this.away = '';
    this.notices.say('engine', `The engine failed: ${why}. ${again(after)}, safe.`);
    this.engine.tell(this.watched);
    this.setPlan(this.plan);
  }

  private running = '';

  private tellRunning({ routes }: Pick<EngineReport, 'routes'>): void {
    const ids = routes.filter(({ running }) => running).map(({ id }) => id);
    if (String(ids) === this.running) return;
    this.running = String(ids);
    this.onRunning(ids);
  }

  /** Asks the engine to do something; resolves with a sentence if it refused. Rejects with {@link Away}. */
  ask(message: Asking): Promise<string | undefined> {
    return this.asking((ask) => ({ ...message, ask }));
  }

  /** Waits for a person to move a fader on another desk; null if nobody did in time. */
  learn(): Promise<FoundFader | null> {
    return this.asking((ask) => ({ type: 'learn', ask }));
  }

  /** A page of all devices that are remembered, from so many on. */
  nodes(from: number): Promise<NodesReply> {
    return this.asking((ask) => ({ type: 'nodes', from, ask }));
  }

  /** Asks a lamp; its answers in the order of the requests. */
  lamp(port: LampPort, requests: readonly LampRequest[], urgent: boolean): Promise<LampsAnswer> {
    return this.asking((ask) => ({ type: 'lamp', port, requests, urgent, ask }));
  }

  /** Who hangs on a port. */
  table(port: LampPort, afresh: boolean): Promise<LampTable> {
    return this.asking((ask) => ({ type: 'table', port, afresh, ask }));
  }

  /** Drops what waits to be asked of lamps. */
  askNoLamps(): void {
    this.engine.tell({ type: 'noLamps' });
  }

  private asking<T>(message: (ask: number) => ToEngine): Promise<T> {
    if (!this.engine.up) return Promise.reject(this.awayError());
    return this.asks.ask<T>((ask) => this.engine.tell(message(ask)));
  }

  private awayError(): Away {
    return new Away(this.away || 'The engine has just started; ask again in a second.');
  }

  setPlan(plan: PlanView): void {
    this.plan = plan;
    this.engine.tell({
      type: 'plan',
      universes: plan.universe.map(({ protocol, wire, merge }) => ({
        key: wireKey({ protocol, number: wire }),
        merge,
      })),
      networks: plan.network,
      machines: {
        addresses: plan.machine.flatMap((machine) => addressesOf(machine).map(({ text }) => text)),
        macs: plan.machine.flatMap(({ interfaces }) => interfaces.map(({ mac }) => mac)).filter((mac) => mac !== ''),
      },
      router: {
        routes: plan.route,
        controls: plan.control,
        reach: plan.reach,
      },
    });
  }

  setSettings(settings: Settings): void {
    this.settings = settings;
    this.engine.tell({ type: 'settings', settings });
  }

  /** Asks for nodes at once, not only at the next poll. */
  scan(): void {
    this.engine.tell({ type: 'scan' });
  }

  private looked: readonly number[] = [];
  private merged: readonly number[] = [];

  watch(keys: readonly number[], slots: readonly (readonly [number, number])[]): void {
    this.looked = keys;
    this.watched = { type: 'watch', keys: [...new Set([...keys, ...this.merged])], slots };
    this.engine.tell(this.watched);
  }

  /** Universes and routes that are merged although nobody looks at them: they leave by a plug. */
  keepMerged(keys: readonly number[]): void {
    if (String(keys) === String(this.merged)) return;
    this.merged = keys;
    this.watch(this.looked, this.watched.slots);
  }

  /** Slots that came by a plug of this computer. */
  plugged(frame: Omit<Extract<ToEngine, { type: 'plugged' }>, 'type'>): void {
    this.engine.tell({ type: 'plugged', ...frame });
  }

  /** Row of a route among those of routes; undefined before the engine told of it. */
  routeRow(id: string): number | undefined {
    return this.lastReport?.routes.find((one) => one.id === id)?.row;
  }

  setLevels(client: string, key: number, levels: readonly (readonly [number, number])[]): void {
    this.engine.tell({ type: 'levels', client, key, levels });
  }

  /** A client went away: what it did not mark to stay is given back. */
  leave(client: string): void {
    this.engine.tell({ type: 'leave', client });
  }

  /** Row of a universe in the shared levels; undefined until it has one. */
  rowOf(key: number): number | undefined {
    return key >= ROUTE_KEYS ? MOST_UNIVERSES - 1 - (key - ROUTE_KEYS) : this.rows.get(key);
  }

  /** What is on the wire at this moment, not at the last half second. */
  async freshReport(): Promise<LiveReport> {
    await this.ask({ type: 'report' });
    return this.now();
  }

  /** The last report, if it is still true. Throws {@link Away} otherwise. */
  now(): LiveReport {
    if (!this.lastReport || performance.now() - this.reportedAt > OLD_MS) throw this.awayError();
    return { ...this.lastReport, notices: this.notices.list() };
  }

  /** The last report with its age, however old; undefined before the first. */
  last(): LiveReport | undefined {
    const age = Math.max(0, Math.round(performance.now() - this.reportedAt));
    return this.lastReport && { ...this.lastReport, age, notices: this.notices.list() };
  }

  /** For tests: makes a thread throw or hang. */
  break(thread: 'engine' | 'receiver', how: 'throw' | 'hang'): void {
    this[thread].tell({ type: 'break', how });
  }

  async stop(): Promise<void> {
    clearInterval(this.telling);
    await this.engine.stop({ type: 'stop' });
    await this.receiver.stop({ type: 'close' });
  }
}
