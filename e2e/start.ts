/** Starts the whole as `npm start` does, once for each worker, on ports and in folders of their own; stops them after the last test. */
import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { WHOLES, portsOf } from './whole';

/** Starts one whole; returns what stops it. Everything that it says goes to `heard` as well. */
export async function startWhole(worker: number, heard?: (text: string) => void): Promise<() => Promise<void>> {
  const folder = mkdtempSync(join(tmpdir(), 'taxiarch-e2e-'));
  const { page, panel, sacn, artnet, mdns, citp, plug } = portsOf(worker);
  const udp = { 'sacn-port': sacn, 'artnet-port': artnet, 'mdns-port': mdns, 'citp-port': citp };
  const args = { port: page, data: folder, ...udp, 'panel-port': panel, 'plug-port': plug };
  const whole = spawn(
    process.execPath,
    [
      resolve('scripts/run.mjs'),
      'start',
      ...Object.entries(args).flatMap(([name, value]) => [`--${name}`, String(value)]),
    ],
    { stdio: ['ignore', 'pipe', 'pipe'] },
  );
  const ended = new Promise<number | null>((done) => whole.once('exit', done));
  let said = '';
  await new Promise<void>((ready, failed) => {
    for (const stream of [whole.stdout, whole.stderr])
      stream.on('data', (text) => {
        said += String(text);
        heard?.(String(text));
        if (said.includes('Taxiarch is ready')) ready();
      });
    void ended.then(() => failed(new Error(`It did not start:\n${said}`)));
  });
  return async () => {
    whole.kill('SIGINT');
    const code = await ended;
    rmSync(folder, { recursive: true, force: true });
    if (code !== 0) throw new Error(`It did not stop as it should: ${String(code)}\n${said}`);
  };
}

export default async function start(): Promise<() => Promise<void>> {
  const stops: (() => Promise<void>)[] = [];
  for (let worker = 0; worker < WHOLES; worker += 1) stops.push(await startWhole(worker));
  return async () => {
    for (const stop of stops) await stop();
  };
}
