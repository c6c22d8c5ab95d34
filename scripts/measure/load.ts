/** What a browser must fetch before the first screen stands, beside a bare Expo Router page with a chart. */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { expoEnvironment } from '../expo';
import { out, root } from '../bundle.mjs';
import { ratio, wait, type Figure } from './figure';
import { base, withPage, withServer } from './server';

const BARE = {
  'package.json': JSON.stringify({ name: 'bare', version: '1.0.0', main: 'expo-router/entry' }),
  'app.json': JSON.stringify({
    expo: {
      name: 'bare',
      slug: 'bare',
      scheme: 'bare',
      web: { bundler: 'metro', output: 'single' },
      plugins: ['expo-router'],
    },
  }),
  'metro.config.js': `module.exports = require('expo/metro-config').getDefaultConfig(__dirname);`,
  'babel.config.js': `module.exports = (api) => { api.cache(true); return { presets: ['babel-preset-expo'] }; };`,
  'src/app/index.js': `import { View } from 'react-native';
import { LineChart } from 'react-native-chart-kit';
export default () => <View><LineChart data={{ labels: ['a'], datasets: [{ data: [1, 2] }] }} width={300} height={200} chartConfig={{ color: () => 'black' }} /></View>;`,
};

function* filesOf(folder: string): Generator<string> {
  for (const entry of readdirSync(folder, { withFileTypes: true }))
    if (entry.isDirectory()) yield* filesOf(join(folder, entry.name));
    else yield join(folder, entry.name);
}

/** Bytes of page, scripts and styles, gzipped; fonts as they are. */
function loadOf(paths: Iterable<string>): number {
  let bytes = 0;
  for (const path of paths) {
    if (/\.(html|js|css)$/.test(path)) bytes += gzipSync(readFileSync(path)).length;
    else if (/fonts.*\.woff2$/.test(path)) bytes += readFileSync(path).length;
  }
  return bytes;
}

/** Files of the client that a browser asks for until the first screen stands. */
const firstAskedFor = (client: string): Promise<string[]> =>
  withServer([], () =>
    withPage(async (page) => {
      const asked = new Set([join(client, 'index.html')]);
      page.on('request', (request) => {
        // Scripts of other pages are fetched behind it, while nothing else is to be done.
        if (/prefetch/.test(request.headers()['sec-purpose'] ?? request.headers()['purpose'] ?? '')) return;
        asked.add(join(client, decodeURIComponent(new URL(request.url()).pathname)));
      });
      await page.goto(base);
      await page.getByRole('heading', { level: 1 }).waitFor();
      await page.waitForLoadState('load');
      await wait(1000);
      return [...asked].filter((path) => existsSync(path));
    }),
  );

function buildBare(to: string): void {
  const project = join(root, 'apps/bare-page');
  try {
    for (const [name, text] of Object.entries(BARE)) {
      mkdirSync(join(project, name, '..'), { recursive: true });
      writeFileSync(join(project, name), text);
    }
    const run = spawnSync(
      process.execPath,
      [join(root, 'node_modules/expo/bin/cli'), 'export', '-p', 'web', '--output-dir', to],
      { cwd: project, env: { ...expoEnvironment(), CI: '1' }, encoding: 'utf8' },
    );
    if (run.status !== 0) throw new Error(`The bare page could not be built: ${run.stderr.slice(0, 600)}`);
  } finally {
    rmSync(project, { recursive: true, force: true });
  }
}

export async function measure(): Promise<Figure[]> {
  const built = join(out, 'bare');
  if (!existsSync(built)) buildBare(built);
  // The bare page is one script: all of it is asked for.
  const bare = loadOf(filesOf(built));
  const ours = loadOf(await firstAskedFor(join(out, 'client')));
  return [
    {
      figure: 'first load, beside a bare Expo Router page with a chart',
      asked: 'at most 1.5',
      seen: `${ratio(ours, bare)} (${(ours / 1024).toFixed(0)} KB with fonts, ${(bare / 1024).toFixed(0)} KB)`,
      met: ours / bare <= 1.5,
    },
  ];
}
