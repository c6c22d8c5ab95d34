/** One person at one screen: steps, and after each of them a look at whether all is well. */
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { cpus, loadavg } from 'node:os';
import type { Browser, BrowserContext, Page } from '@playwright/test';
import { faultsOfPage, isBlank } from './checks';
import { Random } from './random';
import { doStep, nextStep, wordsOf, type Step } from './steps';

const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');
/** Steps from one audit to the next */
const AXE_EVERY = 40;
const ANSWER_MS = 2000;
const BLANK_MS = 1000;
const BLANK_FRAMES = 30;
/** Limits are those of an idle computer; on a busy one they stretch with its load. */
const stretch = (): number => Math.max(1, loadavg()[0]! / cpus().length);

export interface Screen {
  readonly width: number;
  readonly height: number;
  readonly theme: 'dark' | 'light';
  /** How many times slower the processor is than this computer's */
  readonly slow: number;
}

export interface Failure {
  readonly why: string;
  readonly steps: readonly Step[];
  readonly at: string;
}

/** What the server may refuse, because nonsense was typed or another was quicker. */
const REFUSALS = new Set([400, 404, 409, 413, 415, 422]);

export class Session {
  private readonly troubles: string[] = [];
  private readonly done: Step[] = [];
  private offline = false;
  page!: Page;
  /** The first window, while the person is in a second one */
  private first: Page | undefined;

  private constructor(
    private readonly context: BrowserContext,
    private readonly screen: Screen,
    private readonly base: string,
  ) {}

  static async open(browser: Browser, screen: Screen, base: string, path = '/'): Promise<Session> {
    const { width, height, theme } = screen;
    const context = await browser.newContext({
      viewport: { width, height },
      colorScheme: theme,
      acceptDownloads: true,
    });
    // Only the app's own pages have a storage.
    await context.addInitScript(`if (location.origin === '${base}') localStorage.setItem('person', 'Wanderer')`);
    const session = new Session(context, screen, base);
    context.on('page', (page) => session.watch(page));
    session.page = await context.newPage();
    const client = await context.newCDPSession(session.page);
    await client.send('Emulation.setCPUThrottlingRate', { rate: screen.slow });
    await session.page.goto(base + path);
    return session;
  }

  private watch(page: Page): void {
    page.on('console', (message) => {
      const text = message.text();
      if (message.type() !== 'error' || /^Failed to load resource/.test(text)) return;
      // What the robot did itself; told late, it may come when the network is back.
      if (/ERR_INTERNET_DISCONNECTED|ERR_NETWORK_CHANGED/.test(text)) return;
      if (/net::ERR_|WebSocket/.test(text) && this.offline) return;
      this.troubles.push(`console: ${text}`);
    });
    page.on('pageerror', (error) => this.troubles.push(`uncaught: ${error.message}`));
    page.on('crash', () => this.troubles.push('the page crashed'));
    page.on('response', (answer) => {
      const status = answer.status();
      if (status >= 400 && !REFUSALS.has(status))
        this.troubles.push(`${status} ${answer.request().method()} ${answer.url()}`);
    });
    page.on('requestfailed', (request) => {
      const why = request.failure()?.errorText ?? '';
      if (!this.offline && !/ERR_ABORTED|ERR_INTERNET_DISCONNECTED|ERR_NETWORK_CHANGED/.test(why))
        this.troubles.push(`${why} ${request.url()}`);
    });
    page.on('dialog', (dialog) => void dialog.accept().catch(() => undefined));
    page.on('popup', (popup) => void popup.close().catch(() => undefined));
    page.on('filechooser', (chooser) => void chooser.setFiles([]).catch(() => undefined));
  }

  /** The next step, done and looked at; what went wrong, if anything did. */
  async wander(random: Random): Promise<Failure | undefined> {
    return this.step(await nextStep(this.page, random, this.offline));
  }

