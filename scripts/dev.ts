/**
 * `npm run dev`: everything at work at one address. Server and stand-ins are built and started anew when
 * their sources change; screens come from Expo's development server, which puts a change into the open page.
 */
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { createServer, request, type IncomingMessage } from 'node:http';
import { connect } from 'node:net';
import { join } from 'node:path';
import { context } from 'esbuild';
import { programOptions } from './programs';
import { out, root } from './bundle.mjs';
import { copyFonts } from './client';
import { expoEnvironment } from './expo';

const [PAGE, SERVER, SCREENS] = [4630, 4631, 4632];

copyFonts();
mkdirSync(out, { recursive: true });
const building = await context(programOptions);
await building.rebuild();
await building.watch();

const start = (args: readonly string[], cwd = root, env = process.env): ChildProcess =>
  spawn(process.execPath, args, { cwd, env, stdio: 'inherit' });
const watched = (file: string, ...args: string[]) =>
  start(['--watch', '--watch-preserve-output', join(out, file), ...args]);
const programs = [
  watched('server/main.mjs', '--port', String(SERVER), '--data', 'demo-data', '--bench-port', '7630'),
  watched('standins/visualiser.mjs'),
  watched('standins/main.mjs', '--data', join('demo-data', 'stand-ins')),
  start([join(root, 'node_modules/expo/bin/cli'), 'start', '--port', String(SCREENS)], join(root, 'apps/client'), {
    ...expoEnvironment(),
    BROWSER: 'none',
    // Its own ideas of our configuration are not wanted.
    EXPO_NO_TYPESCRIPT_SETUP: '1',
  }),
];

/** Where a request goes: what the server answers itself, or the screens. */
const portOf = ({ url = '/' }: IncomingMessage) => (/^\/(api|feed)\b/.test(url) ? SERVER : SCREENS);
/** The server judges who asks by these: towards it, this page is one of its own. */
const headersFor = (port: number, { headers }: IncomingMessage) => ({
  ...headers,
  host: `127.0.0.1:${port}`,
  ...(headers.origin && { origin: `http://127.0.0.1:${port}` }),
});

const page = createServer((asked, answer) => {
  const port = portOf(asked);
  const passed = request({
    port,
    host: '127.0.0.1',
    path: asked.url,
    method: asked.method,
    headers: headersFor(port, asked),
  });
  passed.once('response', (reply) => {
    answer.writeHead(reply.statusCode ?? 502, reply.headers);
    reply.pipe(answer);
  });
  passed.once('error', () => answer.writeHead(502).end('It is still starting. Reload in a moment.'));
  asked.pipe(passed);
});
page.on('upgrade', (asked: IncomingMessage, socket, head) => {
  const port = portOf(asked);
  const passed = connect(port, '127.0.0.1', () => {
    const lines = Object.entries(headersFor(port, asked)).map(([name, value]) => `${name}: ${String(value)}`);
    passed.write([`GET ${asked.url} HTTP/1.1`, ...lines, '', ''].join('\r\n'));
    passed.write(head);
    passed.pipe(socket).pipe(passed);
  });
  passed.once('error', () => socket.destroy());
  socket.once('error', () => passed.destroy());
});
page.listen(PAGE, '127.0.0.1', () => process.stdout.write(`Open http://127.0.0.1:${PAGE}\n`));

for (const signal of ['SIGINT', 'SIGTERM'])
  process.on(signal, () => {
    for (const program of programs) program.kill('SIGTERM');
    process.exit(0);
  });
