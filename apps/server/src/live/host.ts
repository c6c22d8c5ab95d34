/** The server's side of the engine thread: starts it, passes orders on, and joins its reports with the plan. */
import { Worker } from 'node:worker_threads';
import { fromWireKey, wireKey, type Protocol } from '@taxiarch/core/address';
import {
  ROUTE_KEYS,
  type LiveReport,
  type Settings,
  type SlotContender,
  type StreamReport,
  type UniverseReport,
} from '@taxiarch/core/contract';
import { sendersByUniverse, standingOf, universesByWire, type HeardStream } from '@taxiarch/core/flow';
import { rigOf } from '@taxiarch/core/patch';
import { reachOf } from '@taxiarch/core/route';
import type { ShowRecords } from '@taxiarch/core/show';
import type { EngineReport, EngineSetup, EngineUniverse, FromEngine, GiveBackOrder, ToEngine } from './messages';
import type { FoundFader } from './faderFinder';
import type { TakeOrder } from './output';
import { MOST_UNIVERSES, SharedLevels } from './shared';

type Asking =
  | { type: 'hot'; hot: boolean; by: string }
  | { type: 'take'; order: TakeOrder }
  | { type: 'giveBack'; order: GiveBackOrder }
  | { type: 'program'; address: string; mac: string; packets: readonly Uint8Array[] }
  | { type: 'runRoutes'; ids: readonly string[]; on: boolean; by: string }
  | { type: 'giveBackRoute'; id: string }
  | { type: 'report' };

export class LiveHost {
  readonly levels = new SharedLevels();
  private readonly rows = new Map<number, number>();
  /** What was last reported of each universe; they are reported in parts. */
  private readonly universes = new Map<number, EngineUniverse>();
  private readonly worker: Worker;
  private readonly asked = new Map<number, (refused: string | undefined) => void>();
  private readonly learning = new Map<number, (found: FoundFader | null) => void>();
  private asks = 0;
  private lastReport: LiveReport | undefined;
  private plan: ShowRecords;
  onReport: (report: LiveReport) => void = () => undefined;
  /** The routes that run are others than before. */
  onRunning: (ids: readonly string[]) => void = () => undefined;
  onContenders: (key: number, slot: number, contenders: readonly SlotContender[]) => void = () => undefined;

  private constructor(
    workerFile: URL | string,
    setup: Omit<EngineSetup, 'memory'>,
    plan: ShowRecords,
    started: (refused?: string) => void,
  ) {
    this.plan = plan;
    this.worker = new Worker(workerFile, {
      workerData: { ...setup, memory: this.levels.memory } satisfies EngineSetup,
    });
    this.worker.on('message', (message: FromEngine) => {
      if (message.type === 'ready') started();
      else if (message.type === 'failed') started(message.why);
      else this.handle(message);
    });
    this.worker.on('error', (error) => started(error.message));
  }

  /** Starts the engine; rejects with its reason if it cannot listen. */
  static async start(
    workerFile: URL | string,
    setup: Omit<EngineSetup, 'memory'>,
    plan: ShowRecords,
  ): Promise<LiveHost> {
    const host = await new Promise<LiveHost>((resolve, reject) => {
      const starting: LiveHost = new LiveHost(workerFile, setup, plan, (refused) =>
        refused === undefined ? resolve(starting) : reject(new Error(refused)),
      );
    });
    host.setPlan(plan);
    return host;
  }

  private handle(message: Exclude<FromEngine, { type: 'ready' | 'failed' }>): void {
    switch (message.type) {
      case 'rows':
        for (const [key, row] of message.rows) this.rows.set(key, row);
        return;
      case 'universes':
        for (const universe of message.universes) this.universes.set(universe.key, universe);
        return;
      case 'report':
        this.lastReport = joinWithPlan(message.report, [...this.universes.values()], this.plan);
        this.onReport(this.lastReport);
        this.tellRunning(message.report);
        return;
      case 'contenders':
        this.onContenders(message.key, message.slot, message.contenders);
        return;
      case 'learned':
        this.learning.get(message.ask)?.(message.found);
        this.learning.delete(message.ask);
        return;
      case 'answer':
        this.asked.get(message.ask)?.(message.refused);
        this.asked.delete(message.ask);
    }
  }

