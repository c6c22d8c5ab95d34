/** `npm start`: builds, and runs server and stand-ins until Ctrl-C. */
import { fork, type ChildProcess } from 'node:child_process';
import { existsSync, readdirSync, rmSync } from 'node:fs';
import { basename, join, resolve } from 'node:path';
import { createInterface } from 'node:readline/promises';
import { pathToFileURL } from 'node:url';
import { parseArgs } from 'node:util';
import { Keeper } from '../apps/server/src/keep/keeper';
import { buildAll } from './built';
import { out } from './bundle.mjs';

const HELP = `npm start -- [options]
  --port N          TCP port of the page (4630)
  --data DIR        folder for the show and this computer's settings (demo-data)
  --host ADDRESS    let other devices in by this address of the computer; they pair with a code
  --no-standins     without the simulated console and nodes
  --fresh           begin the demo show again; asks first when there is data (--yes answers)
  --empty           begin a new folder with an empty show instead of the demo
  --sacn-port N     UDP port of sACN (5568), for tests
  --artnet-port N   UDP port of Art-Net (6454), for tests
  --mdns-port N     UDP port of mDNS (5353), for tests
  --citp-port N     UDP port of CITP (4809), for tests
  --plug-port N     TCP port of the stand-in adapters (2217), for tests
  --panel-port N    TCP port of the stand-ins' front panels (7630), for tests
`;

function say(sentence: string, code = 1): never {
  (code === 0 ? process.stdout : process.stderr).write(`${sentence}\n`);
  process.exit(code);
}

function readArguments() {
  try {
    return parseArgs({
      options: {
        port: { type: 'string', default: '4630' },
        data: { type: 'string', default: 'demo-data' },
        host: { type: 'string', default: '127.0.0.1' },
        'no-standins': { type: 'boolean', default: false },
        fresh: { type: 'boolean', default: false },
        yes: { type: 'boolean', default: false },
        empty: { type: 'boolean', default: false },
        'sacn-port': { type: 'string', default: '5568' },
        'artnet-port': { type: 'string', default: '6454' },
        'panel-port': { type: 'string', default: '7630' },
        'mdns-port': { type: 'string', default: '5353' },
        'citp-port': { type: 'string', default: '4809' },
        'plug-port': { type: 'string', default: '2217' },
        help: { type: 'boolean', default: false },
      },
    }).values;
  } catch (error) {
    return say(`${(error as Error).message}\n\n${HELP}`);
  }
}

/** Empties the data folder of what Taxiarch keeps there, if the person agrees. */
async function startFresh(folder: string, agreed: boolean): Promise<void> {
  const kept = existsSync(folder)
    ? readdirSync(folder).filter((name) => /^(database|journal|settings|stand-ins)/.test(name))
    : [];
  if (kept.length === 0) return;
  if (!agreed) {
    if (!process.stdin.isTTY) say(`There is a show in ${folder}. To throw it away and begin again, add --yes.`);
    const question = createInterface({ input: process.stdin, output: process.stdout });
    const answer = await question.question(`Throw away the show in ${folder} and begin the demo again? Type yes: `);
    question.close();
    if (answer.trim().toLowerCase() !== 'yes') say('Nothing was changed.', 0);
  }
  for (const name of kept) rmSync(join(folder, name), { recursive: true, force: true });
}

const children: ChildProcess[] = [];
let keeper: Keeper | undefined;
let ending = false;

/** Stops everything; those that do not end by themselves in five seconds are ended. */
async function end(code: number): Promise<void> {
  if (ending) return;
  ending = true;
  keeper?.stop();
  await Promise.all(
    children.map(
      (child) =>
        new Promise<void>((done) => {
          if (child.exitCode !== null || child.signalCode !== null) return done();
          const late = setTimeout(() => child.kill('SIGKILL'), 5000);
          child.once('exit', () => {
            clearTimeout(late);
            done();
          });
          child.kill('SIGTERM');
        }),
    ),
  );
  process.exit(code);
}

