/** Conversations of the TCP mode of MVR-xchange: one connection for a message and its answer. */
import { createServer, connect, type Server, type Socket } from 'node:net';
import {
  encodeFile,
  encodeJson,
  type Message,
  PackageReader,
  readMessage,
  type StationReply,
  writeMessage,
} from '@taxiarch/core/protocol/xchange';
import { ok, refuse, type Result } from '@taxiarch/core/base/result';
import { CONNECT_MS, Doorkeeper, SILENCE_MS, whyNot } from './bounds';
import { pour } from './pour';

export interface Where {
  readonly address: string;
  readonly port: number;
  /** For sentences */
  readonly name: string;
}

export type Answer = { readonly message: Message } | { readonly file: Uint8Array };

const megabytes = (bytes: number) => `${(bytes / 1024 / 1024).toFixed(1)} MiB`;

/** Says one thing to a station and waits for its answer; `got` is told how many bytes of a file have come. */
export function say(
  to: Where,
  localAddress: string,
  message: Message,
  got: (bytes: number) => void = () => undefined,
  signal?: AbortSignal,
): Promise<Result<Answer>> {
  return new Promise((done) => {
    const reader = new PackageReader();
    const socket = connect({ host: to.address, port: to.port, localAddress });
    const end = (answer: Result<Answer>) => {
      clearTimeout(patience);
      signal?.removeEventListener('abort', cancel);
      socket.destroy();
      done(answer);
    };
    const cancel = () => end(refuse('nothing', 'It was cancelled.'));
    signal?.addEventListener('abort', cancel);
    const patience = setTimeout(() => end(refuse('not-possible', `${to.name} does not take connections.`)), CONNECT_MS);
    const part = () => (reader.under > 0 ? ` after ${megabytes(reader.under)} of the file` : '');
    socket.setTimeout(SILENCE_MS);
    socket.on('connect', () => {
      clearTimeout(patience);
      socket.write(encodeJson(writeMessage(message)));
    });
    socket.on('timeout', () => end(refuse('not-possible', `${to.name} fell silent${part()}. Nothing was changed.`)));
    socket.on('error', (error) => end(refuse('not-possible', `${whyNot(error, to.name)} Nothing was changed.`)));
    socket.on('close', () =>
      end(refuse('not-possible', `${to.name} ended the connection${part()}. Nothing was changed.`)),
    );
    socket.on('data', (bytes: Buffer) => {
      const read = reader.push(new Uint8Array(bytes));
      if (!read.ok) return end(read);
      got(reader.under);
      const first = read.value[0];
      if (!first) return;
      if (first.kind === 'file') return end(ok({ file: first.bytes }));
      const answer = readMessage(first.text);
      end(answer.ok ? ok({ message: answer.value }) : answer);
    });
  });
}

/** Listens for other stations; `hear` gives the answer to each message. */
export function listen(
  address: string,
  hear: (message: Message, from: string) => StationReply,
): Promise<{ readonly port: number; readonly close: () => void }> {
  const door = new Doorkeeper();
  const sockets = new Set<Socket>();
  const server: Server = createServer((socket) => {
    const from = socket.remoteAddress ?? '';
    if (!door.admit(from)) return void socket.destroy();
    sockets.add(socket);
    const reader = new PackageReader(0);
    socket.setTimeout(SILENCE_MS, () => socket.destroy());
    socket.on('error', () => undefined);
    socket.on('close', () => {
      door.leave(from);
      sockets.delete(socket);
    });
    socket.on('data', (bytes: Buffer) => {
      const read = reader.push(new Uint8Array(bytes));
      if (!read.ok) return void socket.destroy();
      for (const one of read.value) {
        const message = one.kind === 'json' ? readMessage(one.text) : undefined;
        if (!message?.ok) return void socket.destroy();
        const { message: answer, file } = hear(message.value, from);
        if (file) void pour(socket, encodeFile(file));
        else if (answer) socket.write(encodeJson(writeMessage(answer)));
      }
    });
  });
  return new Promise((ready, failed) => {
    server.once('error', failed);
    server.listen(0, address, () => {
      const at = server.address();
      ready({
        port: typeof at === 'object' && at !== null ? at.port : 0,
        close: () => {
          server.close();
          for (const socket of sockets) socket.destroy();
        },
      });
    });
  });
}
