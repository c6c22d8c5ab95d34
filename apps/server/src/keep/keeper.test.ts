import { fork, type ChildProcess } from 'node:child_process';
import { createSocket } from 'node:dgram';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { decodeSacn } from '@taxiarch/core/protocol/sacn';
import { eventually } from '../testing/serverProcess';
import { Keeper } from './keeper';
import type { Sending } from './lastWords';
import { processLoad, type ProcessLoad } from './processLoad';

/** Shorter than a person would have to wait, longer than a busy computer holds a process up */
const HANGS_MS = 2000;
const folder = mkdtempSync(join(tmpdir(), 'taxiarch-keeper-'));
const children: ChildProcess[] = [];
afterAll(() => {
  for (const child of children) child.kill('SIGKILL');
  rmSync(folder, { recursive: true, force: true });
});

const READY = "process.stdout.write('Taxiarch is ready: here\\n');";

/** A made-up server: `body` runs after it said that it is ready. */
function keeperOf(body: string, readiness = READY, loadOf?: (pid: number) => ProcessLoad | undefined) {
  const file = join(folder, `server-${children.length}.cjs`);
  writeFileSync(file, `${readiness} ${body}`);
  const told: string[] = [];
  const keeper = new Keeper(
    {
      start(restarted) {
        const child = fork(file, restarted === undefined ? [] : [restarted], {
          stdio: ['ignore', 'pipe', 'inherit', 'ipc'],
        });
        children.push(child);
        return child;
      },
      ready: () => told.push('ready'),
      again: (why) => told.push(why),
      ended: (code, why) => told.push(`ended ${code} ${why}`.trim()),
    },
    HANGS_MS,
    loadOf,
  );
  const last = () => children[children.length - 1]!;
  return { keeper, told, last };
}

const BEATS = "setInterval(() => process.send({ type: 'beat' }), 100);";

test('a server that is killed is started again, with the reason', async () => {
  const { keeper, told, last } = keeperOf(BEATS);
  await eventually(
    () => told,
    (all) => all.includes('ready'),
  );
  last().kill('SIGKILL');
  await eventually(
    () => told,
    (all) => all.length === 2,
  );
  expect(told).toEqual(['ready', 'it was ended by SIGKILL']);
  keeper.stop()?.kill();
});

test('one that takes long to begin is given the time', async () => {
  const slow = "setTimeout(() => process.stdout.write('Taxiarch is ready: here\\n'), 2500);";
  const { keeper, told } = keeperOf(`setTimeout(() => { ${BEATS} }, 2600);`, slow);
  await eventually(
    () => told,
    (all) => all.length === 1,
  );
  // That it is not ended shows only after the time in which it would be.
  await new Promise((done) => setTimeout(done, 1500));
  expect(told).toEqual(['ready']);
  keeper.stop()?.kill();
});

test('a server that hangs is ended and started again', async () => {
  // The second one beats; the first stops when it is ready.
  const { keeper, told } = keeperOf(`if (process.argv[2]) ${BEATS} else setInterval(() => undefined, 1000);`);
  await eventually(
    () => told,
    (all) => all.length === 2,
  );
  expect(told).toEqual(['ready', 'it gave no sign for 2 s']);
  keeper.stop()?.kill();
});

test('a server that waits for a processor is left alone; one that uses it up without a sign is ended', async () => {
  let used = 0;
  const looks: number[] = [];
  const { keeper, told } = keeperOf(
    `if (process.argv[2]) ${BEATS} else setInterval(() => undefined, 1000);`,
    READY,
    () => {
      looks.push(Date.now());
      return { used, waits: true };
    },
  );
  await eventually(
    () => looks,
    (all) => all.length > 0 && all[all.length - 1]! - all[0]! > 2 * HANGS_MS,
  );
  expect(told).toEqual(['ready']);
  used = HANGS_MS;
  await eventually(
    () => told,
    (all) => all.length === 2,
  );
  expect(told[1]).toBe('it gave no sign for 2 s');
  keeper.stop()?.kill();
});

test('the processor time of a process is read from the system', () => {
  const before = processLoad(process.pid)!;
  const end = process.cpuUsage().user + 60_000;
  while (process.cpuUsage().user < end);
  expect(processLoad(process.pid)!.used).toBeGreaterThan(before.used);
  expect(processLoad(2 ** 30)).toBeUndefined();
});

test('what it sent is ended for it, so that any receiver lets go', async () => {
  const streams: Sending[] = [
    {
      cid: '01020304-0506-0708-090a-0b0c0d0e0f10',
      universe: 7,
      sequence: 250,
      priority: 150,
      by: '127.0.0.1',
      to: ['127.0.0.1'],
    },
  ];
  const heard: [number, boolean, number][] = [];
  const socket = createSocket('udp4').on('message', (bytes) => {
    const read = decodeSacn(bytes);
    if (read.ok && read.value.kind === 'data')
      heard.push([read.value.universe, read.value.terminated, read.value.sequence]);
  });
  const port = await new Promise<number>((done) => socket.bind(0, '127.0.0.1', () => done(socket.address().port)));
  const body = `${BEATS} if (!process.argv[2]) process.send(${JSON.stringify({ type: 'sending', streams, port })}, () => process.kill(process.pid, 'SIGKILL'));`;
  const { keeper, told } = keeperOf(body);
  await eventually(
    () => told,
    (all) => all.length === 2,
  );
  await eventually(
    () => heard.length,
    (count) => count === 4,
  );
  expect(heard).toEqual([251, 59, 123, 187].map((sequence) => [7, true, sequence]));
  socket.close();
  keeper.stop()?.kill();
});

test('one that cannot start, or ends as it was asked to, is not started again', async () => {
  const never = keeperOf('process.exit(3);', '');
  await eventually(
    () => never.told,
    (all) => all.length > 0,
  );
  expect(never.told).toEqual(['ended 3']);
  const asked = keeperOf('setTimeout(() => process.exit(0), 50);');
  await eventually(
    () => asked.told,
    (all) => all.length > 1,
  );
  expect(asked.told).toEqual(['ready', 'ended 0']);
});

test('one that ends again and again is given up, and that is said', async () => {
  const { told } = keeperOf('setTimeout(() => process.exit(9), 20);');
  await eventually(
    () => told,
    (all) => all.some((one) => one.startsWith('ended')),
  );
  expect(told[told.length - 1]).toBe(
    'ended 1 The server ended 6 times within a minute; the last time it ended with code 9.',
  );
});
