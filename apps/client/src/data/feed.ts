/**
 * The feed: one WebSocket for the page. Frames are kept as they come, for canvases to draw from;
 * reports and edits go to whoever listens. A lost connection is taken up again by itself.
 */
import type { LiveReport } from '@taxiarch/core/whole/contract';
import {
  SILENCE_MS,
  decodeFrame,
  encodeLevelsFrame,
  type ContendersFrame,
  type FeedRequest,
  type FeedText,
  type UniverseFrame,
} from '@taxiarch/core/whole/contract/feed';
import type { Edit } from '@taxiarch/core/show/edit';
import { clientId } from './client';
import { Emitter, type Listener } from './emitter';

/** Waits between tries to connect, ms: short at first, then every two seconds. */
const RETRY_FIRST_MS = 250;
const RETRY_LAST_MS = 2000;
/** A connection that does not open in this time is given up and tried again. */
const CONNECT_MS = 4000;
/** How often it is looked whether the server still says something, and whether the last report is still true. */
const LOOK_MS = 250;
/** A report older than this is not how it is now. */
const OLD_MS = 2000;

export class FeedClient {
  /** A report came, or the last one has grown old. */
  readonly live = new Emitter();
  /** The name under which reports tell what this page holds; empty until it is known */
  holder = '';
  readonly edits = new Emitter<Edit>();
  readonly connection = new Emitter<boolean>();
  readonly contenders = new Emitter<ContendersFrame>();
  /** Came back after having been away: what was cached may be old. */
  readonly returned = new Emitter();
  /** Edits were made that are not told one by one. */
  readonly missed = new Emitter();
  connected = false;
  private last: { report: LiveReport; at: number } | undefined;
  private current: LiveReport | undefined;
  private heardAt = 0;
  private readonly frames = new Map<number, UniverseFrame>();
  private readonly watchers = new Map<number, Set<Listener<UniverseFrame>>>();
  private socket: WebSocket | undefined;
  private retry = RETRY_FIRST_MS;
  private everConnected = false;
  private readonly unsent = new Map<number, Map<number, number>>();
  private inspected: FeedRequest = { type: 'inspect', key: null };

  constructor(private readonly url: string) {}

  connect(): void {
    const socket = new WebSocket(this.url);
    this.socket = socket;
    socket.binaryType = 'arraybuffer';
    const patience = setTimeout(() => socket.close(), CONNECT_MS);
    let looking: ReturnType<typeof setInterval> | undefined;
    let over = false;
    /** Once only: a socket whose network is gone may tell of its end much later, or never. */
    const end = () => {
      if (over) return;
      over = true;
      clearTimeout(patience);
      clearInterval(looking);
      socket.close();
      this.setConnected(false);
      setTimeout(() => this.connect(), this.retry);
      this.retry = Math.min(RETRY_LAST_MS, this.retry * 2);
    };
    socket.onopen = () => {
      clearTimeout(patience);
      this.heardAt = performance.now();
      looking = setInterval(() => performance.now() - this.heardAt > SILENCE_MS && end(), LOOK_MS);
      this.retry = RETRY_FIRST_MS;
      this.setConnected(true);
      this.request({ type: 'here' });
      this.sendWatched();
      this.sendUnsent();
      this.request(this.inspected);
      if (this.everConnected) this.returned.emit();
      this.everConnected = true;
    };
    socket.onmessage = ({ data }: MessageEvent<ArrayBuffer | string>) => {
      if (over) return;
      this.heardAt = performance.now();
      if (typeof data === 'string') this.receiveText(JSON.parse(data) as FeedText);
      else this.receiveFrame(new Uint8Array(data));
    };
    socket.onclose = end;
  }

  /** Connects, and looks from now on whether the last report is still true. */
  begin(): void {
    this.connect();
    setInterval(() => this.ageing(), LOOK_MS);
  }

  private setConnected(connected: boolean): void {
    this.connected = connected;
    this.connection.emit(connected);
  }

  private receiveText(message: FeedText): void {
    switch (message.type) {
      case 'there':
        return this.request({ type: 'here' });
      case 'you':
        this.holder = message.holder;
        return;
      case 'edit':
        return this.edits.emit(message.edit);
      case 'reread':
        return this.missed.emit();
      case 'live': {
        const { nodes, ...live } = message.live;
        return this.hear({ ...live, nodes: nodes ?? this.last?.report.nodes ?? [] });
      }
    }
  }

  /** Takes in a report. */
  hear(report: LiveReport): void {
    this.last = { report, at: performance.now() - report.age };
    this.current = report.age > OLD_MS ? undefined : report;
    this.live.emit();
  }

  private ageing(): void {
    if (this.current === undefined || this.age()! <= OLD_MS) return;
    this.current = undefined;
    this.live.emit();
  }

  /** The last report while it is still true; undefined when it is not, or before the first. */
  now = (): LiveReport | undefined => this.current;

  /** The last report, however old. */
  lastKnown = (): LiveReport | undefined => this.last?.report;

  /** How old the last report is, ms; undefined before the first. */
  age = (): number | undefined => this.last && performance.now() - this.last.at;

  private receiveFrame(bytes: Uint8Array): void {
    const frame = decodeFrame(bytes);
    if (frame?.kind === 'universe') {
      this.frames.set(frame.key, frame);
      this.watchers.get(frame.key)?.forEach((watcher) => watcher(frame));
    } else if (frame?.kind === 'contenders') this.contenders.emit(frame);
  }

  private request(message: FeedRequest): void {
    if (this.socket?.readyState === WebSocket.OPEN) this.socket.send(JSON.stringify(message));
  }

  private sendWatched(): void {
    this.request({ type: 'watch', keys: [...this.watchers.keys()] });
  }

  /** Calls `watcher` with every frame of a universe, beginning with the last one known. */
  watch(key: number, watcher: Listener<UniverseFrame>): () => void {
    const there = this.watchers.get(key) ?? new Set();
    const first = there.size === 0;
    there.add(watcher);
    this.watchers.set(key, there);
    if (first) this.sendWatched();
    const known = this.frames.get(key);
    if (known) watcher(known);
    return () => {
      there.delete(watcher);
      if (there.size > 0) return;
      this.watchers.delete(key);
      this.frames.delete(key);
      this.sendWatched();
    };
  }

  /** Asks for what every stream says about one slot (0–511), or stops asking. */
  inspect(slot: { key: number; slot: number } | null): void {
    this.inspected = slot ? { type: 'inspect', ...slot } : { type: 'inspect', key: null };
    this.request(this.inspected);
  }

  /** New levels for slots that this page has taken. */
  sendLevels(key: number, levels: readonly (readonly [number, number])[]): void {
    if (this.socket?.readyState === WebSocket.OPEN) {
      this.socket.send(encodeLevelsFrame(key, levels) as Uint8Array<ArrayBuffer>);
      return;
    }
    const unsent = this.unsent.get(key) ?? new Map<number, number>();
    this.unsent.set(key, unsent);
    for (const [slot, level] of levels) unsent.set(slot, level);
  }

  /** What was set while the connection was away; slots that are held no more are left alone by the server. */
  private sendUnsent(): void {
    const unsent = [...this.unsent];
    this.unsent.clear();
    for (const [key, levels] of unsent) this.sendLevels(key, [...levels]);
  }
}

const scheme = location.protocol === 'https:' ? 'wss' : 'ws';
export const feed = new FeedClient(`${scheme}://${location.host}/feed?client=${encodeURIComponent(clientId)}`);
