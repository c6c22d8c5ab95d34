/** A port over TCP is a DMX line only once it says that it is one. */
import { createServer, type Server, type Socket } from 'node:net';
import { ComPortReader, encodeAsk, encodeCommand } from '@taxiarch/core/protocol/plug';
import { until } from '../testing/until';
import { openNetLine } from './linePort';

const servers: Server[] = [];
const sockets: Socket[] = [];
afterAll(() => {
  for (const socket of sockets) socket.destroy();
  for (const server of servers) server.close();
});

/** A server on a port of its own; `answer` gets each connection. */
const listen = (answer: (socket: Socket) => void): Promise<number> =>
  new Promise((ready) => {
    const server = createServer((socket) => {
      sockets.push(socket);
      socket.on('error', () => undefined);
      answer(socket);
    }).listen(0, '127.0.0.1', () => ready((server.address() as { port: number }).port));
    servers.push(server);
  });

const came: (Uint8Array | undefined)[] = [];
const gone: string[] = [];
const open = async (answer: (socket: Socket) => void, input = false) =>
  openNetLine('127.0.0.1', await listen(answer), input, {
    came: (bytes) => came.push(bytes),
    gone: (why) => gone.push(why),
  });

/** A port that answers every command, some otherwise; `asked` notes the values of SET-CONTROL. */
const port =
  (over: Readonly<Record<number, readonly number[]>> = {}, asked: number[] = []) =>
  (socket: Socket) => {
    const reader = new ComPortReader();
    socket.on('data', (bytes: Buffer) => {
      for (const event of reader.push(new Uint8Array(bytes))) {
        if (event.kind === 'asks') socket.write(encodeAsk('do', event.option));
        if (event.kind !== 'command') continue;
        if (event.code === 5) asked.push(event.value[0]!);
        socket.write(encodeCommand(event.code, [...(over[event.code] ?? event.value)], true));
      }
    });
  };

test('one that confirms everything is a line, tells of breaks, and has its flow control off', async () => {
  const asked: number[] = [];
  const line = await open(port({}, asked));
  expect([line.tellsBreaks, line.free]).toEqual([true, true]);
  expect(asked).toEqual([1, 14, 8, 12]);
  line.close();
  const listening: number[] = [];
  (await open(port({}, listening), true)).close();
  expect(listening).toEqual([1, 14, 8, 11]);
});

test('one that tells of no breaks is a line whose frames are parted by pauses', async () => {
  const line = await open(port({ 10: [0] }));
  expect(line.tellsBreaks).toBe(false);
  line.close();
});

const baud = (rate: number) => [24, 16, 8, 0].map((shift) => (rate >> shift) & 0xff);

test.each([
  ['115,200 baud', { 1: baud(115_200) }, /runs at 115,200 baud; DMX needs 250,000 baud/],
  ['even parity', { 3: [3] }, /runs at parity even; DMX needs parity none/],
  ['one stop bit', { 4: [1] }, /runs at 1 stop bits; DMX needs 2 stop bits/],
])('one that answers %s is none, and says so', async (_, over, why) => {
  await expect(open(port(over))).rejects.toThrow(why);
});

test('one that refuses the option is none', async () => {
  await expect(open((socket) => socket.write(encodeAsk('dont', 44)))).rejects.toThrow(
    /refuses to be set as a serial port/,
  );
});

test('a sink, another protocol, and one that never reads: none of them runs', async () => {
  await Promise.all([
    expect(open((socket) => socket.resume())).rejects.toThrow(/does not answer as a serial port/),
    expect(open((socket) => socket.write('SSH-2.0-OpenSSH_9.2\r\n'))).rejects.toThrow(/it says “SSH-2.0-OpenSSH_9.2/),
    expect(open((socket) => socket.pause())).rejects.toThrow(/does not answer as a serial port/),
  ]);
});

test('one that stops answering is gone', async () => {
  let stop = () => undefined as void;
  const line = await open((socket) => {
    port()(socket);
    stop = () => void socket.removeAllListeners('data').pause();
  });
  stop();
  const sending = setInterval(() => line.send(new Uint8Array(512)), 25);
  await until(() => gone.length > 0);
  clearInterval(sending);
  expect(gone[0]).toMatch(/answers no more/);
});
