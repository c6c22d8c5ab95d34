/** `npm run measure`: the figures that this project holds itself to, each beside its baseline, in one run. */
import { ensurePackages } from './prepare.mjs';

ensurePackages();
const { buildClient, buildPrograms } = await import('./build.mjs');
await buildPrograms();
buildClient();

const parts = {
  ingest: './measure/ingest.mjs',
  glass: './measure/glass.mjs',
  load: './measure/load.mjs',
  rest: './measure/rest.mjs',
  rig: './measure/rig.mjs',
  wire: './measure/wire.mjs',
  flow: './measure/flow.mjs',
};
const asked = process.argv.slice(2);
const unknown = asked.filter((name) => !(name in parts));
if (unknown.length > 0) {
  process.stderr.write(`There is no figure ${unknown.join(', ')}. Choose from: ${Object.keys(parts).join(', ')}.\n`);
  process.exit(1);
}
for (const [name, file] of Object.entries(parts)) {
  if (asked.length > 0 && !asked.includes(name)) continue;
  process.stdout.write(`\n${name}\n`);
  for (const line of await (await import(file)).measure()) process.stdout.write(`  ${line}\n`);
}
process.exit(0);
