/**
 * The far end of a plug: a serial port by RFC 2217 that times frames, and a sender beside it. Told `intervals` it gives
 * the pauses between frames since the last time; told `latency` it sends levels that jump and gives how long each took
 * until it came out of the plug, ms.
 */
import { createSocket } from 'node:dgram';
import { createServer } from 'node:net';
import { multicastGroup } from '@taxiarch/core/base/address';
import { ComPortReader, encodeCommand, FrameReader, isBreak } from '@taxiarch/core/protocol/plug';
import { encodeData } from '@taxiarch/core/protocol/sacn';

const [port, sacnPort, universe, jumps] = process.argv.slice(2).map(Number);
let intervals: number[] = [];
let lastAt = 0;
let came: (level: number, at: number) => void = () => undefined;

createServer({ noDelay: true }, (socket) => {
  const reader = new ComPortReader();
  const frames = new FrameReader();
  lastAt = 0;
  socket.on('error', () => undefined);
  socket.on('data', (bytes: Buffer) => {
    const now = performance.now();
    for (const event of reader.push(new Uint8Array(bytes))) {
      if (event.kind === 'command') {
        socket.write(encodeCommand(event.code, [...event.value], true));
        if (isBreak(event) !== 'on') continue;
        if (lastAt > 0) intervals.push(now - lastAt);
        lastAt = now;
        frames.lineBreak(now);
      } else if (event.kind === 'data') {
        const frame = frames.push(event.bytes, now);
        // The first slot is there as soon as it has come; a frame of 512 is whole then as well.
        if (frame) came(frame.slots[0]!, now);
      }
    }
  });
}).listen(port, '127.0.0.57', () => process.stdout.write('there\n'));

const sender = createSocket('udp4');
let sequence = 0;
let level = 0;
const send = () => {
  sequence = (sequence + 1) & 0xff;
  const bytes = encodeData({
    ...{ cid: new Uint8Array(16).fill(3), sourceName: 'Measure', priority: 200, syncAddress: 0, sequence },
    ...{ preview: false, terminated: false, forceSync: false, universe: universe!, startCode: 0 },
    slots: new Uint8Array(512).fill(level),
  });
  sender.send(bytes, sacnPort!, multicastGroup(universe!));
};
sender.bind(0, '127.0.0.1', () => {
  sender.setMulticastInterface('127.0.0.1');
  setInterval(send, 500);
});

async function latency(): Promise<number[]> {
  const took: number[] = [];
  for (let i = 0; i < jumps!; i += 1) {
    level = (level + 17) & 0xff;
    const began = performance.now();
    const arrived = new Promise<number>((done) => {
      came = (now, at) => now === level && done(at);
    });
    send();
    took.push((await arrived) - began);
    // At any moment of the frame, not always at the same.
    await new Promise((go) => setTimeout(go, 20 + Math.random() * 60));
  }
  came = () => undefined;
  return took;
}

process.on('message', async (what: string) => {
  if (what === 'latency') process.send!(await latency());
  else {
    process.send!(intervals);
    intervals = [];
  }
});
