/** A port that can be a DMX line: one of this computer, or one by RFC 2217. */
import { connect, type Socket } from 'node:net';
import {
  ComPortReader,
  encodeFrame,
  encodeOpening,
  Handshake,
  isHeardBreak,
  type SerialPortReport,
} from '@taxiarch/core/protocol/plug';

export interface LineEvents {
  /** Bytes that came, or a break (`undefined`) */
  readonly came: (bytes: Uint8Array | undefined) => void;
  /** It is gone; why, for people */
  readonly gone: (why: string) => void;
}

export interface LinePort {
  /** As it is shown */
  readonly path: string;
  /** It tells of breaks; otherwise frames are told apart by pauses. */
  readonly tellsBreaks: boolean;
  /** The frame before has left, so that the next may follow. */
  readonly free: boolean;
  /** Break, mark, start code 0, slots. */
  readonly send: (slots: Uint8Array) => void;
  readonly close: () => void;
}

/** A port that does not become a DMX line in this time is none, ms. */
const OPENING_MS = 4000;
/** So much may wait for a network before frames are left out, bytes: two frames with all slots at 255. */
const MOST_WAITING = 2200;
/** A port that has answered and answers no more is gone after this, ms. */
const SILENT_MS = 3000;

/** A port over TCP by RFC 2217: ready once the other end has confirmed that it is a DMX line. `input`: it listens. */
export function openNetLine(host: string, port: number, input: boolean, { came, gone }: LineEvents): Promise<LinePort> {
  return new Promise((ready, failed) => {
    const socket: Socket = connect({ host, port, noDelay: true });
    const reader = new ComPortReader();
    const shaking = new Handshake();
    let open = false;
    let connected = false;
    let answeredAt = 0;
    let sentAt = 0;
    let over = false;
    const end = (why: string) => {
      if (over) return;
      over = true;
      clearTimeout(patience);
      clearInterval(looking);
      socket.destroy();
      if (open) gone(why);
      else failed(new Error(why));
    };
    const patience = setTimeout(
      () => end(connected ? `${host}:${port}: ${shaking.lacks}` : `${host}:${port} does not take connections.`),
      OPENING_MS,
    );
    const looking = setInterval(() => {
      // Of each break it says that it was made; one who sends nothing has nothing to be answered.
      const waits = sentAt > answeredAt && performance.now() - answeredAt > SILENT_MS;
      if (answeredAt > 0 && waits) end(`${host}:${port} answers no more.`);
    }, SILENT_MS / 6);
    socket.on('error', (error: NodeJS.ErrnoException) =>
      end(
        error.code === 'ECONNREFUSED'
          ? `Nothing listens at ${host}:${port}.`
          : `The connection to ${host}:${port} failed: ${error.message}.`,
      ),
    );
    socket.on('close', () => end(`${host}:${port} ended the connection.`));
    const shake = () => {
      if (shaking.refused !== '') return end(`${host}:${port}: ${shaking.refused}`);
      if (!shaking.done) return;
      open = true;
      clearTimeout(patience);
      ready({
        path: `${host}:${port}`,
        tellsBreaks: shaking.tellsBreaks,
        get free() {
          return socket.writableLength < MOST_WAITING;
        },
        send: (slots) => {
          sentAt = performance.now();
          socket.write(encodeFrame(slots));
        },
        close: () => {
          over = true;
          clearInterval(looking);
          socket.destroy();
        },
      });
    };
    socket.on('data', (bytes: Buffer) => {
      for (const event of reader.push(new Uint8Array(bytes))) {
        if (event.kind === 'command' && event.server) answeredAt = performance.now();
        if (!open) shaking.take(event);
        else if (isHeardBreak(event)) came(undefined);
        else if (event.kind === 'data') came(event.bytes);
      }
      if (!open && !over) shake();
    });
    socket.on('connect', () => {
      connected = true;
      socket.write(encodeOpening(input));
    });
  });
}

/** As much of a serial port as a line needs; the library's port is one. */
export interface SerialLike {
  open(done: (error: Error | null) => void): void;
  set(options: { brk: boolean; rts: boolean; dtr: boolean }, done: (error: Error | null) => void): void;
  write(bytes: Uint8Array): boolean;
  drain(done: (error: Error | null) => void): void;
  close(done: (error: Error | null) => void): void;
  on(event: 'data', act: (bytes: Buffer) => void): unknown;
  on(event: 'close' | 'error', act: (error: Error | null) => void): unknown;
}

/** A serial port of this computer; `input` leaves its driver listening. */
export async function openSerialLine(
  path: string,
  port: SerialLike,
  input: boolean,
  { came, gone }: LineEvents,
): Promise<LinePort> {
  const call = (act: (done: (error: Error | null) => void) => void) =>
    new Promise<void>((ready, failed) => act((error) => (error ? failed(error) : ready())));
  let free = true;
  let over = false;
  const end = (why: string) => {
    if (over) return;
    over = true;
    gone(why);
  };
  await call((done) => port.open(done));
  port.on('close', () => end(`The adapter at ${path} was unplugged.`));
  port.on('error', (error) => end(`The adapter at ${path} failed: ${error?.message ?? 'no reason given'}.`));
  port.on('data', (bytes) => came(new Uint8Array(bytes)));
  // The driver chip of a plain adapter hangs on RTS: low sends, high listens.
  const lines = { rts: input, dtr: true };
  const frame = async (slots: Uint8Array) => {
    await call((done) => port.set({ ...lines, brk: true }, done));
    await call((done) => port.set({ ...lines, brk: false }, done));
    port.write(Uint8Array.from([0, ...slots]));
    await call((done) => port.drain(done));
  };
  return {
    path,
    tellsBreaks: false,
    get free() {
      return free;
    },
    send: (slots) => {
      free = false;
      frame(slots).then(
        () => (free = true),
        (error: Error) => end(`The adapter at ${path} makes no break: ${error.message}.`),
      );
    },
    close: () => {
      over = true;
      port.close(() => undefined);
    },
  };
}

export interface SerialPorts {
  readonly list: () => Promise<SerialPortReport[]>;
  readonly open: (path: string) => SerialLike;
}

/** The serial ports of this computer; rejects where its system has none that can be used. */
export async function serialPorts(): Promise<SerialPorts> {
  const { SerialPort } = await import('serialport');
  return {
    list: async () =>
      (await SerialPort.list()).map(({ path, manufacturer, serialNumber, pnpId }) => ({
        path,
        maker: manufacturer ?? '',
        serial: serialNumber ?? '',
        name: pnpId ?? '',
      })),
    open: (path) =>
      new SerialPort({ path, baudRate: 250_000, dataBits: 8, stopBits: 2, parity: 'none', autoOpen: false }),
  };
}
