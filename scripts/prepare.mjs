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

/**
 * Installs packages if they are missing or belong to another lockfile: for starting those that run and build
 * Taxiarch, otherwise also those that check it. Ends the process if that fails.
 * @param {'start' | 'all'} which
 */
export function ensurePackages(which) {
  const [major = 0, minor = 0] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 15))
    fail(
      `Taxiarch needs Node 20.15 or newer; this is ${process.versions.node}. Install a newer Node, then start again.`,
    );
  const fingerprint = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  const installedFor = existsSync(mark) ? readFileSync(mark, 'utf8').split(' ') : [];
  if (installedFor[0] === fingerprint && (which === 'start' || installedFor[1] === 'all')) return;
  const begun = performance.now();
  const time = which === 'start' ? 'about a minute' : 'about two minutes';
  process.stdout.write(`Installing packages: ${time}, the first time.\n`);
  const npm = process.platform === 'win32' ? 'npm.cmd' : 'npm';
  const omitted = which === 'start' ? ['--omit=dev'] : [];
  const installed = spawnSync(npm, ['ci', ...omitted, '--no-audit', '--no-fund', '--no-progress', '--loglevel=error'], {
    cwd: root,
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  if (installed.status !== 0)
    fail(
      'The packages could not be installed. Look at the lines above, check the connection to the package registry, then start again.',
    );
  writeFileSync(mark, `${fingerprint} ${which}`);
  process.stdout.write(`Installed the packages in ${Math.round((performance.now() - begun) / 1000)} s.\n`);
}
