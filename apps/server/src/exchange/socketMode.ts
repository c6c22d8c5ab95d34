/** The WebSocket mode of MVR-xchange: one host, to which all others are connected; it passes on what is for others. */
import { WebSocket, WebSocketServer, type RawData } from 'ws';
import { type Message, readMessage, type StationReply, writeMessage, Xchange } from '@taxiarch/core/protocol/xchange';
import { ok, refuse, type Result } from '@taxiarch/core/base/result';
import { CONNECT_MS, SILENCE_MS, whyNot } from './bounds';
import type { Answer } from './tcpTalk';

const PING_MS = 5000;
/** A frame is held whole before it is read, bytes: many connections must not fill the memory. */
const MOST_FRAME = 128 * 1024 * 1024;
/** Most stations that are hosted at once */
const MOST_GUESTS = 16;

export interface SocketModeEvents {
  readonly hear: (message: Message, from: string) => StationReply;
  /** The way to the others is gone; why, for people */
  readonly lost: (why: string) => void;
}

export interface SocketMode {
  readonly url: string;
  /** Tells all others. */
  readonly tell: (message: Message) => void;
  /** Asks for a file; one request at a time. */
  readonly request: (message: Message, stationId: string, name: string) => Promise<Result<Answer>>;
  readonly close: () => void;
}

const textOf = (data: RawData): string => Buffer.from(data as Buffer).toString('utf8');
const bytesOf = (data: RawData): Uint8Array => new Uint8Array(Buffer.from(data as Buffer));

/** One connection: answers come in the order of the requests. */
class Line {
  private readonly waiting: ((answer: Result<Answer>) => void)[] = [];
  stationId = '';
  alive = true;

  constructor(readonly socket: WebSocket) {}

  tell(message: Message): void {
    if (this.socket.readyState === WebSocket.OPEN) this.socket.send(writeMessage(message));
  }

  reply({ message, file }: StationReply): void {
    if (file) this.socket.send(file);
    else if (message) this.tell(message);
  }

  ask(message: Message, name: string): Promise<Result<Answer>> {
    return new Promise((done) => {
      const end = (answer: Result<Answer>) => {
        clearTimeout(patience);
        done(answer);
      };
      const patience = setTimeout(
        () => this.settle(refuse('not-possible', `${name} did not answer. Nothing was changed.`)),
        SILENCE_MS,
      );
      this.waiting.push(end);
      this.tell(message);
    });
  }

  /** False if nobody waits for it. */
  settle(answer: Result<Answer>): boolean {
    const next = this.waiting.shift();
    next?.(answer);
    return next !== undefined;
  }

  over(): void {
    while (this.settle(refuse('not-possible', 'The connection ended. Nothing was changed.')));
  }
}

/** What came on a line: a file or a refusal for who waits, or a message to be heard. */
function take(line: Line, data: RawData, binary: boolean, hear: (message: Message) => void): void {
  if (binary) return void line.settle(ok({ file: bytesOf(data) }));
  const text = textOf(data);
  const message = text.length > Xchange.MOST_JSON ? refuse('out-of-range', 'too long') : readMessage(text);
  if (!message.ok) return line.socket.close(1008, 'not understood');
  if (message.value.type === 'requestRet') return void line.settle(ok({ message: message.value }));
  hear(message.value);
}

/** Joins a host. */
export function joinHost(
  url: string,
  join: () => Message,
  { hear, lost }: SocketModeEvents,
): Promise<Result<SocketMode>> {
  let address: URL;
  try {
    address = new URL(url);
    if (!/^wss?:$/.test(address.protocol)) throw new Error();
  } catch {
    return Promise.resolve(refuse('not-understood', 'The address of a host begins with ws:// or wss://.'));
  }
  return new Promise((done) => {
    const socket = new WebSocket(address, { handshakeTimeout: CONNECT_MS, maxPayload: MOST_FRAME });
    const line = new Line(socket);
    let opened = false;
    socket.on('error', (error) => {
      if (!opened) done(refuse('not-possible', whyNot(error, `The host at ${address.host}`)));
    });
    socket.on('open', () => {
      opened = true;
      line.tell(join());
      done(
        ok({
          url,
          tell: (message) => line.tell(message),
          request: (message, _stationId, name) => line.ask(message, name),
          close: () => {
            opened = false;
            socket.close();
          },
        }),
      );
    });
    socket.on('message', (data, binary) =>
      take(line, data, binary, (message) => line.reply(hear(message, address.hostname))),
    );
    socket.on('close', () => {
      line.over();
      if (opened) lost(`The host at ${address.host} ended the connection.`);
    });
  });
}

/** Hosts the others: each hears of what the others commit, and gets their files through here. */
export function hostOthers(address: string, events: SocketModeEvents): Promise<SocketMode> {
  const server = new WebSocketServer({ host: address, port: 0, maxPayload: MOST_FRAME });
  const lines = new Set<Line>();
  const of = (stationId: string) => [...lines].find((line) => line.stationId === stationId);

  /** A request for what another committed is passed on to it, and its answer back. */
  async function passOn(to: Line, message: Extract<Message, { type: 'request' }>): Promise<void> {
    const maker = [...lines].find((line) => line !== to && message.fromIds.includes(line.stationId));
    if (!maker) return to.tell({ type: 'requestRet', ok: false, message: 'This file is not offered here.' });
    const answer = await maker.ask(message, 'The station');
    if (!answer.ok) to.tell({ type: 'requestRet', ok: false, message: answer.why });
    else if ('file' in answer.value) to.reply({ file: answer.value.file });
    else to.tell(answer.value.message);
  }

  server.on('connection', (socket, request) => {
    if (lines.size >= MOST_GUESTS) return socket.close(1013, 'too many');
    const line = new Line(socket);
    const from = request.socket.remoteAddress ?? '';
    lines.add(line);
    socket.on('error', () => undefined);
    socket.on('pong', () => (line.alive = true));
    socket.on('close', () => {
      lines.delete(line);
      line.over();
      if (line.stationId !== '') events.hear({ type: 'leave', stationId: line.stationId }, from);
    });
    socket.on('message', (data, binary) =>
      take(line, data, binary, (message) => {
        if (message.type === 'join') line.stationId = message.stationId;
        if (message.type === 'commit' || message.type === 'join')
          for (const other of lines)
            if (other !== line && (message.type === 'join' || isFor(message.forIds, other))) other.tell(message);
        const reply = events.hear(message, from);
        if (message.type === 'request' && !reply.file) void passOn(line, message);
        else line.reply(reply);
      }),
    );
  });
  const isFor = (ids: readonly string[], line: Line) => ids.length === 0 || ids.includes(line.stationId);
  const pulse = setInterval(() => {
    for (const line of lines) {
      if (!line.alive) line.socket.terminate();
      line.alive = false;
      line.socket.ping();
    }
  }, PING_MS);
  return new Promise((ready, failed) => {
    server.once('error', failed);
    server.once('listening', () => {
      const at = server.address();
      const port = typeof at === 'object' && at !== null ? at.port : 0;
      ready({
        url: `ws://${address}:${port}/`,
        tell: (message) => {
          for (const line of lines) if (message.type !== 'commit' || isFor(message.forIds, line)) line.tell(message);
        },
        request: (message, stationId, name) =>
          of(stationId)?.ask(message, name) ??
          Promise.resolve(refuse('not-possible', `${name} is not connected any more. Nothing was changed.`)),
        close: () => {
          clearInterval(pulse);
          for (const line of lines) line.socket.terminate();
          server.close();
        },
      });
    });
  });
}
