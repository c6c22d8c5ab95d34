/**
 * The feed: one WebSocket for the page. Frames are kept as they come, for canvases to draw from;
 * reports and edits go to whoever listens. A lost connection is taken up again by itself.
 */
import {
  decodeFrame,
  encodeLevelsFrame,
  type ContendersFrame,
  type FeedRequest,
  type FeedText,
  type LiveReport,
  type UniverseFrame,
} from '@taxiarch/core/contract';
import type { Edit } from '@taxiarch/core/show';
import { clientId } from './client';

type Listener<T> = (value: T) => void;

/** Waits between tries to connect, ms: short at first, then every two seconds. */
const RETRY_FIRST_MS = 250;
const RETRY_LAST_MS = 2000;
/** A connection that does not open in this time is given up and tried again. */
const CONNECT_MS = 4000;

class Emitter<T> {
  private readonly listeners = new Set<Listener<T>>();
  on(listener: Listener<T>): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }
  emit(value: T): void {
    for (const listener of this.listeners) listener(value);
  }
}

export class FeedClient {
  readonly live = new Emitter<LiveReport>();
  readonly edits = new Emitter<Edit>();
  readonly connection = new Emitter<boolean>();
  readonly contenders = new Emitter<ContendersFrame>();
  /** Came back after having been away: what was cached may be old. */
  readonly returned = new Emitter<void>();
  connected = false;
  lastReport: LiveReport | undefined;
  private readonly frames = new Map<number, UniverseFrame>();
  private readonly watchers = new Map<number, Set<Listener<UniverseFrame>>>();
  private socket: WebSocket | undefined;
  private retry = RETRY_FIRST_MS;
  private everConnected = false;
  private inspected: FeedRequest = { type: 'inspect', key: null };

  constructor(private readonly url: string) {}

  connect(): void {
    const socket = new WebSocket(this.url);
    this.socket = socket;
    socket.binaryType = 'arraybuffer';
    const patience = setTimeout(() => socket.close(), CONNECT_MS);
    socket.onopen = () => {
      clearTimeout(patience);
      this.retry = RETRY_FIRST_MS;
      this.setConnected(true);
      this.sendWatched();
      this.request(this.inspected);
      if (this.everConnected) this.returned.emit();
      this.everConnected = true;
    };
    socket.onmessage = ({ data }: MessageEvent<ArrayBuffer | string>) => {
      if (typeof data === 'string') this.receiveText(JSON.parse(data) as FeedText);
      else this.receiveFrame(new Uint8Array(data));
    };
    socket.onclose = () => {
      clearTimeout(patience);
      this.setConnected(false);
      setTimeout(() => this.connect(), this.retry);
      this.retry = Math.min(RETRY_LAST_MS, this.retry * 2);
    };
  }

  private setConnected(connected: boolean): void {
    this.connected = connected;
    this.connection.emit(connected);
  }

  private receiveText(message: FeedText): void {
    if (message.type === 'live') {
      this.lastReport = { ...message.live, nodes: message.live.nodes ?? this.lastReport?.nodes ?? [] };
      this.live.emit(this.lastReport);
    } else this.edits.emit(message.edit);
  }

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
    if (this.socket?.readyState === WebSocket.OPEN)
      this.socket.send(encodeLevelsFrame(key, levels) as Uint8Array<ArrayBuffer>);
  }
}

const scheme = location.protocol === 'https:' ? 'wss' : 'ws';
export const feed = new FeedClient(`${scheme}://${location.host}/feed?client=${encodeURIComponent(clientId)}`);
