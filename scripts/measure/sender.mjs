/**
 * Sends sACN as fast as it can, or at a steady pace. Arguments: port, universes, frames a second
 * (0: as fast as it can), milliseconds. Prints how many packets left.
 */
import { createSocket } from 'node:dgram';

const [port, universes, rate, lasting] = process.argv.slice(2).map(Number);
const ADDRESS = '127.0.0.1';

function packet(universe) {
  const bytes = Buffer.alloc(638);
  const u16 = (at, value) => bytes.writeUInt16BE(value, at);
  u16(0, 0x10);
  bytes.write('ASC-E1.17', 4);
  u16(16, 0x7000 | (638 - 16));
  bytes.writeUInt32BE(4, 18);
  bytes.fill(0x5a, 22, 38);
  u16(38, 0x7000 | (638 - 38));
  bytes.writeUInt32BE(2, 40);
  bytes.write('Measuring desk', 44);
  bytes[108] = 100;
  u16(113, universe);
  u16(115, 0x7000 | (638 - 115));
  bytes.set([2, 0xa1, 0, 0, 0, 1, 2, 1], 117);
  return bytes;
}

const packets = Array.from({ length: universes }, (_, i) => packet(i + 1));
const socket = createSocket('udp4');
let sent = 0;
let waiting = 0;

function send() {
  const bytes = packets[sent % universes];
  bytes[111] = Math.floor(sent / universes) & 0xff;
  // Levels change in every packet, as they do while a cue fades.
  bytes.fill(sent & 0xff, 126 + (sent % 400), 126 + (sent % 400) + 100);
  sent += 1;
  waiting += 1;
  socket.send(bytes, port, ADDRESS, () => (waiting -= 1));
}

socket.bind(0, ADDRESS, () => {
  socket.setSendBufferSize(4 * 1024 * 1024);
  const begun = performance.now();
  const perMs = (universes * rate) / 1000;
  const step = () => {
    const now = performance.now() - begun;
    if (now > lasting) {
      socket.close();
      process.stdout.write(`${sent}\n`);
      return;
    }
    if (rate === 0) for (let i = 0; i < 256 && waiting < 512; i += 1) send();
    else while (sent < now * perMs) send();
    // A steady sender sleeps between its bursts, as a console does; spinning would take the receiver's core.
    if (rate === 0) setImmediate(step);
    else setTimeout(step, 1);
  };
  step();
});
