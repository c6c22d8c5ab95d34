/**
 * Builds the screens for the web: one script for the first screen and one for each page, as Expo Router finds them
 * below `src/app`, and NativeWind's classes as one style sheet. `npm run dev` has Expo's own bundler, which puts a
 * change into the open page; it takes minutes for what is done here in seconds (docs/decisions/0010).
 */
import { createHash } from 'node:crypto';
import { spawn } from 'node:child_process';
import { cpSync, existsSync, mkdirSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { basename, dirname, join, relative } from 'node:path';
import { build, type Metafile, type Plugin } from 'esbuild';
import { out, root } from './bundle.mjs';

const source = join(root, 'apps/client');
const pages = join(source, 'src/app');
const client = join(out, 'client');
/** Where scripts and styles stand below the site’s root; each is named by what is in it, so it is kept for ever. */
const PARTS = 'parts';

function* filesBelow(folder: string): Generator<string> {
  for (const entry of readdirSync(folder, { withFileTypes: true }).sort((a, b) => (a.name < b.name ? -1 : 1))) {
    if (/^(node_modules|fonts|testing|\.expo.*)$/.test(entry.name)) continue;
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* filesBelow(path);
    // Tests are not built, and the tools write the -env.d.ts files themselves.
    else if (!/(\.test\.tsx?|-env\.d\.ts)$/.test(entry.name)) yield path;
  }
}

/** Changes whenever anything changes that the screens are built from. */
function fingerprintOf(): string {
  const hash = createHash('sha256');
  for (const folder of ['apps/client', 'packages/core'])
    for (const path of filesBelow(join(root, folder))) hash.update(relative(root, path)).update(readFileSync(path));
  for (const path of ['package-lock.json', 'scripts/client.ts']) hash.update(readFileSync(join(root, path)));
  return hash.digest('hex');
}

const ALPHABETS = ['latin', 'latin-ext', 'greek', 'cyrillic', 'vietnamese'];

/** The fonts come from their npm packages; a browser fetches the alphabets that a page has. */
export function copyFonts() {
  const to = join(source, 'public/fonts');
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
        const place = `url('${file}') format('woff2')`;
        return `@font-face{font-family:'${family}';font-weight:${weight};font-display:swap;src:${place};unicode-range:${ranges[alphabet]}}`;
      }),
    );
  });
  writeFileSync(join(to, 'fonts.css'), `${faces.join('\n')}\n`);
}

/**
 * What the screens use of the router. Its own face names tabs, drawers and more as CommonJS, of which nothing can be
 * left out; a name that is missing here is an error of the build.
 */
const ROUTER_FACE = `
  import './global';
  export { useGlobalSearchParams, useLocalSearchParams, usePathname, useRouter } from './hooks';
  export { useIsFocused } from './useIsFocused';
  export { useNavigation } from './useNavigation';
  export { Stack } from './layouts/Stack';
  export { Link } from './link/Link';
`;

/** Marks what was resolved already. */
const SHAKEN = 'shaken';

