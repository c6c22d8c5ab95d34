/** Stand-ins on ports of their own, met as a network meets them, for tests. */
import { spawn, type ChildProcess } from 'node:child_process';
import { createSocket, type Socket } from 'node:dgram';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { encodeData, type SacnData } from '@taxiarch/core/protocol/sacn';

/** Each worker has its own. */
const first = 16_101 + 10 * Number(process.env['JEST_WORKER_ID'] ?? '1');
export const ports = { sacn: first, artnet: first + 1, panel: first + 2 };
const sockets: Socket[] = [];
const folder = mkdtempSync(join(tmpdir(), 'taxiarch-bench-'));
let standins: ChildProcess;

export function open(address: string, port: number, receive?: (bytes: Buffer) => void): Promise<Socket> {
  return new Promise((done) => {
    const socket = createSocket({ type: 'udp4', reuseAddr: true });
    if (receive) socket.on('message', receive);
    sockets.push(socket);
    socket.bind(port, address, () => {
      socket.setMulticastInterface('127.0.0.1');
      socket.setBroadcast(true);
      done(socket);
    });
  });
}

export const start = (): ChildProcess =>
  spawn(process.execPath, [
    resolve(__dirname, '../../../../.build/standins/main.mjs'),
    ...Object.entries(ports).flatMap(([name, port]) => [`--${name}-port`, String(port)]),
    '--data',
    folder,
  ]);

export async function begin(): Promise<void> {
  standins = start();
  await new Promise((done) => standins.stdout!.once('data', done));
}

export async function end(): Promise<void> {
  const ended = new Promise((done) => standins.once('exit', done));
  standins.kill('SIGTERM');
  await ended;
}

/** Begin before the tests of a file, and are gone after them. */
export function runStandIns(): void {
  jest.setTimeout(180_000);
  beforeAll(begin);
  afterAll(async () => {
    sockets.forEach((socket) => socket.close());
    await end();
    rmSync(folder, { recursive: true, force: true });
  });
}

export interface PanelPort {
  readonly output: readonly number[];
  readonly sources: readonly { readonly name: string; readonly address: string; readonly protocol: string }[];
}
export const panel = async (host: number, knob: string, given?: object) => {
  const response = await fetch(
    `http://127.0.0.${host}:${ports.panel}/${knob}`,
    given && { method: 'POST', body: JSON.stringify(given) },
  );
  return { status: response.status, body: (await response.json()) as unknown };
};
export const portOf = async (host: number, port: number): Promise<PanelPort> =>
  ((await panel(host, 'ports')).body as PanelPort[])[port - 1]!;

export async function until<T>(ask: () => Promise<T>, met: (answer: T) => boolean, ms = 6000): Promise<T> {
  const end = Date.now() + ms;
  for (;;) {
    const answer = await ask();
    if (met(answer)) return answer;
    if (Date.now() > end) throw new Error(`It did not come to pass. Last: ${JSON.stringify(answer).slice(0, 600)}`);
    await new Promise((done) => setTimeout(done, 50));
  }
}

export const levels = (first: number, over: Partial<SacnData> = {}): Uint8Array =>
  encodeData({
    cid: new Uint8Array(16).fill(3),
    sourceName: 'Test desk',
    priority: 150,
    syncAddress: 0,
    sequence: 1,
    preview: false,
    terminated: false,
    forceSync: false,
    universe: 1,
    startCode: 0,
    slots: Uint8Array.of(first, first),
    ...over,
  });
