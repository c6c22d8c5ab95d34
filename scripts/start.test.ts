/** `npm start` as a person runs it: what it says, how it ends, and that it leaves nothing behind. */
import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import type { LiveReport } from '@taxiarch/core/whole/contract';

jest.setTimeout(300_000);

const START = [resolve(__dirname, 'run.mjs'), 'start'];
const PORT = 28_630;
const PORTS = { sacn: 28_568, artnet: 28_454, mdns: 28_353, citp: 28_809, plug: 28_217, panel: 28_763 };
const UDP = Object.entries(PORTS).flatMap(([name, port]) => [`--${name}-port`, String(port)]);
/** Ended after each test, whatever came of it. */
const started: ChildProcess[] = [];
afterEach(async () => {
  for (const child of started.splice(0)) {
    if (child.exitCode !== null || child.signalCode !== null) continue;
    const ended = new Promise((done) => child.once('exit', done));
    child.kill('SIGINT');
    await ended;
  }
});

const newFolder = () => mkdtempSync(join(tmpdir(), 'taxiarch-start-'));

function start(
  folder: string,
  more: readonly string[] = [],
): { child: ChildProcess; said: () => string; ended: Promise<number | null> } {
  let text = '';
  const child = spawn(process.execPath, [...START, '--port', String(PORT), '--data', folder, ...UDP, ...more], {
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  for (const stream of [child.stdout!, child.stderr!]) stream.on('data', (piece) => (text += String(piece)));
  started.push(child);
  return { child, said: () => text, ended: new Promise((done) => child.once('exit', done)) };
}

/** Processes whose command line names this folder or these ports. */
function leftBehind(): string[] {
  return readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name) && Number(name) !== process.pid)
    .flatMap((pid) => {
      try {
        // A word of its own: browsers that other tests run have long numbers in theirs.
        const words = readFileSync(`/proc/${pid}/cmdline`, 'utf8').split('\0');
        return words.includes('28568') ? [words.join(' ')] : [];
      } catch {
        return [];
      }
    });
}

/** Id of the process that runs this program on these ports. */
const processOf = (program: string): number =>
  Number(
    readdirSync('/proc').find((pid) => {
      try {
        const line = readFileSync(`/proc/${pid}/cmdline`, 'utf8');
        return line.includes(program) && line.includes('28568');
      } catch {
        return false;
      }
    }),
  );

/** Waits as long as the test may last: how quick a computer is, is not what is tested. */
const until = async (met: () => boolean | Promise<boolean>) => {
  while (!(await met())) await new Promise((done) => setTimeout(done, 50));
};

test('it prints one address when everything answers, and Ctrl-C leaves no process', async () => {
  const folder = newFolder();
  const { child, said, ended } = start(folder);
  await until(() => said().includes('is ready:'));
  expect(said()).toBe(`Taxiarch is ready: http://127.0.0.1:${PORT}\n`);
  expect((await fetch(`http://127.0.0.1:${PORT}/`)).status).toBe(200);
  expect((await fetch('http://127.0.0.31:28763/ports')).status).toBe(200);

  const fresh = start(folder, ['--fresh', '--yes']);
  expect(await fresh.ended).toBe(1);
  expect(fresh.said()).toMatch(/is open in another Taxiarch/);

  child.kill('SIGINT');
  expect(await ended).toBe(0);
  expect(leftBehind()).toEqual([]);

  const asking = start(folder, ['--fresh']);
  expect(await asking.ended).toBe(1);
  expect(asking.said()).toMatch(/There is a show in .*add --yes/);
  expect(readdirSync(folder)).toContain('journal.jsonl');
  rmSync(folder, { recursive: true, force: true });
});

test('the server alone killed, it is started again, safe, and says why', async () => {
  const folder = newFolder();
  const { child, said, ended } = start(folder, ['--no-standins']);
  await until(() => said().includes('is ready:'));
  process.kill(processOf('server/main.mjs'), 'SIGKILL');
  await until(() => said().includes('started again'));
  const live = (await (await fetch(`http://127.0.0.1:${PORT}/api/live`)).json()) as LiveReport;
  // On a busy computer other notices may stand above it.
  expect(live.notices.map(({ sentence }) => sentence)).toContainEqual(
    expect.stringMatching(/^The server ended: it was ended by SIGKILL\. It was started again, safe/),
  );
  expect(live.output.hot).toBe(false);
  child.kill('SIGINT');
  expect(await ended).toBe(0);
  expect(leftBehind()).toEqual([]);
  rmSync(folder, { recursive: true, force: true });
});

test('stand-ins that end are started again, and that is said', async () => {
  const folder = newFolder();
  const { child, said, ended } = start(folder);
  await until(() => said().includes('is ready:'));
  process.kill(processOf('standins/main.mjs'), 'SIGKILL');
  await until(() => said().includes('Stand-ins (main.mjs) ended: SIGKILL. They start again.'));
  await until(async () => (await fetch('http://127.0.0.31:28763/ports').catch(() => undefined))?.ok ?? false);
  child.kill('SIGINT');
  expect(await ended).toBe(0);
  expect(leftBehind()).toEqual([]);
  rmSync(folder, { recursive: true, force: true });
});

test('killed outright, it takes server and stand-ins with it', async () => {
  const folder = newFolder();
  const { child, said, ended } = start(folder);
  await until(() => said().includes('is ready:'));
  child.kill('SIGKILL');
  await ended;
  await until(() => leftBehind().length === 0);
  expect(leftBehind()).toEqual([]);
  rmSync(folder, { recursive: true, force: true });
});

test('a used port is one sentence, and nothing goes on running', async () => {
  const folder = newFolder();
  const other = createServer().listen(PORT, '127.0.0.1');
  const { said, ended } = start(folder);
  expect(await ended).toBe(1);
  expect(said()).toBe(`TCP port ${PORT} is used by another program. Close it, or choose another port with --port.\n`);
  expect(leftBehind()).toEqual([]);
  other.close();
  rmSync(folder, { recursive: true, force: true });
});

test('a folder that cannot be one is a sentence', async () => {
  const folder = newFolder();
  writeFileSync(join(folder, 'file'), '');
  const { said, ended } = start(join(folder, 'file', 'data'));
  expect(await ended).toBe(1);
  expect(said()).toMatch(/^The data folder .* cannot be written\. Choose another with --data/);
  rmSync(folder, { recursive: true, force: true });
});

test('options that it does not know, and asking for help', () => {
  const run = (...args: string[]) => spawnSync(process.execPath, [...START, ...args], { encoding: 'utf8' });
  expect(run('--help')).toMatchObject({ status: 0, stdout: expect.stringContaining('--no-standins') });
  expect(run('--louder')).toMatchObject({ status: 1, stderr: expect.stringContaining("'--louder'") });
});
