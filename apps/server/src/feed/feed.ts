/**
 * The feed: to each client, the universes it looks at, as they change, at most sixty times a second, always the
 * newest; to a client that is slow, fewer. Reports and edits go along as text.
 */
import type { IncomingMessage, Server } from 'node:http';
import { WebSocket, WebSocketServer } from 'ws';
import { SLOTS } from '@taxiarch/core/base/address';
import {
  decodeFrame,
  encodeContendersFrame,
  encodeUniverseFrame,
  readFeedRequest,
  type FeedText,
  type LiveReport,
  BEAT_MS,
  SILENCE_MS,
} from '@taxiarch/core/whole/contract';
import { HeldUp } from '../bridge/heldUp';
import { holderOf } from '../bridge/holder';
import type { EngineHost } from '../bridge/host';

/** Frames of a universe: sixty a second for whoever looks at one or two, thirty for whoever looks at more */
const FAST_MS = 1000 / 60;
const FRAME_MS = 1000 / 30;
const MOST_FAST = 2;
/** How often changes are looked for, so that one goes out soon after it came. */
const LOOK_MS = 4;
/** A client with more than this unsent gets no frames until it has caught up. */
const BACKLOG = 64 * 1024;
/** Pages that are served at once */
const MOST_CLIENTS = 256;
/** Bytes of edits that may wait for a slow client */
const MOST_WAITING = 1024 * 1024;
/** A client that is gone for this long has its slots given back. */
const GONE_MS = 5000;

interface Client {
  readonly socket: WebSocket;
  readonly id: string;
  /** When the other end last gave a sign: the answer to a ping of the protocol's own */
  heardAt: number;
  /** When it last said `here`; null if it never did, and then it need not */
  hereAt: number | null;
  readonly watched: Map<number, { version: number; dueAt: number }>;
  inspected: readonly [number, number] | null;
  /** It was not told of edits, and is told to read the show anew as soon as it can take that in. */
  missed: boolean;
  /** The nodes as it was last told of them */
  toldNodes: string;
}

/** How long nothing was heard of a client, ms. */
const silenceOf = ({ heardAt, hereAt }: Client, now: number): number => now - Math.min(heardAt, hereAt ?? heardAt);

export class Feed {
  private readonly server = new WebSocketServer({ noServer: true, maxPayload: 64 * 1024 });
  private readonly clients = new Set<Client>();
  private readonly leaving = new Map<string, NodeJS.Timeout>();
  private readonly timer: NodeJS.Timeout;
  private readonly values = new Uint8Array(SLOTS);
  private readonly owners = new Uint8Array(SLOTS);

  private readonly beating: NodeJS.Timeout;
  private readonly heldUp = new HeldUp();
  /** A client went away for good. */
  onLeave: (client: string) => void = () => undefined;

  constructor(private readonly host: EngineHost) {
    this.timer = setInterval(() => this.sendFrames(performance.now()), LOOK_MS);
    this.beating = setInterval(() => this.beat(performance.now()), BEAT_MS);
    host.onReport = (live) => this.tellLive(live);
    host.onContenders = (key, slot, contenders) => {
      const bytes = encodeContendersFrame(key, slot, contenders);
      for (const { socket, inspected } of this.clients)
        if (inspected?.[0] === key && inspected[1] === slot) socket.send(bytes);
    };
  }

  /**
   * Takes over upgrade requests to /feed that `admit` lets in. Nothing of a request is read before that,
   * and nothing that a socket does afterwards reaches anybody else.
   */
  attach(server: Server, admit: (request: IncomingMessage) => boolean): void {
    server.on('upgrade', (request, socket, head) => {
      socket.on('error', () => socket.destroy());
      const [path, query = ''] = (request.url ?? '').split('?', 2) as [string, string?];
      if (!admit(request) || path !== '/feed') {
        socket.end('HTTP/1.1 403 Forbidden\r\nConnection: close\r\n\r\n');
        return;
      }
      this.server.handleUpgrade(request, socket, head, (client) =>
        this.welcome(client, new URLSearchParams(query).get('client') ?? ''),
      );
    });
  }

  private welcome(socket: WebSocket, id: string): void {
    if (this.clients.size >= MOST_CLIENTS) {
      socket.close(1013, `Taxiarch serves ${MOST_CLIENTS} pages at once. Close some.`);
      return;
    }
    const now = performance.now();
    const client: Client = {
      socket,
      id,
      heardAt: now,
      hereAt: null,
      watched: new Map(),
      inspected: null,
      missed: false,
      toldNodes: '',
    };
    this.clients.add(client);
    clearTimeout(this.leaving.get(id));
    this.leaving.delete(id);
    this.tell(client, { type: 'you', holder: holderOf(id) });
    const live = this.host.last();
    if (live) {
      client.toldNodes = JSON.stringify(live.nodes);
      this.tell(client, { type: 'live', live });
    }
    socket.on('pong', () => (client.heardAt = performance.now()));
    socket.on('message', (data, binary) => {
      client.heardAt = performance.now();
      if (binary) this.takeLevels(client, data as Buffer);
      else this.takeRequest(client, String(data));
    });
    socket.on('error', () => socket.terminate());
    socket.on('close', () => {
      this.clients.delete(client);
      this.look();
      // It was gone for as long as it had been silent before anybody noticed.
      this.mind(id, Math.max(0, GONE_MS - silenceOf(client, performance.now())));
    });
  }

