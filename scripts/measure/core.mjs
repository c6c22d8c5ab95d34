/** The core as the programs have it, bundled for measuring. */
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build } from 'esbuild';
import { bundleOptions, out, root } from '../build.mjs';

/** Everything that the named folders of the core show. */
export async function core(...folders) {
  const file = join(out, 'measure/core.mjs');
  await build({
    ...bundleOptions,
    entryPoints: undefined,
    outdir: undefined,
    outExtension: undefined,
    outfile: file,
    stdin: {
      contents: folders.map((folder) => `export * from '@taxiarch/core/${folder}';`).join('\n'),
      resolveDir: root,
      loader: 'ts',
    },
  });
  return import(pathToFileURL(file).href);
}
