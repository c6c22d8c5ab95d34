/** Bundles TypeScript for Node: the programs, and the scripts beside this file. */
import { readdirSync } from 'node:fs';
import { basename, dirname, join, resolve } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';

export const root = dirname(dirname(fileURLToPath(import.meta.url)));
export const out = join(root, '.build');

/** Options for every bundle. Our own workspaces go into it; everything else stays where npm put it. */
export const bundleOptions = {
  outdir: out,
  outExtension: { '.js': '.mjs' },
  bundle: true,
  platform: /** @type {const} */ ('node'),
  target: 'node20',
  format: /** @type {const} */ ('esm'),
  sourcemap: true,
  logLevel: /** @type {const} */ ('warning'),
  plugins: [
    {
      name: 'packages-outside',
      /** @param {import('esbuild').PluginBuild} build */
      setup(build) {
        build.onResolve({ filter: /^[^./]/ }, ({ path, kind }) =>
          kind === 'entry-point' || path.startsWith('@taxiarch/') ? undefined : { path, external: true },
        );
        // Plain scripts stay where they are, so that they know where that is.
        build.onResolve({ filter: /^\.\.?\/.*\.mjs$/ }, ({ path, resolveDir }) => ({
          path: pathToFileURL(resolve(resolveDir, path)).href,
          external: true,
        }));
      },
    },
  ],
};

/** Programs in which the network and the clock are in memory: what they open of Node's network is ours. */
const virtualNetwork = {
  name: 'virtual-network',
  /** @param {import('esbuild').PluginBuild} build */
  setup(build) {
    build.onResolve({ filter: /^node:(dgram|http|net)$/ }, ({ path }) => ({
      path: join(root, 'scripts/virtual', `${path.slice('node:'.length)}.ts`),
    }));
  },
};

/**
 * Bundles a script, and the programs that measuring starts; returns the file to import.
 * @param {string} name
 */
export async function bundleScript(name) {
  const { build, stop } = await import('esbuild');
  const scripts = join(root, 'scripts');
  const programs = name === 'measure' || name === 'soak' ? readdirSync(join(scripts, 'measure/programs')) : [];
  await build({
    ...bundleOptions,
    entryPoints: [
      { in: join(scripts, `${name}.ts`), out: `scripts/${name}` },
      ...programs.map((file) => ({
        in: join(scripts, 'measure/programs', file),
        out: `scripts/programs/${basename(file, '.ts')}`,
      })),
    ],
  });
  if (name === 'measure' || name === 'wild')
    await build({
      ...bundleOptions,
      plugins: [virtualNetwork, ...bundleOptions.plugins],
      entryPoints: [{ in: join(scripts, 'measure/wild/program.ts'), out: 'scripts/programs/wild' }],
    });
  // Its helper has nothing more to do.
  await stop();
  return pathToFileURL(join(out, `scripts/${name}.mjs`)).href;
}
