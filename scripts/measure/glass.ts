/** From a packet on the wire to a pixel on the screen, and the frame rate on a slow phone. */
import { createSocket } from 'node:dgram';
import { median, wait, type Extent, type Figure } from './figure';
import { packet, SLOTS_AT } from './programs/steady';
import { base, inPage, ports, withPage, withServer } from './server';

const now = () => performance.timeOrigin + performance.now();

/** Sends universe 1 with the levels given, numbered in order. */
function desk() {
  const socket = createSocket('udp4');
  const bytes = packet(1);
  return {
    send(slots: Uint8Array): void {
      bytes[111] = (bytes[111]! + 1) & 0xff;
      bytes.set(slots, SLOTS_AT);
      socket.send(Buffer.from(bytes), ports.sacn, '127.0.0.1');
    },
    close: () => socket.close(),
  };
}

/** In the page: notes when the first slot's bar changes, seen in the frame after it was drawn. */
const WATCH_PIXEL = `(() => {
  globalThis.seen = [];
  let last;
  const look = () => {
    const canvas = document.querySelector('[data-testid=slot-canvas]');
    const ratio = canvas.width / canvas.clientWidth;
    const [red] = canvas.getContext('2d').getImageData(4 * ratio, 20 * ratio, 1, 1).data;
    if (last !== undefined && Math.abs(red - last) > 40) seen.push(performance.timeOrigin + performance.now());
    last = red;
    requestAnimationFrame(look);
  };
  look();
})()`;

/** In the page: counts frames, and drawings of the slot field. */
const COUNT_FRAMES = `(() => {
  globalThis.drawn = 0;
  globalThis.frames = 0;
  const clear = CanvasRenderingContext2D.prototype.clearRect;
  CanvasRenderingContext2D.prototype.clearRect = function (...args) { drawn += 1; return clear.apply(this, args); };
  const count = () => { frames += 1; requestAnimationFrame(count); };
  count();
})()`;

export const measure = (extent: Extent): Promise<Figure[]> =>
  withServer([], () =>
    withPage(async (page, slow) => {
      const sender = desk();
      sender.send(new Uint8Array(512));
      await page.goto(`${base}/listen/u1`);
      await page.getByRole('radio', { name: 'All 512' }).click();
      await wait(1000);

      await page.evaluate(WATCH_PIXEL);
      const delays: number[] = [];
      const changes = extent.of(60, 5);
      for (let i = 1; i <= changes; i += 1) {
        const before = await inPage<number>(page, 'seen.length');
        const sent = now();
        sender.send(new Uint8Array(512).fill(i % 2 === 1 ? 255 : 0));
        const seen = await page.waitForFunction(`seen[${before}]`, undefined, { timeout: 10_000 });
        delays.push(((await seen.jsonValue()) as number) - sent);
        await wait(70 + Math.random() * 60);
      }
      const worst = [...delays].sort((a, b) => a - b)[Math.floor(changes * 0.95)]!;
      const figures: Figure[] = [
        {
          figure: `wire to glass, median of ${changes} changes`,
          asked: 'at most 25 ms, 95 of 100 within 40 ms',
          seen: `${median(delays).toFixed(0)} ms, 95 of 100 within ${worst.toFixed(0)} ms`,
          met: median(delays) <= 25 && worst <= 40,
        },
      ];

      await slow.send('Emulation.setCPUThrottlingRate', { rate: 4 });
      const moving = setInterval(
        () => sender.send(Uint8Array.from({ length: 512 }, () => Math.random() * 256)),
        1000 / 44,
      );
      const seconds = extent.of(5, 1);
      await page.evaluate(COUNT_FRAMES);
      for (const view of ['All 512', 'By lamp']) {
        await page.getByRole('radio', { name: view }).click();
        await wait(extent.of(1500, 500));
        const [drawn, frames] = await inPage<[number, number]>(page, '[drawn, frames]');
        await wait(seconds * 1000);
        const [drawnAfter, framesAfter] = await inPage<[number, number]>(page, '[drawn, frames]');
        const fps = (framesAfter - frames) / seconds;
        const draws = (drawnAfter - drawn) / seconds;
        figures.push({
          figure: `${view}, all 512 slots at 44 Hz, processor slowed 4×`,
          asked: 'page at least 30 fps, drawn with each of the feed’s 30 frames',
          seen: `page ${fps.toFixed(0)} fps, drawn ${draws.toFixed(1)} times a second`,
          met: fps >= 30 && draws >= 29,
        });
      }
      clearInterval(moving);
      sender.close();
      return figures;
    }),
  );
