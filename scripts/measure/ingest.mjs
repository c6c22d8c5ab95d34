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

async function streams() {
  const { universes } = await (await fetch(`${base}/api/live`)).json();
  return universes.flatMap((universe) => universe.streams);
}
const total = (list, field) => list.reduce((sum, stream) => sum + stream[field], 0);

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
    const heard = total(await streams(), 'packets');
    await send(ports.sacn, 200, 0, BLAST_MS);
    await wait(1200);
    oursBest = Math.max(oursBest, (total(await streams(), 'packets') - heard) / (BLAST_MS / 1000));
  }
  bare.kill();
  await server.stop();

  // A fresh engine, so that no stream begins where the blast left off.
  const fresh = await startServer();
  // The database's own code is still being compiled in the background for some seconds.
  await wait(SETTLE_MS);
  const sent = await send(ports.sacn, 2000, 44, 10_000);
  await wait(1800);
  const after = await streams();
  await fresh.stop();
  const heard = total(after, 'packets');
  return [
    `bare socket ${Math.round(bareBest)} packets/s, engine ${Math.round(oursBest)} packets/s: ratio ${ratio(oursBest, bareBest)} (at least 0.35: ${verdict(oursBest / bareBest >= 0.35)})`,
    `2,000 universes × 44 Hz for 10 s: sent ${sent}, taken in ${heard}, lost ${sent - heard} (none: ${verdict(sent === heard)})`,
  ];
}
