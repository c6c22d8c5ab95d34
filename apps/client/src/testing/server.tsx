/** The server and its feed as a test plays them: what is asked is kept, what is answered is the test's. */
import { act, cleanup, render, type RenderResult } from '@testing-library/react';
import type { ReactElement } from 'react';
import { mutate } from 'swr';
import { fromWireKey, wireKey } from '@taxiarch/core/base/address';
import type { HoldReport, LiveReport } from '@taxiarch/core/whole/contract';
import type { StreamReport, UniverseReport } from '@taxiarch/core/signal/stream';
import type { Finding } from '@taxiarch/core/truth/check';
import { universesOf, sendersOf } from '@taxiarch/core/network/flow';
import type { ProposedChange } from '@taxiarch/core/show/edit';
import type { AnyRecord, Kind, ShowRecords } from '@taxiarch/core/show/records';
import { feed } from '@/data/feed';
import { personName } from '@/data/preferences';
import { routed } from './router';

interface Asked {
  readonly method: string;
  readonly path: string;
  readonly body: unknown;
}

/** What the page asked of the server, oldest first, but for reading. */
export const asked: Asked[] = [];
/** The changes of an edit that was asked for; `which` of them, from 0. */
export const proposed = (which = 0) =>
  (asked.filter(({ path }) => path === '/api/edits')[which]!.body as { changes: ProposedChange[] }).changes;
/** Answers by path; a function is given the body. A refusal is a problem document with its status. */
export const answers = new Map<string, unknown>();

export const refusal = (status: number, detail: string) => ({ refused: { status, detail } });

function answerTo(path: string, body: unknown): unknown {
  const [bare = ''] = path.split('?');
  const answer = answers.get(bare);
  return typeof answer === 'function' ? (answer as (given: unknown) => unknown)(body) : answer;
}

const reply = (status: number, body: unknown) =>
  ({ ok: status < 400, status, json: () => Promise.resolve(body) }) as unknown as Response;

globalThis.fetch = ((path: string, { method = 'GET', body }: RequestInit = {}) => {
  const given: unknown = typeof body === 'string' ? JSON.parse(body) : body;
  if (method !== 'GET') asked.push({ method, path, body: given });
  const answer = answerTo(path, given) as { refused?: { status: number; detail: string } } | undefined;
  if (answer?.refused) return Promise.resolve(reply(answer.refused.status, answer.refused));
  if (answer === undefined && method === 'GET')
    return Promise.resolve(reply(404, { detail: 'There is nothing here.' }));
  return Promise.resolve(reply(200, answer ?? {}));
}) as typeof fetch;

/** A stream of a planned sender that is as it should be. */
export const stream = (over: Partial<StreamReport> = {}): StreamReport => ({
  mark: 0,
  name: '',
  address: '',
  cid: '',
  priority: 100,
  slotPriority: false,
  preview: false,
  terminated: false,
  lost: false,
  own: false,
  routed: false,
  levels: true,
  twin: false,
  physical: 0,
  ipv6: false,
  startCodes: [],
  waits: false,
  syncAddress: 0,
  slotCount: 512,
  rate1: 40,
  discarded1: 0,
  discarded: '',
  pauses10: 0,
  offers: [{ from: 1, to: 512 }],
  rate10: 40,
  jitter: 1,
  packets: 4000,
  missing: 0,
  missing10: 0,
  repeats: 0,
  late: 0,
  firstSeen: 0,
  lastSeen: 1000,
  ...over,
});

