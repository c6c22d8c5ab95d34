/** Builds what is run: server, engine thread and stand-ins as bundles, and the client for the web. */
import { createHash } from 'node:crypto';
import { spawnSync } from 'node:child_process';
import { cpSync, existsSync, mkdirSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { build } from 'esbuild';
import { bundleOptions, out, root } from './bundle.mjs';

const PROGRAMS = {
  'server/main': 'apps/server/src/main.ts',
  'server/engine': 'apps/server/src/engine/engineThread.ts',
  'server/show': 'apps/server/src/show/showThread.ts',
  'server/paper': 'apps/server/src/paper/paperThread.ts',
  'server/whatif': 'apps/server/src/whatIf/whatIfThread.ts',
  'server/import': 'apps/server/src/imports/importThread.ts',
  'server/findings': 'apps/server/src/findings/findingsThread.ts',
  'server/receive': 'apps/server/src/receive/receiveThread.ts',
  'server/plug': 'apps/server/src/plug/plugThread.ts',
  'server/lock': 'apps/server/src/store/lock.ts',
  'standins/main': 'apps/standins/src/main.ts',
  'standins/visualiser': 'apps/standins/src/visualiser/main.ts',
};

export const programOptions = {
  ...bundleOptions,
  entryPoints: Object.entries(PROGRAMS).map(([name, file]) => ({ in: join(root, file), out: name })),
};

/** An empty database as a file: a new show begins from it. */
async function writeDatabasePattern(): Promise<void> {
  const { version } = JSON.parse(
    readFileSync(join(root, 'node_modules/@electric-sql/pglite/package.json'), 'utf8'),
  ) as { version: string };
  const file = join(out, 'server/database.tar');
  const mark = `${file}.version`;
  if (existsSync(file) && existsSync(mark) && readFileSync(mark, 'utf8') === version) return;
  const { PGlite } = await import('@electric-sql/pglite');
  const engine = await PGlite.create();
  const dump = await engine.dumpDataDir('none');
  await engine.close();
  writeFileSync(file, Buffer.from(await dump.arrayBuffer()));
  writeFileSync(mark, version);
}

export async function buildPrograms(): Promise<void> {
  await build(programOptions);
  await writeDatabasePattern();
}

function* filesBelow(folder: string): Generator<string> {
  for (const entry of readdirSync(folder, { withFileTypes: true }).sort((a, b) => (a.name < b.name ? -1 : 1))) {
    if (
      entry.name === 'node_modules' ||
      entry.name === 'fonts' ||
      entry.name === 'testing' ||
      entry.name.startsWith('.expo')
    )
      continue;
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* filesBelow(path);
    // Tests are not built, and the tools write the -env.d.ts files themselves while they build.
    else if (!/(\.test\.tsx?|-env\.d\.ts)$/.test(entry.name)) yield path;
  }
}

/** Changes whenever anything changes that the client is built from. */
function clientFingerprint(): string {
  const hash = createHash('sha256');
  for (const folder of ['apps/client', 'packages/core'])
    for (const path of filesBelow(join(root, folder))) hash.update(relative(root, path)).update(readFileSync(path));
  hash.update(readFileSync(join(root, 'package-lock.json')));
  return hash.digest('hex');
}

const ALPHABETS = ['latin', 'latin-ext', 'greek', 'cyrillic', 'vietnamese'];

/** The fonts come from their npm packages; a browser fetches the alphabets that a page has. */
export function copyFonts() {
  const to = join(root, 'apps/client/public/fonts');
  mkdirSync(to, { recursive: true });
  const faces = [
    { name: 'fira-sans', family: 'Fira Sans', weights: [400, 600] },
    { name: 'fira-mono', family: 'Fira Mono', weights: [400, 500] },
  ].flatMap(({ name, family, weights }) => {
    const from = join(root, `node_modules/@fontsource/${name}`);
    const ranges = JSON.parse(readFileSync(join(from, 'unicode.json'), 'utf8')) as Record<string, string>;
    return ALPHABETS.filter((alphabet) => ranges[alphabet] !== undefined).flatMap((alphabet) =>
      weights.map((weight) => {
        const file = `${name}-${alphabet}-${weight}-normal.woff2`;
        cpSync(join(from, 'files', file), join(to, file));
        const source = `url('${file}') format('woff2')`;
        return `@font-face{font-family:'${family}';font-weight:${weight};font-display:swap;src:${source};unicode-range:${ranges[alphabet]}}`;
      }),
    );
  });
  writeFileSync(join(to, 'fonts.css'), `${faces.join('\n')}\n`);
}

export const expoEnvironment = (): NodeJS.ProcessEnv => ({
  ...process.env,
  EXPO_OFFLINE: '1',
  EXPO_NO_TELEMETRY: '1',
  // What nobody imports of a folder's face stays out of the client.
  EXPO_UNSTABLE_METRO_OPTIMIZE_GRAPH: '1',
  EXPO_UNSTABLE_TREE_SHAKING: '1',
  CI: '1',
});

/**
 * The page names the scripts of all pages, to be fetched when the first screen stands: whoever has it open can then go
 * anywhere in it, also while the server is away.
 */
function fetchAhead(client: string): void {
  const page = join(client, 'index.html');
  const text = readFileSync(page, 'utf8');
  const links = [...filesBelow(join(client, '_expo/static/js'))]
    .map((path) => `/${relative(client, path).replaceAll('\\', '/')}`)
    .filter((path) => path.endsWith('.js') && !text.includes(path))
    .map((path) => `<link rel="prefetch" href="${path}" as="script" />`);
  writeFileSync(page, text.replace('</head>', `${links.join('')}</head>`));
}

export function buildClient(): void {
  const mark = join(out, 'client.fingerprint');
  const fingerprint = clientFingerprint();
  if (existsSync(mark) && existsSync(join(out, 'client/index.html')) && readFileSync(mark, 'utf8') === fingerprint)
    return;
  const begun = performance.now();
  process.stdout.write('Building the screens. This takes three to four minutes on two cores, once.\n');
  copyFonts();
  rmSync(mark, { force: true });
  const built = spawnSync(
    process.execPath,
    [join(root, 'node_modules/expo/bin/cli'), 'export', '-p', 'web', '--output-dir', join(out, 'client')],
    { cwd: join(root, 'apps/client'), env: expoEnvironment(), encoding: 'utf8' },
  );
  if (built.status !== 0) throw new Error(`The client could not be built.\n${built.stdout}\n${built.stderr}`);
  fetchAhead(join(out, 'client'));
  writeFileSync(mark, fingerprint);
  process.stdout.write(`Built the screens in ${Math.round((performance.now() - begun) / 1000)} s.\n`);
}
