/** The built server in a folder of its own, for measuring; on ports that nothing else uses. */
import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { out } from '../build.mjs';

export const ports = { http: 34630, sacn: 35568, artnet: 36454 };
export const base = `http://127.0.0.1:${ports.http}`;

/** Starts it in `given`, or in a new folder; the one who made the folder removes it. `more`: further arguments. */
export async function startServer(given, more = []) {
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
    [join(out, 'server/main.mjs'), ...Object.entries(args).flatMap(([name, value]) => [`--${name}`, value]), ...more],
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

/** Of the computer's time; when more than this was taken away, losses are not the program's to answer for. */
const QUIET = 0.005;

/**
 * Whether a program lost nothing, judged by the rounds in which the bare one lost nothing either and the
 * computer was ours; rounds are `{ bare, ours }`, each with `lost` and `stolen`.
 */
export function noneLost(rounds) {
  const fair = rounds.filter(({ bare, ours }) => bare.lost <= 0 && ours.stolen < QUIET);
  return fair.length === 0
    ? 'not to be told, no round was quiet'
    : `${verdict(fair.every(({ ours }) => ours.lost <= 0))} in ${fair.length} of ${rounds.length} rounds that were quiet`;
}

/** In the page: the longest time between two frames, and how many there were. */
export const WATCH_FRAMES = `(() => {
  globalThis.frames = 0; globalThis.longest = 0;
  let last = performance.now();
  const look = (now) => { frames += 1; longest = Math.max(longest, now - last); last = now; requestAnimationFrame(look); };
  requestAnimationFrame(look);
})()`;

/** Frames a second while the page's long list scrolls for five seconds, the processor slowed four times. */
export async function scrollRate(page, slow) {
  await slow.send('Emulation.setCPUThrottlingRate', { rate: 4 });
  await page.evaluate(WATCH_FRAMES);
  await page.evaluate(`(() => {
    const list = [...document.querySelectorAll('div')].filter((one) => one.scrollHeight > one.clientHeight + 2000 && getComputedStyle(one).overflowY !== 'visible').pop();
    const step = () => { list.scrollTop += 18; requestAnimationFrame(step); };
    step();
  })()`);
  await wait(500);
  const before = await page.evaluate('frames');
  await wait(5000);
  const fps = ((await page.evaluate('frames')) - before) / 5;
  await slow.send('Emulation.setCPUThrottlingRate', { rate: 1 });
  return fps;
}