/** A report of a show in which all that is planned is heard. */
export function liveOf({ universe, machine }: ShowRecords, over: Partial<LiveReport> = {}): LiveReport {
  const universes = universe.map((one): UniverseReport => {
    const key = wireKey({ protocol: one.protocol, number: one.wire });
    const senders = sendersOf(machine).filter((sender) => universesOf(sender).includes(one.number));
    return {
      key,
      ...fromWireKey(key),
      show: one.number,
      name: one.name,
      state: 'steady',
      because: '',
      streams: senders.map(({ name, addresses, lines }, mark) =>
        stream({ mark, name, address: addresses[0] ?? '', priority: lines[0]?.priority ?? 100 }),
      ),
    };
  });
  return {
    at: 100_000,
    age: 0,
    notices: [],
    listeningSince: 0,
    interface: null,
    artnetInterface: null,
    listed: [],
    polled: true,
    trouble: '',
    universes,
    nodes: [],
    nodesMore: 0,
    discovered: [],
    discoveredMore: 0,
    membership: { wanted: 41, joined: 41, ipv6: 0, most: 4096, full: false },
    sweep: { running: false, total: 0, done: 0, at: 0, found: [], looked: [] },
    syncs: [],
    alsoHeard: [],
    output: { hot: false, since: 0, by: '', holds: [], rate: 0, pictures: [], targets: {} },
    routes: [],
    controls: [],
    packetsPerSecond: 1400,
    packets: 100_000,
    lost: 0,
    rejected: {},
    ...over,
  };
}

/** As whom the feed told this page to be known */
const HOLDER = 'this-page';
feed.holder = HOLDER;

/** Slots of one universe that this page holds. */
export const hold = (universe: number, key: number, ...runs: (readonly [number, number])[]): HoldReport => ({
  holder: HOLDER,
  by: 'Ivo',
  key,
  universe,
  runs,
  since: 50_000,
  stay: false,
});

/** The feed brings a report. */
export function tell(live: LiveReport): void {
  act(() => feed.hear(live));
}

/** The feed is lost, or back. */
export function connection(connected: boolean): void {
  act(() => {
    feed.connected = connected;
    feed.connection.emit(connected);
  });
}

/** Somebody else's edit of one record reaches the page. */
export function edited(kind: Kind, before: AnyRecord | null, after: AnyRecord | null): void {
  const id = (after ?? before)!.id;
  const edit = { seq: 2, at: new Date(0).toISOString(), author: 'Mara', sentence: 'Edited' };
  act(() => feed.edits.emit({ ...edit, changes: [{ kind, id, before, after }] }));
}

/** Whatever is under way comes to its end. */
export const settled = () => act(() => new Promise<void>((done) => setTimeout(done)));

interface Given {
  readonly records: ShowRecords;
  readonly live?: LiveReport;
  readonly path?: string;
  readonly params?: Record<string, string>;
  /** What the server finds wrong with the network's plan */
  readonly findings?: readonly Finding[];
  /** What else the server says, by path */
  readonly says?: Readonly<Record<string, unknown>>;
  /** Pixels; a phone's if it is not said */
  readonly width?: number;
}

/** Opens a screen, in place of the one before, as if the server had this show and the feed brought this report. */
export async function open(screen: ReactElement, given: Given): Promise<RenderResult> {
  const { records, live = liveOf(records), path = '/', params = {}, findings = [], says = {}, width = 390 } = given;
  cleanup();
  personName.write('Ivo');
  Object.assign(routed, { path, params: { ...params }, sent: [] });
  asked.length = 0;
  answers.clear();
  answers.set('/api/edits', ({ sentence, changes }: { sentence: string; changes: ProposedChange[] }) => ({
    seq: 2,
    at: new Date(0).toISOString(),
    author: 'Ivo',
    sentence,
    changes: changes.map(({ kind, id, after }) => ({ kind, id, before: null, after: after && { ...after, rev: 2 } })),
  }));
  Object.defineProperty(window, 'innerWidth', { value: width, configurable: true });
  Object.defineProperty(document.documentElement, 'clientWidth', { value: width, configurable: true });
  act(() => void window.dispatchEvent(new Event('resize')));
  feed.connected = true;
  act(() => feed.hear(live));
  await mutate(() => true, undefined, { revalidate: false });
  await mutate('/api/show', { seq: 1, records }, { revalidate: false });
  await mutate('/api/findings?seq=1', { seq: 1, findings }, { revalidate: false });
  for (const [path, answer] of Object.entries(says)) {
    answers.set(path.split('?')[0]!, answer);
    await mutate(path, answer, { revalidate: false });
  }
  const shown = render(screen);
  await settled();
  return shown;
}