  /** Asks every client whether it is still there, and lets go of those that are not. */
  private beat(now: number): void {
    for (const client of this.clients) {
      if (silenceOf(client, now) > SILENCE_MS) client.socket.terminate();
      else {
        client.socket.ping();
        this.tell(client, { type: 'there' });
      }
    }
  }

  /** This thread was held up: what clients said meanwhile has not been read yet. */
  private excuse(ms: number, now: number): void {
    for (const client of this.clients) {
      client.heardAt = Math.min(now, client.heardAt + ms);
      if (client.hereAt !== null) client.hereAt = Math.min(now, client.hereAt + ms);
    }
  }

  /** If `id` is not connected, gives back what it took unless it comes within `patience`. */
  mind(id: string, patience = GONE_MS): void {
    if (id === '' || this.leaving.has(id) || [...this.clients].some((client) => client.id === id)) return;
    this.leaving.set(
      id,
      setTimeout(() => {
        this.leaving.delete(id);
        this.host.leave(id);
        this.onLeave(id);
      }, patience),
    );
  }

  private takeLevels(client: Client, data: Buffer): void {
    const frame = decodeFrame(data);
    if (frame?.kind === 'levels') this.host.setLevels(client.id, frame.key, frame.levels);
  }

  private takeRequest(client: Client, text: string): void {
    const request = readFeedRequest(text);
    if (!request) {
      client.socket.close(1008, 'Not understood');
      return;
    }
    if (request.type === 'here') {
      client.hereAt = performance.now();
      return;
    }
    if (request.type === 'inspect') client.inspected = request.key === null ? null : [request.key, request.slot];
    else {
      const wanted = new Set(request.keys);
      for (const key of client.watched.keys()) if (!wanted.has(key)) client.watched.delete(key);
      for (const key of wanted) if (!client.watched.has(key)) client.watched.set(key, { version: -1, dueAt: 0 });
    }
    this.look();
  }

  /** Tells the engine what anybody looks at. */
  private look(): void {
    const keys = new Set<number>();
    const slots: (readonly [number, number])[] = [];
    for (const { watched, inspected } of this.clients) {
      for (const key of watched.keys()) keys.add(key);
      if (inspected) slots.push(inspected);
    }
    this.host.watch([...keys], slots);
  }

  private sendFrames(now: number): void {
    const away = this.heldUp.look(now);
    if (away > 0) this.excuse(away, now);
    for (const { socket, watched } of this.clients) {
      if (socket.bufferedAmount > BACKLOG) continue;
      const pace = watched.size <= MOST_FAST ? FAST_MS : FRAME_MS;
      for (const [key, last] of watched) {
        if (now < last.dueAt) continue;
        const row = this.host.rowOf(key);
        if (row === undefined || this.host.levels.version(row) === last.version) continue;
        last.version = this.host.levels.read(row, this.values, this.owners);
        // Counted from when this one was due, so that looking every few milliseconds costs no frames.
        last.dueAt = Math.max(last.dueAt, now - LOOK_MS) + pace;
        socket.send(encodeUniverseFrame(key, last.version, this.values, this.owners));
      }
    }
  }

  private tell({ socket }: Client, message: FeedText): void {
    if (socket.bufferedAmount <= BACKLOG) socket.send(JSON.stringify(message));
  }

  /** To all; the nodes only to those who were told others, for with hundreds of them they are most of a report and seldom change. */
  private tellLive(live: LiveReport): void {
    const nodes = JSON.stringify(live.nodes);
    let whole: string | undefined;
    let rest: string | undefined;
    for (const client of this.clients) {
      if (client.socket.bufferedAmount > BACKLOG) continue;
      if (client.missed) {
        client.missed = false;
        this.tell(client, { type: 'reread', seq: 0 });
      }
      if (client.toldNodes === nodes)
        client.socket.send(
          (rest ??= JSON.stringify({ type: 'live', live: { ...live, nodes: null } } satisfies FeedText)),
        );
      else {
        client.toldNodes = nodes;
        client.socket.send((whole ??= JSON.stringify({ type: 'live', live } satisfies FeedText)));
      }
    }
  }

  /** An edit, as the text that tells of it; who is too slow for it reads the show anew later. */
  tellEdit(text: Uint8Array): void {
    for (const client of this.clients)
      if (client.socket.bufferedAmount > MOST_WAITING) client.missed = true;
      else client.socket.send(text, { binary: false });
  }

  /** Edits may have been made that nobody was told: all read the show anew with the next report. */
  tellMissed(): void {
    for (const client of this.clients) client.missed = true;
  }

  close(): void {
    clearInterval(this.timer);
    clearInterval(this.beating);
    for (const timer of this.leaving.values()) clearTimeout(timer);
    for (const { socket } of this.clients) socket.terminate();
    this.server.close();
  }
}
