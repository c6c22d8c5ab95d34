/** The core as the programs have it, bundled for measuring. */
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build } from 'esbuild';
import { bundleOptions, out, root } from '../build.mjs';

/** TypeScript put together with what it imports, as a file of that name. */
async function bundled(name, contents) {
  const file = join(out, 'measure', name);
  await build({
    ...bundleOptions,
    entryPoints: undefined,
    outdir: undefined,
    outExtension: undefined,
    outfile: file,
    stdin: { contents, resolveDir: root, loader: 'ts' },
  });
  return file;
}

/** Everything that the named folders of the core show. */
export async function core(...folders) {
  const contents = folders.map((folder) => `export * from '@taxiarch/core/${folder}';`).join('\n');
  // A name for each choice of folders, or a second choice would be given the first one's modules.
  return import(pathToFileURL(await bundled(`core-${folders.join('-')}.mjs`, contents)).href);
}

/** File of a program that runs many stand-in nodes; see `manyNodes.ts`. */
export const manyNodes = () => bundled('manyNodes.mjs', "import './scripts/measure/manyNodes';");
