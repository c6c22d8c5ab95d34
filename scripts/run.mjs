/**
 * `node scripts/run.mjs NAME …`: installs the packages if need be, then runs the script of that name.
 * Plain Node, so that it runs on a fresh clone.
 */
import { bundleScript } from './bundle.mjs';
import { ensurePackages } from './prepare.mjs';

const [name = ''] = process.argv.splice(2, 1);
// What starting needs may be all that is installed while it builds.
ensurePackages(name === 'start' || name === 'build' ? 'start' : 'all');
await import(await bundleScript(name));
