/** From a packet on the wire to a pixel on the screen, and the frame rate on a slow phone. */
import { createSocket } from 'node:dgram';
import { chromium } from '@playwright/test';
import { base, median, ports, startServer, verdict, wait } from './server.mjs';

const CHANGES = 60;
const now = () => performance.timeOrigin + performance.now();

/** Sends universe 1 with the levels given, numbered in order. */
function desk() {
  const socket = createSocket('udp4');
  let sequence = 0;
  return {
    send(slots) {
      const bytes = Buffer.alloc(638);
      bytes.writeUInt16BE(0x10, 0);
      bytes.write('ASC-E1.17', 4);
      for (const at of [16, 38, 115]) bytes.writeUInt16BE(0x7000 | (638 - at), at);
      bytes.writeUInt32BE(4, 18);
      bytes.fill(0x5b, 22, 38);
      bytes.writeUInt32BE(2, 40);
      bytes.write('Measuring desk', 44);
      bytes[108] = 100;
      bytes[111] = sequence = (sequence + 1) & 0xff;
      bytes.writeUInt16BE(1, 113);
      bytes.set([2, 0xa1, 0, 0, 0, 1, 2, 1], 117);
      bytes.set(slots, 126);
      socket.send(bytes, ports.sacn, '127.0.0.1');
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

export async function measure() {
  const server = await startServer();
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--disable-background-networking'],
  });
  const page = await browser.newPage({ viewport: { width: 390, height: 844 } });
  const sender = desk();
  sender.send(new Uint8Array(512));
  await page.goto(`${base}/listen/u1`);
  await page.getByRole('radio', { name: 'All 512' }).click();
  await wait(1000);

  await page.evaluate(WATCH_PIXEL);
  const delays = [];
  for (let i = 1; i <= CHANGES; i += 1) {
    const before = await page.evaluate('seen.length');
    const sent = now();
    sender.send(new Uint8Array(512).fill(i % 2 === 1 ? 255 : 0));
    const seen = await page.waitForFunction((n) => globalThis.seen[n], before, { timeout: 3000 });
    delays.push((await seen.jsonValue()) - sent);
    await wait(70 + Math.random() * 60);
  }

  const slow = await page.context().newCDPSession(page);
  await slow.send('Emulation.setCPUThrottlingRate', { rate: 4 });
  const moving = setInterval(() => sender.send(Uint8Array.from({ length: 512 }, () => Math.random() * 256)), 1000 / 44);
  const lines = [];
  for (const view of ['All 512', 'By lamp']) {
    await page.getByRole('radio', { name: view }).click();
    await wait(1500);
    if (lines.length === 0) await page.evaluate(COUNT_FRAMES);
    const [drawn, frames] = await page.evaluate('[drawn, frames]');
    await wait(5000);
    const [drawnAfter, framesAfter] = await page.evaluate('[drawn, frames]');
    const fps = (framesAfter - frames) / 5;
    const draws = (drawnAfter - drawn) / 5;
    lines.push(
      `${view}, all 512 slots at 44 Hz, processor slowed 4×: page ${fps.toFixed(0)} fps, field drawn ${draws.toFixed(1)} times a second of the feed’s 30 (at least 30 fps: ${verdict(fps >= 30 && draws >= 29)})`,
    );
  }
  clearInterval(moving);
  sender.close();
  await browser.close();
  await server.stop();
  const worst = [...delays].sort((a, b) => a - b)[Math.floor(CHANGES * 0.95)];
  return [
    `wire to glass: median ${median(delays).toFixed(0)} ms, 95th of 100 ${worst.toFixed(0)} ms, of ${CHANGES} changes (median at most 60: ${verdict(median(delays) <= 60)})`,
    ...lines,
  ];
}
