/** Sees to it that the packages of the lockfile are installed, and that Node is new enough. */
import { createHash } from 'node:crypto';
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = dirname(dirname(fileURLToPath(import.meta.url)));
const mark = join(root, 'node_modules/.taxiarch-lockfile');

/** @param {string} sentence */
function fail(sentence) {
  process.stderr.write(`${sentence}\n`);
  process.exit(1);
}

/** Installs packages if they are missing or belong to another lockfile. Ends the process if that fails. */
export function ensurePackages() {
  const [major = 0, minor = 0] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 15))
    fail(
      `Taxiarch needs Node 20.15 or newer; this is ${process.versions.node}. Install a newer Node, then start again.`,
    );
  const fingerprint = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  if (existsSync(mark) && readFileSync(mark, 'utf8') === fingerprint) return;
  process.stdout.write('Installing packages; this takes a minute or two the first time.\n');
  const npm = process.platform === 'win32' ? 'npm.cmd' : 'npm';
  const installed = spawnSync(npm, ['ci', '--no-progress', '--loglevel=error'], {
    cwd: root,
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  if (installed.status !== 0)
    fail(
      'The packages could not be installed. Look at the lines above, check the connection to the package registry, then start again.',
    );
  writeFileSync(mark, fingerprint);
}
