/** The built server in a folder of its own, for measuring; on ports that nothing else uses. */
import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { out } from '../build.mjs';

export const ports = { http: 34630, sacn: 35568, artnet: 36454 };
export const base = `http://127.0.0.1:${ports.http}`;

/** Starts it in `folder`, or in a new one; the one who made the folder removes it. */
export async function startServer(given) {
  const folder = given ?? mkdtempSync(join(tmpdir(), 'taxiarch-measure-'));
  const args = {
    port: ports.http,
    data: folder,
    client: join(out, 'client'),
    'sacn-port': ports.sacn,
    'artnet-port': ports.artnet,
  };
  const child = spawn(
    process.execPath,
    [join(out, 'server/main.mjs'), ...Object.entries(args).flatMap(([name, value]) => [`--${name}`, value])],
    {
      stdio: ['ignore', 'pipe', 'inherit'],
    },
  );
  await new Promise((ready) => child.stdout.once('data', ready));
  return {
    pid: child.pid,
    folder,
    async stop({ keep = false } = {}) {
      const ended = new Promise((done) => child.once('exit', done));
      child.kill('SIGTERM');
      await ended;
      if (!keep) rmSync(folder, { recursive: true, force: true });
    },
  };
}

export const wait = (ms) => new Promise((done) => setTimeout(done, ms));
export const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];
export const ratio = (one, other) => (one / other).toFixed(2);

/** “met” or “MISSED”, beside the figure that is asked for. */
export const verdict = (met) => (met ? 'met' : 'MISSED');

/** Share of the computer's time that its host gave to others meanwhile, since `before`; Linux only. */
export function stolen(before) {
  if (process.platform !== 'linux') return before ? 0 : [];
  const now = readFileSync('/proc/stat', 'utf8').split('\n')[0].split(/\s+/).slice(1, 9).map(Number);
  if (!before) return now;
  const spent = now.map((ticks, i) => ticks - before[i]);
  return spent[7] / spent.reduce((sum, ticks) => sum + ticks, 0);
}