  private running = '';

  private tellRunning({ routes }: EngineReport): void {
    const ids = routes.filter(({ running }) => running).map(({ id }) => id);
    if (String(ids) === this.running) return;
    this.running = String(ids);
    this.onRunning(ids);
  }

  private tell(message: ToEngine): void {
    this.worker.postMessage(message);
  }

  /** Asks the engine to do something; resolves with a sentence if it refused. */
  ask(message: Asking): Promise<string | undefined> {
    this.asks += 1;
    const ask = this.asks;
    return new Promise((resolve) => {
      this.asked.set(ask, resolve);
      this.tell({ ...message, ask });
    });
  }

  /** Waits for a person to move a fader on another desk; null if nobody did in time. */
  learn(): Promise<FoundFader | null> {
    this.asks += 1;
    const ask = this.asks;
    return new Promise((resolve) => {
      this.learning.set(ask, resolve);
      this.tell({ type: 'learn', ask });
    });
  }

  setPlan(plan: ShowRecords): void {
    this.plan = plan;
    this.tell({
      type: 'plan',
      universes: plan.universe.map(({ protocol, wire, merge }) => ({
        key: wireKey({ protocol, number: wire }),
        merge,
      })),
      networks: plan.network,
      router: {
        routes: plan.route,
        controls: plan.control,
        reach: plan.control.length > 0 ? reachOf(plan, rigOf(plan).patch) : [],
      },
    });
  }

  setSettings(settings: Settings): void {
    this.tell({ type: 'settings', settings });
  }

  /** Asks for nodes at once, not only at the next poll. */
  scan(): void {
    this.tell({ type: 'scan' });
  }

  watch(keys: readonly number[], slots: readonly (readonly [number, number])[]): void {
    this.tell({ type: 'watch', keys, slots });
  }

  setLevels(client: string, key: number, levels: readonly (readonly [number, number])[]): void {
    this.tell({ type: 'levels', client, key, levels });
  }

  /** A client went away: what it did not mark to stay is given back. */
  leave(client: string): void {
    this.tell({ type: 'leave', client });
  }

  /** Row of a universe in the shared levels; undefined until it has one. */
  rowOf(key: number): number | undefined {
    return key >= ROUTE_KEYS ? MOST_UNIVERSES - 1 - (key - ROUTE_KEYS) : this.rows.get(key);
  }

  /** What is on the wire at this moment, not at the last half second. */
  async freshReport(): Promise<LiveReport | undefined> {
    await this.ask({ type: 'report' });
    return this.lastReport;
  }

  report(): LiveReport | undefined {
    return this.lastReport;
  }

  async stop(): Promise<void> {
    const ended = new Promise((resolve) => this.worker.once('exit', resolve));
    this.tell({ type: 'stop' });
    await ended;
  }
}

const heardOf = (stream: StreamReport, protocol: Protocol, at: number): HeardStream => ({
  ...stream,
  protocol,
  age: at - stream.lastSeen,
});

/** Every universe planned or heard, with the word that says how it stands. */
function joinWithPlan(report: EngineReport, heard: readonly EngineUniverse[], plan: ShowRecords): LiveReport {
  const planned = universesByWire(plan.universe);
  const senders = sendersByUniverse(plan.source);
  const universes: UniverseReport[] = [];
  for (const { key, streams } of heard) {
    const wire = fromWireKey(key);
    const universe = planned.get(key);
    if (!universe && streams.every((stream) => stream.lost)) continue;
    universes.push({
      key,
      ...wire,
      show: universe?.number ?? null,
      name: universe?.name ?? '',
      ...standingOf(
        universe && (senders.get(universe.number) ?? []),
        streams.map((stream) => heardOf(stream, wire.protocol, report.at)),
      ),
      streams,
    });
  }
  universes.sort((a, b) => (a.show ?? Infinity) - (b.show ?? Infinity) || a.key - b.key);
  return { ...report, universes };
}
