/** The built server as a process of its own, on ports and in a folder that no other test uses. */
import { spawn, type ChildProcess } from 'node:child_process';
import { createHash } from 'node:crypto';
import { cpSync, existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, renameSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';

/** Tests and scripts alike are run from the project's root. */
const MAIN = resolve('.build/server/main.mjs');
const BEGUN = resolve('.build/begun');

export const newFolder = (): string => mkdtempSync(join(tmpdir(), 'taxiarch-test-'));
export const removeFolder = (folder: string): void => rmSync(folder, { recursive: true, force: true });

/** A TCP port that is free now. */
export const freePort = (): Promise<number> =>
  new Promise((done) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const { port } = server.address() as { port: number };
      server.close(() => done(port));
    });
  });

/** UDP ports apart from those of other test files that run at the same time, and of a running Taxiarch. */
const worker = Number(process.env['JEST_WORKER_ID'] ?? 1);
export const udpPorts = { sacn: 15_000 + worker * 10, artnet: 16_000 + worker * 10 };
export const exchangePorts = { mdns: 17_000 + worker * 10, citp: 18_000 + worker * 10 };

export interface Reply {
  readonly status: number;
  readonly headers: Headers;
  readonly body: unknown;
}

export class ServerProcess {
  said = '';
  readonly ended: Promise<number | null>;

  private constructor(
    private readonly child: ChildProcess,
    readonly port: number,
  ) {
    this.ended = new Promise((done) => child.once('exit', (code) => done(code)));
    for (const stream of [child.stdout, child.stderr]) stream?.on('data', (text) => (this.said += String(text)));
  }

  /**
   * Starts and waits for readiness, or for the end if it refuses to start. A new folder is begun from a
   * copy of one that was begun before: making a database anew is what takes longest.
   */
  static async start(folder: string, more: readonly string[] = [], port?: number): Promise<ServerProcess> {
    if (existsSync(folder) && readdirSync(folder).length === 0)
      cpSync(await begun(more.includes('--empty') ? 'empty' : 'demo'), folder, { recursive: true });
    return this.startIn(folder, more, port);
  }

  /** Starts in a folder as it is. */
  static async startIn(folder: string, more: readonly string[] = [], port?: number): Promise<ServerProcess> {
    const started = await this.begin(folder, more, port);
    await Promise.race([started.until(() => started.said.includes('is ready')), started.ended]);
    return started;
  }

  /** Starts in a folder as it is, and does not wait. */
  static async begin(folder: string, more: readonly string[] = [], port?: number): Promise<ServerProcess> {
    const chosen = port ?? (await freePort());
    const udp = ['--sacn-port', String(udpPorts.sacn), '--artnet-port', String(udpPorts.artnet)];
    udp.push('--mdns-port', String(exchangePorts.mdns), '--citp-port', String(exchangePorts.citp));
    const child = spawn(process.execPath, [MAIN, '--port', String(chosen), '--data', folder, ...udp, ...more]);
    return new ServerProcess(child, chosen);
  }

  private async until(met: () => boolean): Promise<void> {
    while (!met() && this.child.exitCode === null) await new Promise((done) => setTimeout(done, 20));
  }

  async request(method: string, path: string, body?: unknown, headers: Record<string, string> = {}): Promise<Reply> {
    const response = await fetch(`http://127.0.0.1:${this.port}${path}`, {
      method,
      headers: { ...(body !== undefined && { 'content-type': 'application/json' }), ...headers },
      redirect: 'manual',
      ...(body !== undefined && { body: typeof body === 'string' ? body : JSON.stringify(body) }),
    });
    const text = await response.text();
    const json = response.headers.get('content-type')?.includes('json') ?? false;
    return { status: response.status, headers: response.headers, body: json ? JSON.parse(text) : text };
  }

  async get<T>(path: string): Promise<T> {
    return (await this.request('GET', path)).body as T;
  }

  /** A line on its standard input */
  type(line: string): void {
    this.child.stdin?.write(`${line}\n`);
  }

  /** Stops all its threads, as a computer that sleeps does, until {@link wake}. */
  sleep(): void {
    this.child.kill('SIGSTOP');
  }

  wake(): void {
    this.child.kill('SIGCONT');
  }

  /** Ends it as a power cut would. */
  async kill(): Promise<void> {
    this.child.kill('SIGKILL');
    await this.ended;
  }

  async stop(): Promise<number | null> {
    this.child.kill('SIGTERM');
    return this.ended;
  }
}

/** A folder of this very build's in which a show was begun and closed again. */
async function begun(show: 'empty' | 'demo'): Promise<string> {
  const build = createHash('sha256').update(readFileSync(MAIN)).digest('hex').slice(0, 16);
  const place = join(BEGUN, `${show}-${build}`);
  if (existsSync(place)) return place;
  const folder = newFolder();
  const server = await ServerProcess.startIn(folder, show === 'empty' ? ['--empty'] : []);
  await server.stop();
  mkdirSync(BEGUN, { recursive: true });
  for (const other of readdirSync(BEGUN)) if (!other.includes(build)) removeFolder(join(BEGUN, other));
  const mine = `${place}-${process.pid}`;
  cpSync(folder, mine, { recursive: true });
  try {
    renameSync(mine, place);
  } catch {
    // Another test was quicker.
    removeFolder(mine);
  }
  removeFolder(folder);
  return place;
}

/** Asks again and again until the answer is as wanted; fails with the last answer after `ms`. */
export async function eventually<T>(
  ask: () => Promise<T> | T,
  wanted: (answer: T) => boolean,
  ms = 60_000,
): Promise<T> {
  const end = Date.now() + ms;
  for (;;) {
    const answer = await ask();
    if (wanted(answer)) return answer;
    if (Date.now() > end) throw new Error(`It did not come to pass. Last: ${JSON.stringify(answer)?.slice(0, 800)}`);
    await new Promise((done) => setTimeout(done, 40));
  }
}
