/** `npm run dev`: everything at work; each part is built and started anew when its sources change. */
import { spawn } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { ensurePackages } from './prepare.mjs';

ensurePackages();
const { bundleOptions, buildPrograms, copyFonts, expoEnvironment, out, root } = await import('./build.mjs');
const { context } = await import('esbuild');

copyFonts();
mkdirSync(out, { recursive: true });
await buildPrograms();
await (await context(bundleOptions)).watch();

const clientOut = join(out, 'client');
const programs = [
  ['--watch', join(out, 'server/main.mjs'), '--data', 'demo-data', '--client', clientOut, '--bench-port', '7630'],
  ['--watch', join(out, 'standins/visualiser.mjs')],
  ['--watch', join(out, 'standins/main.mjs'), '--data', join('demo-data', 'stand-ins')],
].map((args) => spawn(process.execPath, args, { cwd: root, stdio: 'inherit' }));
/** The client is exported again after each change, into the folder that the server serves. */
const environment = expoEnvironment();
programs.push(
  spawn(process.execPath, [join(root, 'scripts/watchClient.mjs')], { cwd: root, stdio: 'inherit', env: environment }),
);

process.on('SIGINT', () => {
  for (const program of programs) program.kill('SIGTERM');
  process.exit(0);
});
