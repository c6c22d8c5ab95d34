/** Builds the client whenever its sources or the core's have been still for a moment after a change. */
import { watch } from 'node:fs';
import { join } from 'node:path';
import { buildClient, root } from './build.mjs';

const STILL_MS = 300;
let timer;

function build() {
  try {
    buildClient();
    process.stdout.write('The client is built; reload the page.\n');
  } catch (error) {
    process.stderr.write(`${error.message}\n`);
  }
}

build();
for (const folder of ['apps/client/src', 'packages/core/src'])
  watch(join(root, folder), { recursive: true }, () => {
    clearTimeout(timer);
    timer = setTimeout(build, STILL_MS);
  });
