/** The built server in a folder of its own, a browser, and programs beside it, for measuring; all ended whatever comes. */
import { fork, spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type CDPSession, type Page } from '@playwright/test';
import { out } from '../bundle.mjs';
import { wait } from './figure';

/** On ports that nothing else uses. */
export const ports = { http: 34630, sacn: 35568, artnet: 36454 };
/** Where the stand-ins have their panels */
export const PANEL = 37_630;
const PLUG = ['--plug-port', '37217'];
export const base = `http://127.0.0.1:${ports.http}`;

export interface Server {
  readonly pid: number;
  readonly folder: string;
  stop(): Promise<void>;
}

/** Starts it in `folder`. `more`: further arguments. */
export async function startServer(folder: string, more: readonly string[] = []): Promise<Server> {
  const args = {
    port: ports.http,
    data: folder,
    client: join(out, 'client'),
    'sacn-port': ports.sacn,
    'artnet-port': ports.artnet,
  };
  const child = spawn(
    process.execPath,
    [
      join(out, 'server/main.mjs'),
      ...Object.entries(args).flatMap(([name, value]) => [`--${name}`, String(value)]),
      ...more,
    ],
    { stdio: ['ignore', 'pipe', 'inherit'] },
  );
  const ended = new Promise<void>((done) => child.once('exit', () => done()));
  process.once('exit', () => child.kill('SIGKILL'));
  await new Promise((ready) => child.stdout.once('data', ready));
  return {
    pid: child.pid!,
    folder,
    async stop() {
      child.kill('SIGTERM');
      await ended;
    },
  };
}

/** A server in a new folder while `work` lasts. */
export async function withServer<T>(more: readonly string[], work: (server: Server) => Promise<T>): Promise<T> {
  const folder = mkdtempSync(join(tmpdir(), 'taxiarch-measure-'));
  const server = await startServer(folder, more);
  try {
    return await work(server);
  } finally {
    await server.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

/** A program of `programs/` while `work` lasts; `first` is the first line it says. */
export async function withProgram<T>(
  name: string,
  args: readonly (string | number)[],
  work: (program: ChildProcess, first: string) => Promise<T>,
  /** Whether `work` waits for the program’s first line */
  waits = true,
): Promise<T> {
  const program = fork(join(out, `scripts/programs/${name}.mjs`), args.map(String), {
    stdio: ['ignore', 'pipe', 'inherit', 'ipc'],
  });
  process.once('exit', () => program.kill('SIGKILL'));
  try {
    const first = waits
      ? await new Promise<string>((ready) => program.stdout!.once('data', (text) => ready(String(text))))
      : '';
    return await work(program, first);
  } finally {
    program.kill('SIGTERM');
  }
}

/** The demo’s stand-ins while `work` lasts. */
export async function withStandIns<T>(work: () => Promise<T>): Promise<T> {
  const udp = ['--sacn-port', ports.sacn, '--artnet-port', ports.artnet, '--panel-port', PANEL].map(String);
  // What exchanges and adapters use lies beside, so that a demo may run at the same time.
  udp.push('--mdns-port', '36353', '--citp-port', '36809');
  const programs = ['visualiser', 'main'].map((name) =>
    spawn(process.execPath, [join(out, `standins/${name}.mjs`), ...udp, ...(name === 'main' ? PLUG : [])], {
      stdio: ['ignore', 'pipe', 'inherit'],
    }),
  );
  process.once('exit', () => programs.forEach((one) => one.kill('SIGKILL')));
  try {
    for (const program of programs) await new Promise((ready) => program.stdout.once('data', ready));
    return await work();
  } finally {
    programs.forEach((one) => one.kill('SIGTERM'));
  }
}

/** Phones in people’s hands while `work` lasts, each in a browser’s context of its own. */
export async function withPhones<T>(work: (phone: (person: string) => Promise<Page>) => Promise<T>): Promise<T> {
  const browser = await chromium.launch({
    executablePath: process.env['CHROMIUM'] ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--disable-background-networking'],
  });
  try {
    return await work(async (person) => {
      const page = await browser.newPage({ viewport: { width: 390, height: 844 }, bypassCSP: true });
      // The device knows who sits at it, and does not ask.
      await page.addInitScript(`localStorage.setItem('person', '${person}')`);
      return page;
    });
  } finally {
    await browser.close();
  }
}

/** A page on a phone while `work` lasts, and what slows its processor. */
export const withPage = <T>(work: (page: Page, slow: CDPSession) => Promise<T>): Promise<T> =>
  withPhones(async (phone) => {
    const page = await phone('Measuring');
    return work(page, await page.context().newCDPSession(page));
  });

export const get = async <T>(path: string): Promise<T> => (await (await fetch(base + path)).json()) as T;

export async function post<T>(path: string, given: object, method = 'POST'): Promise<T> {
  const response = await fetch(base + path, {
    method,
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(given),
  });
  const reply: unknown = await response.json();
  if (!response.ok) throw new Error(`${path}: ${(reply as { detail: string }).detail}`);
  return reply as T;
}

/** Writes records as one edit. */
export const add = (kind: string, records: readonly { readonly id: string }[]) =>
  records.map((after) => ({ kind, id: after.id, rev: null, after }));

/** In the page: the longest time between two frames, and how many there were. */
export const WATCH_FRAMES = `(() => {
  globalThis.frames = 0; globalThis.longest = 0;
  let last = performance.now();
  const look = (now) => { frames += 1; longest = Math.max(longest, now - last); last = now; requestAnimationFrame(look); };
  requestAnimationFrame(look);
})()`;

/** What an expression in the page comes to. */
export const inPage = <T>(page: Page, expression: string): Promise<T> => page.evaluate<T>(expression);

/** Frames a second while the page's long list scrolls, the processor slowed four times. */
export async function scrollRate(page: Page, slow: CDPSession, seconds: number): Promise<number> {
  await slow.send('Emulation.setCPUThrottlingRate', { rate: 4 });
  await page.evaluate(WATCH_FRAMES);
  await page.evaluate(`(() => {
    const list = [...document.querySelectorAll('div')].filter((one) => one.scrollHeight > one.clientHeight + 2000 && getComputedStyle(one).overflowY !== 'visible').pop();
    const step = () => { list.scrollTop += 18; requestAnimationFrame(step); };
    step();
  })()`);
  await wait(500);
  const before = await inPage<number>(page, 'frames');
  await wait(seconds * 1000);
  const fps = ((await inPage<number>(page, 'frames')) - before) / seconds;
  await slow.send('Emulation.setCPUThrottlingRate', { rate: 1 });
  return fps;
}
