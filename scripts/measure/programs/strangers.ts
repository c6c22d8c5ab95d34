/**
 * Strangers on the network: sources that announce universes and nodes that answer, none of them known to anybody.
 * Arguments: port of sACN, of Art-Net, packets a second, milliseconds. Prints how many packets left.
 */
import { createSocket } from 'node:dgram';
import { blankPollReply, encodePollReply } from '@taxiarch/core/protocol/artnet';
import { encodeDiscoveryPages } from '@taxiarch/core/protocol/sacn';

const [sacn, artnet, aSecond, lasting] = process.argv.slice(2).map(Number) as [number, number, number, number];
const ADDRESS = '127.0.0.1';
const SOURCES = 1000;
const ANNOUNCED = 60;
const EVERY_MS = 20;

const two = (at: number): [number, number] => [at >> 8, at & 0xff];
const announcements = Array.from({ length: SOURCES }, (_, i) => {
  const cid = Uint8Array.from({ length: 16 }, (__, at) => (at < 2 ? two(i)[at]! : 0x77));
  const universes = Array.from({ length: ANNOUNCED }, (__, at) => 20_000 + ((i * ANNOUNCED + at) % 40_000));
  return encodeDiscoveryPages(
    cid,
    `Stranger ${i}`,
    universes.sort((a, b) => a - b),
  )[0]!;
});
const answers = Array.from({ length: 10 * SOURCES }, (_, i) =>
  encodePollReply({
    ...blankPollReply(`10.9.${two(i).join('.')}`, Uint8Array.of(2, 0x7f, 0xff, 0, ...two(i))),
    portName: `<b>${i}</b>`,
  }),
);
const socket = createSocket('udp4');
let sent = 0;
await new Promise<void>((done) => socket.bind(0, ADDRESS, done));
const begun = performance.now();
await new Promise<void>((done) => {
  const clock = setInterval(() => {
    const now = performance.now() - begun;
    for (; sent < (Math.min(now, lasting) * aSecond) / 1000; sent += 1) {
      const at = sent >> 1;
      if (sent % 2 === 0) socket.send(announcements[at % announcements.length]!, sacn, ADDRESS);
      else socket.send(answers[at % answers.length]!, artnet, ADDRESS);
    }
    if (now < lasting) return;
    clearInterval(clock);
    done();
  }, EVERY_MS);
});
process.stdout.write(`${sent}\n`, () => socket.close());