/** What Expo's bundler would give: the pages to the router, `@/` as the client’s own folder, no styles in scripts. */
const expo: Plugin = {
  name: 'expo',
  setup(bundler) {
    bundler.onResolve({ filter: /^@\// }, ({ path, kind }) =>
      bundler.resolve(`./${path.slice(2)}`, { resolveDir: join(source, 'src'), kind }),
    );
    // Its modules do nothing but export, and its package does not say so.
    bundler.onResolve({ filter: /^react-native-svg$/ }, async ({ path, pluginData, ...rest }) => {
      if (pluginData === SHAKEN) return undefined;
      const found = await bundler.resolve(path, { ...rest, pluginData: SHAKEN });
      return { ...found, sideEffects: false };
    });
    bundler.onResolve({ filter: /^\./ }, async ({ path, pluginData, importer, ...rest }) => {
      if (pluginData === SHAKEN || !/[\\/]react-native-svg[\\/]/.test(importer)) return undefined;
      const found = await bundler.resolve(path, { ...rest, importer, pluginData: SHAKEN });
      return { ...found, sideEffects: false };
    });
    bundler.onLoad({ filter: /expo-router[\\/]_ctx\.web\.js$/ }, () => {
      const routes = [...filesBelow(pages)].map((path) => `./${relative(pages, path).replaceAll('\\', '/')}`);
      const named = routes.map((route) => JSON.stringify(route));
      return {
        resolveDir: pages,
        contents: [
          ...named.map((route, index) => `import * as page${index} from ${route};`),
          `const pages = { ${named.map((route, index) => `${route}: page${index}`).join(', ')} };`,
          'export const ctx = Object.assign((route) => pages[route], { keys: () => Object.keys(pages), resolve: (route) => route, id: "pages" });',
        ].join('\n'),
      };
    });
    bundler.onLoad({ filter: /expo-router[\\/]build[\\/]index\.js$/ }, ({ path }) => ({
      resolveDir: dirname(path),
      contents: ROUTER_FACE,
    }));
    // What a developer is shown while a page is on its way, with tabs and all that these need.
    bundler.onLoad({ filter: /expo-router[\\/]build[\\/]views[\\/]Toast\.js$/ }, () => ({
      contents:
        "export const CODE_FONT = 'monospace'; export const Toast = () => null; export const ToastWrapper = ({ children }) => children;",
    }));
    // A page that lists all pages, for developers.
    bundler.onLoad({ filter: /expo-router[\\/]build[\\/]views[\\/]Sitemap\.js$/ }, () => ({
      contents: 'export const Sitemap = () => null; export const getNavOptions = () => ({});',
    }));
    bundler.onLoad({ filter: /global\.css$/ }, () => ({ contents: '' }));
  },
};

/** Scripts into memory: what they are called is in the page, which is written last. */
const bundleScripts = () =>
  build({
    entryPoints: [join(source, 'entry.ts')],
    outdir: join(client, PARTS),
    entryNames: '[name]-[hash]',
    write: false,
    metafile: true,
    bundle: true,
    splitting: true,
    format: 'esm',
    minify: true,
    platform: 'browser',
    target: 'es2022',
    jsx: 'automatic',
    jsxImportSource: 'nativewind',
    loader: { '.js': 'jsx', '.png': 'file' },
    publicPath: `/${PARTS}`,
    alias: { 'react-native': 'react-native-web' },
    resolveExtensions: ['.web.tsx', '.web.ts', '.web.js', '.tsx', '.ts', '.jsx', '.js', '.json'],
    mainFields: ['browser', 'module', 'main'],
    conditions: ['browser', 'import'],
    // Parts of Node that a library names and no screen calls.
    external: ['buffer', 'string_decoder'],
    define: {
      __DEV__: 'false',
      global: 'globalThis',
      'process.env': '{}',
      'process.env.NODE_ENV': '"production"',
      'process.env.EXPO_OS': '"web"',
      'process.env.EXPO_BASE_URL': '""',
      'process.env.EXPO_ROUTER_IMPORT_MODE': '"sync"',
    },
    logLevel: 'silent',
    plugins: [expo],
  });

/** The style sheet of the classes that are used, by Tailwind’s own program. */
const writeStyles = (to: string) =>
  new Promise<string>((done, fail) => {
    const args = ['-i', 'src/global.css', '-o', to, '--minify'];
    const tool = spawn(process.execPath, [join(root, 'node_modules/tailwindcss/lib/cli.js'), ...args], {
      cwd: source,
      env: { ...process.env, NATIVEWIND_OS: 'web' },
      stdio: ['ignore', 'ignore', 'pipe'],
    });
    let said = '';
    tool.stderr.on('data', (text) => (said += String(text)));
    tool.once('exit', (code) => (code === 0 ? done(readFileSync(to, 'utf8')) : fail(new Error(said))));
  });

/** Scripts that a script imports at its beginning, and those that they do; itself first. */
function wholeOf(outputs: Metafile['outputs'], first: string): string[] {
  const whole = new Set([first]);
  for (const path of whole)
    for (const { path: imported, kind } of outputs[path]?.imports ?? [])
      if (kind === 'import-statement' && outputs[imported]) whole.add(imported);
  return [...whole];
}

/**
 * The page names its style sheet, the scripts of the first screen, and those of all other pages: the latter are
 * fetched behind the first screen, so that whoever has it open can go anywhere in it, also while the server is away.
 */
function pageWith(style: string, outputs: Metafile['outputs']): string {
  const url = (path: string) => `/${PARTS}/${basename(path)}`;
  const paths = Object.keys(outputs);
  const entry = paths.find((path) => outputs[path]?.entryPoint?.endsWith('entry.ts'))!;
  const first = wholeOf(outputs, entry);
  const parts = paths.filter((path) => outputs[path]?.entryPoint && path !== entry);
  const needs = Object.fromEntries(
    parts.map((part) => [
      basename(part),
      wholeOf(outputs, part)
        .filter((path) => !first.includes(path))
        .map(url),
    ]),
  );
  const head = [
    `<link rel="stylesheet" href="/${PARTS}/${style}" />`,
    ...first.slice(1).map((path) => `<link rel="modulepreload" href="${url(path)}" />`),
    `<script>globalThis.builtParts={take:(url)=>import(url),needed:${JSON.stringify(needs)}}</script>`,
    `<script type="module" src="${url(entry)}"></script>`,
    ...paths
      .filter((path) => !first.includes(path))
      .map((path) => `<link rel="prefetch" href="${url(path)}" as="script" />`),
  ];
  return readFileSync(join(source, 'public/index.html'), 'utf8').replace('</head>', `${head.join('\n')}</head>`);
}

/** A page is fetched by the client’s own loader (`data/parts`), which asks until it is there. */
const byLoader = (text: string): string =>
  text.replaceAll(new RegExp(`\\bimport\\("/${PARTS}/([^"]+)"\\)`, 'g'), 'loadPart("$1")');

async function writeClient(): Promise<void> {
  mkdirSync(out, { recursive: true });
  const [scripts, styles] = await Promise.all([bundleScripts(), writeStyles(join(out, 'screens.css'))]);
  // What cannot be built leaves the screens of before as they are.
  rmSync(client, { recursive: true, force: true });
  mkdirSync(join(client, PARTS), { recursive: true });
  for (const { path, contents, text } of scripts.outputFiles)
    writeFileSync(path, path.endsWith('.js') ? byLoader(text) : contents);
  const style = `screens-${createHash('sha256').update(styles).digest('hex').slice(0, 8)}.css`;
  writeFileSync(join(client, PARTS, style), styles);
  cpSync(join(source, 'public'), client, { recursive: true });
  writeFileSync(join(client, 'index.html'), pageWith(style, scripts.metafile.outputs));
}

export async function buildClient(): Promise<void> {
  const mark = join(out, 'client.fingerprint');
  const fingerprint = fingerprintOf();
  if (existsSync(mark) && existsSync(join(client, 'index.html')) && readFileSync(mark, 'utf8') === fingerprint) return;
  const begun = performance.now();
  process.stdout.write('Building the screens; this takes about ten seconds, once.\n');
  copyFonts();
  rmSync(mark, { force: true });
  await writeClient();
  writeFileSync(mark, fingerprint);
  process.stdout.write(`Built the screens in ${Math.max(1, Math.round((performance.now() - begun) / 1000))} s.\n`);
}
