/**
 * The server's side of the engine. Each conversation has a module of its own: starting it (`engineThreads`), asking it
 * (`questions`), what it reports (`reporting`), and what it is to merge (`watching`); here they are put together.
 */
import type { LiveReport, NodesReply, Settings } from '@taxiarch/core/whole/contract';
import type { Happenings } from '@taxiarch/core/truth/known';
import type { PlugReport } from '@taxiarch/core/protocol/plug';
import type { SlotContender } from '@taxiarch/core/signal/merge';
import type { LampPort, LampRequest, LampTable } from '@taxiarch/core/truth/roll';
import { endStreams } from '../keep/lastWords';
import type { Asking, FoundFader, FromEngine, ToEngine } from './engineMessages';
import { EngineThreads, again, type EngineFiles, type EngineStart } from './engineThreads';
import type { Notices } from './notices';
import { orderOf, type PlanView } from './plan';
import { Questions, type LampsAnswer } from './questions';
import { Reporting, type Followers } from './reporting';
import { SharedLevels } from './shared';
import { Watching } from './watching';

export class EngineHost implements Followers {
  readonly levels = new SharedLevels();
  private readonly threads: EngineThreads;
  private readonly questions: Questions;
  private readonly reporting: Reporting;
  private readonly watching: Watching;
  private settings: Settings;
  /** DMX adapters that run */
  plugs: () => readonly PlugReport[] = () => [];
  onSafe: Followers['onSafe'] = () => undefined;
  onReport: Followers['onReport'] = () => undefined;
  onRunning: Followers['onRunning'] = () => undefined;
  onSending: Followers['onSending'] = () => undefined;
  onContenders: (key: number, slot: number, contenders: readonly SlotContender[]) => void = () => undefined;

  private constructor(
    files: EngineFiles,
    private readonly first: EngineStart,
    private plan: PlanView,
    private readonly notices: Notices,
  ) {
    this.settings = first.settings;
    const settings = () => this.settings;
    this.threads = new EngineThreads(
      files,
      first,
      this.levels.memory,
      {
        settings,
        received: (message) => this.handle(message),
        failed: (why) => this.failed(why),
        back: (after, why) => this.back(after, why),
      },
      notices,
    );
    this.questions = new Questions(this.threads);
    this.watching = new Watching((message) => this.threads.tell(message));
    this.reporting = new Reporting({ plan: () => this.plan, settings, plugs: () => this.plugs() }, this, notices);
  }

  /** Starts both threads; rejects with the reason if they cannot listen. */
  static async start(files: EngineFiles, start: EngineStart, plan: PlanView, notices: Notices): Promise<EngineHost> {
    const host = new EngineHost(files, start, plan, notices);
    try {
      await host.threads.start();
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
        return this.watching.note(message.rows);
      case 'universes':
        return this.reporting.noteUniverses(message.universes);
      case 'report':
        return this.reporting.note(message.report);
      case 'notice':
        return this.notices.say(message.id, message.sentence, message.mend);
      case 'contenders':
        return this.onContenders(message.key, message.slot, message.contenders);
      default:
        return this.questions.settle(message);
    }
  }

  private failed(why: string): void {
    const away = `The engine failed: ${why}. It is being started again.`;
    const hot = this.reporting.hot
      ? ' Taxiarch was hot; it comes back safe, and what was taken is not sent any more.'
      : '';
    this.notices.say('engine', `${away}${hot}`);
    // Whoever asks on hearing of it is told why.
    this.questions.gone(away);
    this.watching.gone();
    void endStreams(this.reporting.gone(away), this.first.ports.sacn);
  }

  private back(after: number, why: string): void {
    this.questions.back();
    this.reporting.back();
    this.notices.say('engine', `The engine failed: ${why}. ${again(after)}, safe.`);
    this.watching.back();
    this.setPlan(this.plan);
  }

  /** Has the engine do something; resolves with a sentence if it refused. Rejects with {@link Away}, as all questions do. */
  ask(message: Asking): Promise<string | undefined> {
    return this.questions.ask(message);
  }

  learn(): Promise<FoundFader | null> {
    return this.questions.learn();
  }

  nodes(from: number): Promise<NodesReply> {
    return this.questions.nodes(from);
  }

  lamp(port: LampPort, requests: readonly LampRequest[], urgent: boolean): Promise<LampsAnswer> {
    return this.questions.lamp(port, requests, urgent);
  }

  table(port: LampPort, afresh: boolean): Promise<LampTable> {
    return this.questions.table(port, afresh);
  }

  /** Drops what waits to be asked of lamps. */
  askNoLamps(): void {
    this.threads.tell({ type: 'noLamps' });
  }

  setPlan(plan: PlanView): void {
    this.plan = plan;
    this.threads.tell(orderOf(plan));
  }

  setSettings(settings: Settings): void {
    this.settings = settings;
    this.threads.tell({ type: 'settings', settings });
  }

  /** Asks for nodes at once, not only at the next poll. */
  scan(): void {
    this.threads.tell({ type: 'scan' });
  }

  watch(keys: readonly number[], slots: readonly (readonly [number, number])[]): void {
    this.watching.watch(keys, slots);
  }

  keepMerged(keys: readonly number[]): void {
    this.watching.keepMerged(keys);
  }

  rowOf(key: number): number | undefined {
    return this.watching.rowOf(key);
  }

  /** Slots that came by a plug of this computer. */
  plugged(frame: Omit<Extract<ToEngine, { type: 'plugged' }>, 'type'>): void {
    this.threads.tell({ type: 'plugged', ...frame });
  }

  setLevels(client: string, key: number, levels: readonly (readonly [number, number])[]): void {
    this.threads.tell({ type: 'levels', client, key, levels });
  }

  /** A client went away: what it did not mark to stay is given back. */
  leave(client: string): void {
    this.threads.tell({ type: 'leave', client });
  }

  get happened(): Happenings {
    return this.reporting.happened;
  }

  routeRow(id: string): number | undefined {
    return this.reporting.routeRow(id);
  }

  /** What is on the wire at this moment, not at the last half second. */
  async freshReport(): Promise<LiveReport> {
    await this.ask({ type: 'report' });
    return this.now();
  }

  /** The last report, if it is still true. Throws {@link Away} otherwise. */
  now(): LiveReport {
    const now = this.reporting.now();
    if (!now) throw this.questions.away();
    return now;
  }

  last(): LiveReport | undefined {
    return this.reporting.last();
  }

  /** For tests: makes a thread throw or hang. */
  break(thread: 'engine' | 'receiver', how: 'throw' | 'hang'): void {
    this.threads.break(thread, how);
  }

  async stop(): Promise<void> {
    this.reporting.stop();
    await this.threads.stop();
  }
}