  async step(step: Step): Promise<Failure | undefined> {
    this.done.push(step);
    if (step.kind === 'offline') this.offline = true;
    if (step.kind === 'window') await this.changeWindow();
    else await doStep(this.page, step, this.base);
    if (step.kind === 'online') this.offline = false;
    const found = await this.look();
    // Without a network a browser can't load an earlier document of its history: its own page says so.
    const isBrowsers = await this.page.evaluate(() => location.protocol === 'chrome-error:').catch(() => false);
    const why = isBrowsers ? undefined : found;
    return why === undefined ? undefined : { why, steps: [...this.done], at: this.page.url() };
  }

  private async changeWindow(): Promise<void> {
    if (this.first) {
      const second = this.page;
      this.page = this.first;
      this.first = undefined;
      await second.close();
      await this.page.bringToFront();
      return;
    }
    this.first = this.page;
    this.page = await this.context.newPage();
    await this.page.setViewportSize(this.first.viewportSize()!);
    await this.page.goto(this.first.url());
  }

  private async look(): Promise<string | undefined> {
    const { page } = this;
    // Someone else's page, a file, or out of the show's pages: the person comes back.
    if (!page.url().startsWith(this.base) || /^\/api\//.test(new URL(page.url()).pathname)) {
      if (!this.offline) await page.goto(`${this.base}/`);
      return undefined;
    }
    const asked = performance.now();
    const answer = await Promise.race([
      page.evaluate(() => true).catch(() => true),
      new Promise<undefined>((late) => setTimeout(late, ANSWER_MS * this.screen.slow * stretch(), undefined)),
    ]);
    if (answer === undefined)
      return `the page did not answer within ${((performance.now() - asked) / 1000).toFixed(1)} s`;
    if (await this.staysBlank()) return `the main region stayed empty for ${BLANK_MS * this.screen.slow} ms`;
    const faults = await this.lastingFaults();
    if (faults.length > 0) return faults.join('; ');
    if (this.done.length % AXE_EVERY === 0) {
      const found = await this.audit();
      if (found !== '') return `audit: ${found}`;
    }
    return this.troubles.length > 0 ? this.troubles.join(' | ') : undefined;
  }

  private async staysBlank(): Promise<boolean> {
    const until = performance.now() + BLANK_MS * this.screen.slow * stretch();
    // Frames that a person saw: a computer that is busy elsewhere shows few of them.
    let frames = 0;
    do {
      if (!this.page.url().startsWith(this.base)) return false;
      if (!(await this.page.evaluate(isBlank).catch(() => false))) return false;
      await this.page.evaluate(() => new Promise((frame) => requestAnimationFrame(frame))).catch(() => undefined);
      frames += 1;
    } while (performance.now() < until || frames < BLANK_FRAMES);
    return true;
  }

  /** Faults that are there twice, so that none is one of a layout on its way. */
  private async lastingFaults(): Promise<readonly string[]> {
    const first = await this.page.evaluate(faultsOfPage).catch((): string[] => []);
    if (first.length === 0) return [];
    await this.page.waitForLoadState('domcontentloaded').catch(() => undefined);
    await new Promise((settle) => setTimeout(settle, 300 * this.screen.slow));
    const again = await this.page.evaluate(faultsOfPage).catch((): string[] => []);
    return again.filter((fault) => first.includes(fault));
  }

  private async audit(): Promise<string> {
    const run = async () => {
      await this.page.evaluate(AXE);
      return this.page.evaluate(async () => {
        const { axe } = globalThis as unknown as {
          axe: {
            run(
              what: Document,
              how: object,
            ): Promise<{ violations: { id: string; impact: string; nodes: { html: string }[] }[] }>;
          };
        };
        const { violations } = await axe.run(document, { resultTypes: ['violations'] });
        return violations
          .filter(({ impact }) => impact === 'serious' || impact === 'critical')
          .map(({ id, nodes }) => `${id}: ${nodes[0]?.html.slice(0, 160) ?? ''}`)
          .join(', ');
      });
    };
    // A page that is left while it is audited is none.
    return run().catch(() => '');
  }

  get last(): string {
    const step = this.done.at(-1);
    return step ? wordsOf(step) : 'nothing';
  }

  async picture(path: string): Promise<void> {
    await this.page.screenshot({ path, timeout: 5000 }).catch(() => undefined);
  }

  async close(): Promise<void> {
    await Promise.race([this.context.close(), new Promise((late) => setTimeout(late, 5000))]);
  }
}
