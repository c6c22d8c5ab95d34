/** What the engine reports, joined with the plan: for who asks now, for who follows, and how old it is. */
import { Happenings } from '@taxiarch/core/truth/known';
import type { LiveReport, Settings } from '@taxiarch/core/whole/contract';
import type { PlugReport } from '@taxiarch/core/protocol/plug';
import type { Sending } from '../keep/lastWords';
import type { EngineReport, EngineUniverse } from './engineMessages';
import { universesNow } from './joined';
import type { Notices } from './notices';
import type { PlanView } from './plan';
import { Unread } from './unread';

/** A report older than this is never given as how it is now. */
const OLD_MS = 2000;
/** While no report comes, those who follow are told so this often. */
const TELL_OLD_MS = 500;

/** Who is told. */
export interface Followers {
  /** Nothing may be sent: it is safe, or the engine is gone. */
  onSafe: () => void;
  onReport: (report: LiveReport) => void;
  /** The routes that run are others than before. */
  onRunning: (ids: readonly string[]) => void;
  /** What is sent is other than before. */
  onSending: (streams: readonly Sending[]) => void;
}

/** What a report is joined with, as it is when the report comes. */
export interface Beside {
  plan(): PlanView;
  settings(): Settings;
  /** DMX adapters that run */
  plugs(): readonly PlugReport[];
}

export class Reporting {
  readonly happened = new Happenings();
  /** What was last reported of each universe; they are reported in parts. */
  private readonly universes = new Map<number, EngineUniverse>();
  private lastReport: LiveReport | undefined;
  private reportedAt = -Infinity;
  private running = '';
  private sending: readonly Sending[] = [];
  /** Why the engine is away; empty while it is there */
  private away = '';
  private readonly unread: Unread;
  private readonly telling: NodeJS.Timeout;

  constructor(
    private readonly beside: Beside,
    private readonly followers: Followers,
    private readonly notices: Notices,
  ) {
    this.unread = new Unread(notices);
    this.telling = setInterval(() => this.tellOld(), TELL_OLD_MS);
    notices.onChange = () => this.tellAgain();
  }

  noteUniverses(universes: readonly EngineUniverse[]): void {
    for (const universe of universes) this.universes.set(universe.key, universe);
  }

  note({ sending, ...report }: EngineReport): void {
    this.reportedAt = performance.now();
    if (sending.length > 0 || this.sending.length > 0) {
      this.sending = sending;
      this.followers.onSending(sending);
    }
    const universes = universesNow(report, this.universes.values(), this.beside.plan());
    this.unread.look(report);
    if (!report.output.hot) this.followers.onSafe();
    const { poll: polled } = this.beside.settings();
    const now = { ...report, plugs: this.beside.plugs(), polled, age: 0, notices: this.notices.list(), universes };
    this.happened.look(now);
    const [newest] = this.happened.list(report.at);
    this.lastReport = newest ? { ...now, newest } : now;
    this.followers.onReport(this.lastReport);
    this.tellRunning(report.routes.filter(({ running }) => running).map(({ id }) => id));
  }

  private tellRunning(ids: readonly string[]): void {
    if (String(ids) === this.running) return;
    this.running = String(ids);
    this.followers.onRunning(ids);
  }

  /** Followers are told that what they have is old, and how old. */
  private tellOld(): void {
    const age = Math.round(performance.now() - this.reportedAt);
    if (!this.lastReport || age < OLD_MS / 2) return;
    const trouble = this.away || this.lastReport.trouble;
    this.followers.onReport({ ...this.lastReport, age, notices: this.notices.list(), trouble });
  }

  /** The notices changed: followers need not wait for the next report. */
  private tellAgain(): void {
    const last = this.last();
    if (last) this.followers.onReport(last);
  }

  get hot(): boolean {
    return this.lastReport?.output.hot ?? false;
  }

  /** The engine is gone, and with it all that it sent; returns what that was. */
  gone(why: string): readonly Sending[] {
    this.away = why;
    this.followers.onSafe();
    const sent = this.sending;
    this.sending = [];
    this.followers.onSending([]);
    this.universes.clear();
    this.reportedAt = -Infinity;
    if (this.lastReport) {
      const output = { ...this.lastReport.output, hot: false, since: 0, by: '', holds: [], pictures: [], rate: 0 };
      this.lastReport = { ...this.lastReport, output };
      this.followers.onReport({ ...this.lastReport, age: OLD_MS + 1, notices: this.notices.list(), trouble: why });
    }
    this.followers.onRunning([]);
    this.running = '';
    return sent;
  }

  back(): void {
    this.away = '';
  }

  /** Row of a route among those of routes; undefined before the engine told of it. */
  routeRow(id: string): number | undefined {
    return this.lastReport?.routes.find((one) => one.id === id)?.row;
  }

  /** The last report, if it is still true. */
  now(): LiveReport | undefined {
    if (!this.lastReport || performance.now() - this.reportedAt > OLD_MS) return undefined;
    return { ...this.lastReport, notices: this.notices.list() };
  }

  /** The last report with its age, however old; undefined before the first. */
  last(): LiveReport | undefined {
    const age = Math.max(0, Math.round(performance.now() - this.reportedAt));
    return this.lastReport && { ...this.lastReport, age, notices: this.notices.list() };
  }

  stop(): void {
    clearInterval(this.telling);
  }
}
