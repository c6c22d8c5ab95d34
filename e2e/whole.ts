/** The running whole as a test meets it: the page, the API, and the panels of the stand-ins. */
import { spawn } from 'node:child_process';
import { cpus } from 'node:os';
import { resolve } from 'node:path';
import type { StandIn } from '@taxiarch/core/whole/contract';
import { expect, type Page } from '@playwright/test';

/** Each worker has a whole of its own; they meet nowhere. A whole, its stand-ins and a browser take two cores. */
export const WHOLES = cpus().length >= 4 ? 2 : 1;
export const portsOf = (worker: number) => ({
  page: 24_630 + worker,
  panel: 27_630 + worker,
  sacn: 25_568 + worker,
  artnet: 26_454 + worker,
  mdns: 26_353 + worker,
  citp: 26_809 + worker,
  plug: 26_217 + worker,
});
const { page: PORT, panel: PANEL_PORT, ...udp } = portsOf(Number(process.env['TEST_PARALLEL_INDEX'] ?? 0));
/** UDP ports of the whole that a test meets */
export const UDP = udp;
/** For a server that a test starts itself. */
export const OWN = portsOf(20 + Number(process.env['TEST_PARALLEL_INDEX'] ?? 0));
export const BASE = `http://127.0.0.1:${PORT}`;

/** Last parts of the stand-ins' addresses. */
export const BRIDGE_DESK = 21;
export const WHEELHOUSE_NODE = 31;
export const BOILER_NODE = 32;
export const CAR_DECK_NODE = 33;

export async function panel<T>(host: number, knob: string, given?: object): Promise<T> {
  const response = await fetch(
    `http://127.0.0.${host}:${PANEL_PORT}/${knob}`,
    given && { method: 'POST', body: JSON.stringify(given) },
  );
  return (await response.json()) as T;
}

/** Front page of a stand-in that has one. */
export const standInPage = (address: string) => `http://${address}:${PANEL_PORT}/`;

/** Level that leaves a port (from 1) of a stand-in node on a channel (from 1): what a lamp there would get. */
export async function levelAt(node: number, port: number, channel: number): Promise<number> {
  const ports = await panel<{ output: number[] }[]>(node, 'ports');
  return ports[port - 1]!.output[channel - 1]!;
}

export const api = async <T>(path: string, given?: object): Promise<T> => {
  const response = await fetch(
    BASE + path,
    given && { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(given) },
  );
  return (response.status === 204 ? undefined : await response.json()) as T;
};

/** Who sits at the browser of every test. */
export const PERSON = 'Mara';

/** Takes back the last thing that the person at the browser did. */
export async function undo(): Promise<void> {
  const undone = await api<object>('/api/undo', { author: PERSON });
  expect(undone).toHaveProperty('seq');
}

/** Opens a page of the client and waits until it is alive. */
export async function open(page: Page, path: string): Promise<void> {
  await page.goto(BASE + path);
  await expect(page.getByRole('status', { name: 'Live strip' })).toContainText(/heard|slot|nothing taken|running/);
}

/** Changes settings of this computer. */
export const settings = (change: object) =>
  fetch(`${BASE}/api/settings`, {
    method: 'PATCH',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(change),
  });

export const makeSafe = () => api('/api/output/hot', { hot: false, by: 'the tests' });

/** Does something to a stand-in on the bench, as a hand at the box would. */
export const handle = (id: string, act: object) => api<StandIn[]>('/api/stand-ins/handle', { id, ...act });

export interface Served {
  readonly base: string;
  readonly stop: () => Promise<void>;
  /** Ends it at once, as a power cut would. */
  readonly kill: () => void;
}

interface ServerOptions {
  readonly folder: string;
  readonly port: number;
  readonly sacn: number;
  readonly artnet: number;
  readonly empty?: boolean;
}

/** A server of a test's own, without stand-ins; resolves when it serves. */
export async function startServer({ folder, port, sacn, artnet, empty = false }: ServerOptions): Promise<Served> {
  const build = resolve('.build');
  const args = { port, data: folder, client: `${build}/client`, 'sacn-port': sacn, 'artnet-port': artnet };
  const server = spawn(process.execPath, [
    `${build}/server/main.mjs`,
    ...Object.entries(args).flatMap(([name, value]) => [`--${name}`, String(value)]),
    ...(empty ? ['--empty'] : []),
  ]);
  const ended = new Promise<void>((done) => server.once('exit', () => done()));
  await new Promise((ready) => server.stdout.once('data', ready));
  return {
    base: `http://127.0.0.1:${port}`,
    stop: async () => {
      server.kill('SIGINT');
      await ended;
    },
    kill: () => server.kill('SIGKILL'),
  };
}
