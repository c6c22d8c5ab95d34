/** How many packets a second the engine takes in, with full account and merge, beside a bare socket. */
import { fork, spawn } from 'node:child_process';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { base, noneLost, ports, ratio, startServer, stolen, verdict, wait } from './server.mjs';

const here = dirname(fileURLToPath(import.meta.url));
const BARE_PORT = 37000;
/** Universes, frames a second (0: as fast as can be), milliseconds. */
const BLAST = [200, 0, 4000];
const BEGIN = [2000, 44, 2000];
const STEADY = [2000, 44, 10_000];
const ROUNDS = 3;
const SETTLE_MS = 10_000;
/** Bytes that let a socket hold half a second of these packets; Linux says twice what was allowed. */
const ROOMY = 64 * 1024 * 1024;

/** Runs the sender; resolves to the number of packets it sent. */
const send = (port, universes, rate, ms) =>
  new Promise((done) => {
    const sender = spawn(process.execPath, [join(here, 'sender.mjs'), port, universes, rate, ms].map(String));
    sender.stdout.once('data', (text) => done(Number(text)));
  });

/** Packets that the engine has taken in since it began. */
const taken = async () => (await (await fetch(`${base}/api/live`)).json()).packets;

/** A round of sending: what was sent, lost, and stolen of the computer's time. */
async function round(port, count, [universes, rate, ms]) {
  const ticks = stolen();
  const before = await count();
  const sent = await send(port, universes, rate, ms);
  await wait(1200);
  const counted = (await count()) - before;
  return { sent, taken: counted, lost: Math.max(0, sent - counted), stolen: stolen(ticks), seconds: ms / 1000 };
}

const said = ({ sent, lost, stolen: share }) =>
  `sent ${sent}, lost ${lost} (${(share * 100).toFixed(1)} % of the computer stolen)`;

export async function measure() {
  const bare = fork(join(here, 'bareReceiver.mjs'), [String(BARE_PORT)], {
    stdio: ['ignore', 'pipe', 'inherit', 'ipc'],
  });
  const buffer = Number(await new Promise((ready) => bare.stdout.once('data', ready)));
  const bareCount = () =>
    new Promise((done) => {
      bare.once('message', done);
      bare.send('count');
    });
  const server = await startServer();
  const best = { bare: 0, ours: 0 };
  for (let i = 0; i < ROUNDS; i += 1) {
    const bareRound = await round(BARE_PORT, bareCount, BLAST);
    const ourRound = await round(ports.sacn, taken, BLAST);
    best.bare = Math.max(best.bare, bareRound.taken / bareRound.seconds);
    best.ours = Math.max(best.ours, ourRound.taken / ourRound.seconds);
  }
  await server.stop();

  // A fresh engine, so that no stream begins where the blast left off.
  const fresh = await startServer();
  // The database's own code is still being compiled in the background for some seconds.
  await wait(SETTLE_MS);
  const cold = await round(ports.sacn, taken, BEGIN);
  const steady = [];
  for (let i = 0; i < ROUNDS; i += 1)
    steady.push({ bare: await round(BARE_PORT, bareCount, STEADY), ours: await round(ports.sacn, taken, STEADY) });
  bare.kill();
  await fresh.stop();
  return [
    `bare socket ${Math.round(best.bare)} packets/s, engine ${Math.round(best.ours)} packets/s: ratio ${ratio(best.ours, best.bare)} (at least 0.35: ${verdict(best.ours / best.bare >= 0.35)})`,
    `2,000 universes × 44 Hz for 10 s, the system holding ${Math.round(buffer / 1024)} KB a socket (none lost: ${noneLost(steady)})`,
    ...steady.flatMap((one) => [`  bare socket: ${said(one.bare)}`, `  engine:      ${said(one.ours)}`]),
    ...(buffer < ROOMY ? ['  more can be held after: sudo sysctl net.core.rmem_max=33554432'] : []),
    `the 2 s before, in which all 2,000 streams began at once: ${said(cold)}`,
  ];
}
