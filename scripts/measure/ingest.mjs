/** How many packets a second the engine takes in, with full account and merge, beside a bare socket. */
import { fork, spawn } from 'node:child_process';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { base, ports, ratio, startServer, verdict, wait } from './server.mjs';

const here = dirname(fileURLToPath(import.meta.url));
const BARE_PORT = 37000;
const BLAST_MS = 4000;
const ROUNDS = 3;
const SETTLE_MS = 10_000;

/** Runs the sender; resolves to the number of packets it sent. */
const send = (port, universes, rate, ms) =>
  new Promise((done) => {
    const sender = spawn(process.execPath, [join(here, 'sender.mjs'), port, universes, rate, ms].map(String));
    sender.stdout.once('data', (text) => done(Number(text)));
  });

/** Packets that the engine has taken in since it began. */
const taken = async () => (await (await fetch(`${base}/api/live`)).json()).packets;

export async function measure() {
  const bare = fork(join(here, 'bareReceiver.mjs'), [String(BARE_PORT)], {
    stdio: ['ignore', 'pipe', 'inherit', 'ipc'],
  });
  await new Promise((ready) => bare.stdout.once('data', ready));
  const bareCount = () =>
    new Promise((done) => {
      bare.once('message', done);
      bare.send('count');
    });
  const server = await startServer();
  let bareBest = 0;
  let oursBest = 0;
  for (let round = 0; round < ROUNDS; round += 1) {
    const before = await bareCount();
    await send(BARE_PORT, 200, 0, BLAST_MS);
    await wait(300);
    bareBest = Math.max(bareBest, ((await bareCount()) - before) / (BLAST_MS / 1000));
    const heard = await taken();
    await send(ports.sacn, 200, 0, BLAST_MS);
    await wait(1200);
    oursBest = Math.max(oursBest, ((await taken()) - heard) / (BLAST_MS / 1000));
  }
  bare.kill();
  await server.stop();

  // A fresh engine, so that no stream begins where the blast left off.
  const fresh = await startServer();
  // The database's own code is still being compiled in the background for some seconds.
  await wait(SETTLE_MS);
  /** Packets sent and lost in a run of 2,000 universes at 44 Hz. */
  const run = async (ms) => {
    const before = await taken();
    const sent = await send(ports.sacn, 2000, 44, ms);
    await wait(1200);
    return { sent, lost: sent - ((await taken()) - before) };
  };
  const cold = await run(2000);
  const steady = await run(10_000);
  await fresh.stop();
  return [
    `bare socket ${Math.round(bareBest)} packets/s, engine ${Math.round(oursBest)} packets/s: ratio ${ratio(oursBest, bareBest)} (at least 0.35: ${verdict(oursBest / bareBest >= 0.35)})`,
    `2,000 universes × 44 Hz for 10 s: sent ${steady.sent}, lost ${steady.lost} (none: ${verdict(steady.lost <= 0)})`,
    `the 2 s before, in which all 2,000 streams began at once: sent ${cold.sent}, lost ${cold.lost}`,
  ];
}
