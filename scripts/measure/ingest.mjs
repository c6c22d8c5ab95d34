/** How many packets a second the engine takes in, with full account and merge, beside a bare socket. */
import { fork, spawn } from 'node:child_process';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { base, ports, ratio, startServer, stolen, verdict, wait } from './server.mjs';

const here = dirname(fileURLToPath(import.meta.url));
const BARE_PORT = 37000;
/** Universes, frames a second (0: as fast as can be), milliseconds. */
const BLAST = [200, 0, 4000];
const BEGIN = [2000, 44, 2000];
const STEADY = [2000, 44, 10_000];
/** Of the computer's time; above it the computer was not ours to measure. */
const QUIET = 0.005;
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

/** A round of sending: what was sent, lost, and stolen of the computer's time. */
async function round(port, count, [universes, rate, ms]) {
  const ticks = stolen();
  const before = await count();
  const sent = await send(port, universes, rate, ms);
  await wait(1200);
  return { sent, taken: (await count()) - before, stolen: stolen(ticks), seconds: ms / 1000 };
}

const said = ({ sent, taken, stolen: share }) =>
  `sent ${sent}, lost ${sent - taken} (${(share * 100).toFixed(1)} % of the computer stolen)`;

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
  // A computer that is taken away for longer than its buffers last loses packets in any program.
  const fair = steady.filter((one) => one.bare.sent === one.bare.taken && one.ours.stolen < QUIET);
  const word =
    fair.length === 0
      ? 'not to be told: no round was quiet'
      : verdict(fair.every(({ ours }) => ours.taken >= ours.sent));
  return [
    `bare socket ${Math.round(best.bare)} packets/s, engine ${Math.round(best.ours)} packets/s: ratio ${ratio(best.ours, best.bare)} (at least 0.35: ${verdict(best.ours / best.bare >= 0.35)})`,
    `2,000 universes × 44 Hz for 10 s (none lost: ${word})`,
    ...steady.flatMap((one) => [`  bare socket: ${said(one.bare)}`, `  engine:      ${said(one.ours)}`]),
    `the 2 s before, in which all 2,000 streams began at once: ${said(cold)}`,
  ];
}
