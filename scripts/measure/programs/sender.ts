/**
 * Sends sACN as fast as it can, or at a steady pace. Arguments: port, universes, frames a second
 * (0: as fast as it can), milliseconds. Prints how many packets left.
 */
import { createSocket } from 'node:dgram';
import { SLOTS_AT, packet, steadily } from './steady';

const [port, universes, rate, lasting] = process.argv.slice(2).map(Number) as [number, number, number, number];
const ADDRESS = '127.0.0.1';
const packets = Array.from({ length: universes }, (_, i) => packet(i + 1));
const socket = createSocket('udp4');
let sent = 0;
let waiting = 0;

function send() {
  const bytes = packets[sent % universes]!;
  bytes[111] = Math.floor(sent / universes) & 0xff;
  // Levels change in every packet, as they do while a cue fades.
  const from = SLOTS_AT + (sent % 400);
  bytes.fill(sent & 0xff, from, from + 100);
  sent += 1;
  waiting += 1;
  socket.send(bytes, port, ADDRESS, () => (waiting -= 1));
}

/** As fast as the socket takes them. */
const blast = () =>
  new Promise<void>((done) => {
    const end = performance.now() + lasting;
    const step = () => {
      if (performance.now() > end) return done();
      for (let i = 0; i < 256 && waiting < 512; i += 1) send();
      setImmediate(step);
    };
    step();
  });

await new Promise<void>((done) => socket.bind(0, ADDRESS, done));
socket.setSendBufferSize(4 * 1024 * 1024);
await (rate === 0 ? blast() : steadily(universes * rate, lasting, send));
socket.close();
process.stdout.write(`${sent}\n`);