/** A program in a group of its own, so that Ctrl-C reaches this script alone and it stops the rest in order. */
function started(file: string, args: readonly string[]): ChildProcess {
  const child = fork(file, args, {
    stdio: ['ignore', 'pipe', 'inherit', 'ipc'],
    detached: process.platform !== 'win32',
  });
  children.push(child);
  return child;
}

/** A program that ends so often within a minute is not started any more. */
const MOST_ENDS = 5;
const MINUTE_MS = 60_000;
const AGAIN_AFTER_MS = 1000;

/**
 * Runs a stand-in program until its line of readiness. One that ends later is started again, and that is said; one that
 * never was ready, or ends again and again, ends everything.
 */
function run(file: string, args: readonly string[], ready: RegExp): Promise<void> {
  const ends: number[] = [];
  let everReady = false;
  return new Promise((done) => {
    const begin = (): void => {
      const child = started(file, args);
      let said = '';
      child.stdout!.setEncoding('utf8').on('data', (text: string) => {
        if (everReady) return;
        said += text;
        everReady = ready.test(said);
        if (everReady) done();
      });
      child.once('exit', (code, signal) => {
        if (ending) return;
        ends.push(Date.now());
        const often = ends.filter((at) => Date.now() - at < MINUTE_MS).length >= MOST_ENDS;
        if (!everReady || often) return void end(code === 0 ? 0 : 1);
        const why = signal === null ? `exit code ${code}` : signal;
        process.stderr.write(`Stand-ins (${basename(file)}) ended: ${why}. They start again.\n`);
        setTimeout(() => !ending && begin(), AGAIN_AFTER_MS);
      });
    };
    begin();
  });
}

/** Runs the server, again and again if it must be; resolves with what it said until it was ready. */
const keep = (file: string, args: readonly string[]): Promise<string> =>
  new Promise((done) => {
    keeper = new Keeper({
      start: (restarted) => started(file, restarted === undefined ? args : [...args, '--restarted', restarted]),
      ready: done,
      again: (why) => process.stderr.write(`The server ended: ${why}. It was started again, safe.\n`),
      ended(code, why) {
        if (why !== '') process.stderr.write(`${why}\n`);
        void end(code === 0 ? 0 : 1);
      },
    });
  });

async function main(): Promise<void> {
  const options = readArguments();
  if (options.help) say(HELP, 0);
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void end(0));
  const folder = resolve(options.data);
  buildAll();
  if (options.fresh) {
    // The server's own lock is asked first, so that no running show is thrown away.
    const { lockFolder } = (await import(
      pathToFileURL(join(out, 'server/lock.mjs')).href
    )) as typeof import('../apps/server/src/store/lock');
    if (existsSync(folder)) await (await lockFolder(folder).catch((error: Error) => say(error.message))).release();
    await startFresh(folder, options.yes);
  }
  const udp = (['sacn-port', 'artnet-port', 'mdns-port', 'citp-port'] as const).flatMap((name) => [
    `--${name}`,
    options[name],
  ]);
  const server = await keep(join(out, 'server/main.mjs'), [
    '--port',
    options.port,
    '--host',
    options.host,
    '--data',
    folder,
    '--client',
    join(out, 'client'),
    ...(options.empty ? ['--empty'] : []),
    ...(options['no-standins'] ? [] : ['--bench-port', options['panel-port']]),
    ...udp,
  ]);
  if (!options['no-standins']) {
    const panel = [...udp, '--panel-port', options['panel-port']];
    await run(join(out, 'standins/visualiser.mjs'), panel, /ready/);
    await run(
      join(out, 'standins/main.mjs'),
      [...panel, '--plug-port', options['plug-port'], '--data', join(folder, 'stand-ins')],
      /ready/,
    );
  }
  process.stdout.write(server);
}

main().catch((error: Error) => say(error.message));
