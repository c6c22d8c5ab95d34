/** Builds everything in a process of its own: what building takes of memory is given back before anything runs. */
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { root } from './bundle.mjs';

/** Ends this process with the builder's own words when something cannot be built. */
export function buildAll(): void {
  const { status } = spawnSync(process.execPath, [join(root, 'scripts/run.mjs'), 'build'], { stdio: 'inherit' });
  if (status !== 0) process.exit(status ?? 1);
}
