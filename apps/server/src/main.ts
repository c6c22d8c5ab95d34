/** The server from top to bottom: options, lock, show, engine, HTTP, feed. Read this first. */
import { accessSync, constants, mkdirSync } from 'node:fs';
import { createServer, type RequestListener } from 'node:http';
import { join, resolve } from 'node:path';
import { createInterface } from 'node:readline';
import { fileURLToPath } from 'node:url';
import { destination, pino } from 'pino';
import qrcode from 'qrcode';
import { createApp } from './http/app';
import { Guard } from './http/guard';
import { Feed } from './feed/feed';
import { EngineHost } from './bridge/host';
import { Notices } from './bridge/notices';
import { listInterfaces } from './bridge/interfaces';
import type { FromServer } from './keep/keeper';
import { Bench } from './practise/bench';
import { Practising } from './practise/practising';
import { BadOption, readOptions, type Options } from './options';
import { Exchange } from './exchange/exchange';
import { Plugs } from './plug/plugs';
import { Matching } from './eye/matching';
import { Identifying } from './roll/identifying';
import { RollCall } from './roll/rollCall';
import { LampSetter } from './roll/setter';
import { SettingsFile } from './settings';
import { WalkDesk } from './walk/walkDesk';
import { WalkLights } from './walk/lights';
import { FolderInUse, lockFolder } from './store/lock';
import { ShowDoor } from './bridge/showDoor';

const log = pino({ name: 'taxiarch', level: process.env['TAXIARCH_LOG'] ?? 'warn' }, destination(2));
const LOOPBACK = '127.0.0.1';

/** Something a person can mend; said in one sentence, without a stack. */
class CannotStart extends Error {}

function prepareFolder(folder: string): void {
  try {
    mkdirSync(folder, { recursive: true });
    accessSync(folder, constants.W_OK);
  } catch {
    throw new CannotStart(
      `The data folder ${folder} cannot be written. Choose another with --data, or mend its permissions.`,
    );
  }
}

/** While somebody asks how things stand boxes are polled at most this often. */
const ASKED_POLL_MS = 2000;

/** An idle connection is kept this long: one that is closed just as a request begins on it loses that request. */
const KEEP_ALIVE_MS = 65_000;

/** Calls `act` no more often than so. */
function seldom(act: () => unknown, ms: number): () => void {
  let last = -Infinity;
  return () => {
    const now = performance.now();
    if (now - last < ms) return;
    last = now;
    act();
  };
}

const ENGINE_FILES = {
  engine: new URL('./engine.mjs', import.meta.url),
  receiver: new URL('./receive.mjs', import.meta.url),
};

async function startEngine(
  options: Options,
  settings: SettingsFile,
  show: ShowDoor,
  notices: Notices,
): Promise<EngineHost> {
  const setup = {
    cid: settings.cid,
    settings: settings.read(),
    ports: { sacn: options.sacnPort, artnet: options.artnetPort },
  };
  try {
    return await EngineHost.start(ENGINE_FILES, setup, show.plan(), notices);
  } catch (error) {
    const taken = /EADDRINUSE \S+:(\d+)/.exec((error as Error).message);
    if (taken)
      throw new CannotStart(
        `UDP port ${taken[1]} is used by another program that does not share it. Close that program, then start again.`,
      );
    throw error;
  }
}

/** Routes that are marked to come back run again if they ran when Taxiarch ended; nothing else is sent. */
async function comeBack(host: EngineHost, settings: SettingsFile, show: ShowDoor): Promise<void> {
  const marked = show.plan().route.filter(({ id, comesBack }) => comesBack && settings.running.includes(id));
  const ids = marked.map(({ id }) => id);
  if (ids.length > 0) {
    const by = 'a route marked to come back';
    await host.ask({ type: 'hot', hot: true, by });
    await host.ask({ type: 'runRoutes', ids, on: true, by });
  }
  settings.keepRunning(ids);
  host.onRunning = (running) => settings.keepRunning(running);
}

async function listen(server: ReturnType<typeof createServer>, { port, host }: Options): Promise<void> {
  await new Promise<void>((ready, failed) => {
    server.once('error', (error: NodeJS.ErrnoException) => {
      if (error.code === 'EADDRINUSE')
        failed(
          new CannotStart(`TCP port ${port} is used by another program. Close it, or choose another port with --port.`),
        );
      else if (error.code === 'EADDRNOTAVAIL')
        failed(
          new CannotStart(
            `${host} is no address of this computer. Choose one of: ${listInterfaces()
              .map(({ address }) => address)
              .join(', ')}.`,
          ),
        );
      else if (error.code === 'EACCES')
        failed(new CannotStart(`Port ${port} may be used by administrators only. Choose one above 1023 with --port.`));
      else failed(error);
    });
    server.listen(port, host, ready);
  });
}

/** The address to open; for a server that others may reach also a code, and both as a picture to be scanned. */
async function announce({ host, port }: Options, guard: Guard): Promise<void> {
  const outward = listInterfaces().find(({ loopback }) => !loopback)?.address ?? LOOPBACK;
  const address = `http://${host === '0.0.0.0' ? outward : host}:${port}`;
  if (guard.code === undefined) {
    process.stdout.write(`Taxiarch is ready: ${address}\n`);
    return;
  }
  const picture = await qrcode.toString(`${address}/pair?code=${guard.code}`, { type: 'terminal', small: true });
  process.stdout.write(`${picture}\nTaxiarch is ready: ${address}   Pairing code: ${guard.code}\n`);
}

/** Whoever started the server is told that it lives, and what it sends. */
function tellKeeper(host: EngineHost, { sacnPort }: Options): void {
  if (!process.send) return;
  const tell = (message: FromServer) => process.connected && process.send!(message, undefined, {}, () => undefined);
  setInterval(() => tell({ type: 'beat' }), 1000).unref();
  host.onSending = (streams) => tell({ type: 'sending', streams, port: sacnPort });
}

/** For tests of the supervision: lines such as `break engine hang` on standard input. */
function listenForBreaking({ host, show }: { host: EngineHost; show: ShowDoor }): void {
  createInterface({ input: process.stdin }).on('line', (line) => {
    const [, thread, how] = /^break (engine|receiver|show|findings) (throw|hang)$/.exec(line) ?? [];
    if (thread === 'show' || thread === 'findings') show.break(thread, how as 'throw' | 'hang');
    else if (thread) host.break(thread as 'engine' | 'receiver', how as 'throw' | 'hang');
  });
}

async function main(): Promise<void> {
  const options = readOptions(process.argv.slice(2));
  const folder = resolve(options.data);
  prepareFolder(folder);
  const lock = await lockFolder(folder, () => {
    process.stderr.write('Another Taxiarch has taken the data folder while this one slept. This one ends, safe.\n');
    process.exit(1);
  });
  const guard = new Guard(options.port, options.host !== LOOPBACK);
  // The port is taken before anything slow begins, so that a clash is said at once. Every request has an answer, from
  // the first one on: until all is up, that it is starting.
  let answer: RequestListener = (_, response) => {
    response.writeHead(503, { 'content-type': 'text/plain; charset=utf-8', 'retry-after': '1' });
    response.end('Taxiarch is starting.');
  };
  const server = createServer((request, response) => answer(request, response));
  server.keepAliveTimeout = KEEP_ALIVE_MS;
  server.on('upgrade', (_, socket) => socket.destroy());
  await listen(server, options);

  const notices = new Notices();
  if (options.restarted !== '')
    notices.say(
      'server',
      `The server ended: ${options.restarted}. It was started again, safe; what was taken is not sent any more.`,
    );
  const settings = new SettingsFile(folder, options.demo ? { interface: LOOPBACK } : {}, notices);
  const setup = {
    folder,
    demo: options.demo,
    pattern: fileURLToPath(new URL('./database.tar', import.meta.url)),
    paperThread: new URL('./paper.mjs', import.meta.url).href,
    whatIfThread: new URL('./whatif.mjs', import.meta.url).href,
    importThread: new URL('./import.mjs', import.meta.url).href,
    findingsThread: new URL('./findings.mjs', import.meta.url).href,
  };
  const show = new ShowDoor(new URL('./show.mjs', import.meta.url), setup, notices);
  // The database takes longest to open; the engine begins beside it.
  const opening = show.start();
  opening.catch(() => undefined);
  const host = await startEngine(options, settings, show, notices).catch(async (error: unknown) => {
    await opening.then(
      () => show.stop(),
      () => undefined,
    );
    throw error;
  });
  await opening;
  host.setPlan(show.plan());
  const feed = new Feed(host);
  // Whoever asks how things stand wants to know who answers now.
  const scan = seldom(() => settings.read().poll && host.scan(), ASKED_POLL_MS);
  show.live = () => {
    scan();
    return host.now();
  };
  await comeBack(host, settings, show);
  const client = options.client === undefined ? undefined : join(resolve(options.client));
  const bench = new Bench(options.benchPort === undefined ? undefined : `http://${LOOPBACK}:${options.benchPort}`);
  const practising = new Practising(folder, bench, host, show, notices);
  const roll = new RollCall(folder, host, show, notices, () => settings.read().rollEvery);
  show.roll = () => roll.now();
  const setter = new LampSetter(roll, show);
  const identifying = new Identifying(setter, () => host.last()?.output.hot ?? false);
  feed.onLeave = (client) => identifying.leave(client);
  const matching = new Matching(folder, host, show, roll, setter);
  const desk = new WalkDesk(show, new WalkLights(host, show, feed));
  const exchange = new Exchange(show, settings, notices, { mdns: options.mdnsPort, citp: options.citpPort });
  show.onEdit = (text) => {
    exchange.edited();
    feed.tellEdit(text);
  };
  show.onMissed = () => {
    exchange.edited();
    feed.tellMissed();
  };
  const plugs = new Plugs(new URL('./plug.mjs', import.meta.url), host, show, settings, notices);
  await plugs.start();
  show.onPlan = (plan) => {
    host.setPlan(plan);
    plugs.follow();
  };
  const wire = { host, feed, settings, notices, exchange, plugs };
  const app = createApp({
    ...wire,
    show,
    guard,
    log,
    client,
    bench,
    practising,
    roll,
    setter,
    identifying,
    matching,
    desk,
  });
  answer = app.callback();
  server.removeAllListeners('upgrade');
  feed.attach(server, (request) => guard.refuse(request) === undefined && guard.admits(request));
  await announce(options, guard);
  tellKeeper(host, options);
  if (options.breakable) listenForBreaking({ host, show });

  let ending = false;
  const end = async () => {
    if (ending) return;
    ending = true;
    feed.close();
    server.close();
    server.closeAllConnections();
    await exchange.end();
    await plugs.stop();
    await host.stop();
    await show.stop();
    await lock.release();
    process.exit(0);
  };
  process.on('SIGINT', () => void end());
  process.on('SIGTERM', () => void end());
  // Started by another program that has gone: nobody is left to stop us.
  process.on('disconnect', () => void end());
}

main().catch((error: Error) => {
  const plain = error instanceof CannotStart || error instanceof BadOption || error instanceof FolderInUse;
  process.stderr.write(plain ? `${error.message}\n` : `Taxiarch could not start: ${error.stack ?? error.message}\n`);
  process.exit(1);
});
