/**
 * `npm test`: types, lint, unit tests, and the whole in a real browser; on a fresh clone too.
 * `npm run quick`: types, lint, and the unit tests of what is being changed, or of the last commit, that start no process.
 */
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { CHROMIUM_PACKAGES, findChromium } from '../e2e/chromium';
import { buildAll } from './built';
import { out, root } from './bundle.mjs';
import { writeRouteTypes } from './routeTypes';

const QUICK = process.argv[2] === 'quick';
/** Tests that start servers. */
const SLOW = [
  'engine/live',
  'output/taking',
  'http/',
  'imports/',
  'store/',
  'feed/',
  'bridge/supervisor',
  'keep/',
  'paper/proof',
  'roll/',
  'eye/',
  'routing/router',
  'apps/standins',
  'scripts/',
];
const counts = { passed: 0, failed: 0 };
const took: string[] = [];
/** What failed, said once more at the end. */
const failures: string[] = [];

/** Runs a tool of this project's own packages; what it says is said when it is done. */
function run(name: string, args: readonly string[], node: readonly string[] = []): Promise<boolean> {
  const begun = performance.now();
  return new Promise((done) => {
    const tool = spawn(process.execPath, [...node, join(root, 'node_modules', name), ...args], { cwd: root });
    let said = `\n— ${name} ${args.join(' ')}\n`;
    for (const stream of [tool.stdout, tool.stderr]) stream.on('data', (text) => (said += String(text)));
    tool.once('exit', (code) => {
      process.stdout.write(said);
      took.push(`${((performance.now() - begun) / 1000).toFixed(0)} s ${name} ${args[0]}`);
      if (code !== 0) failures.push(`${name} ${args.join(' ')}`);
      done(code === 0);
    });
  });
}

/** A check without tests of its own counts as one. */
async function check(name: string, args: readonly string[]): Promise<void> {
  if (await run(name, args)) counts.passed += 1;
  else counts.failed += 1;
}

const readReport = <T>(file: string): T | undefined =>
  existsSync(file) ? (JSON.parse(readFileSync(file, 'utf8')) as T) : undefined;

interface UnitReport {
  readonly numPassedTests: number;
  readonly numFailedTests: number;
  readonly numRuntimeErrorTestSuites: number;
  readonly testResults: readonly {
    readonly name: string;
    readonly message: string;
    readonly status: string;
  }[];
}

async function unitTests(args: readonly string[]): Promise<void> {
  const report = join(out, 'unit.json');
  rmSync(report, { force: true });
  const green = await run(
    'jest/bin/jest.js',
    [...args, '--json', `--outputFile=${report}`],
    // The database's package is loaded as a module.
    ['--experimental-vm-modules', '--no-warnings'],
  );
  const read = readReport<UnitReport>(report);
  counts.passed += read?.numPassedTests ?? 0;
  counts.failed += (read?.numFailedTests ?? 0) + (read?.numRuntimeErrorTestSuites ?? 0);
  if (!green && !read?.numFailedTests && !read?.numRuntimeErrorTestSuites) counts.failed += 1;
  for (const suite of read?.testResults ?? [])
    if (suite.status === 'failed') failures.push(`${relative(root, suite.name)}\n${suite.message.slice(0, 4_000)}`);
}

interface BrowserSuite {
  readonly suites?: readonly BrowserSuite[];
  readonly specs: readonly {
    readonly title: string;
    readonly file: string;
    readonly ok: boolean;
    readonly tests: readonly { readonly results: readonly { readonly error?: { readonly message?: string } }[] }[];
  }[];
}
interface BrowserReport {
  readonly stats: { readonly expected: number; readonly flaky: number; readonly unexpected: number };
  readonly suites: readonly BrowserSuite[];
}

const fallenIn = ({ suites = [], specs }: BrowserSuite): string[] => [
  ...specs
    .filter(({ ok }) => !ok)
    .map(({ file, title, tests }) => {
      const said = tests.flatMap(({ results }) => results.flatMap(({ error }) => error?.message ?? []));
      return `${file}: ${title}\n${said.join('\n').slice(0, 4_000)}`;
    }),
  ...suites.flatMap(fallenIn),
];

async function browserTests(): Promise<void> {
  const report = join(out, 'e2e.json');
  rmSync(report, { force: true });
  const green = await run('@playwright/test/cli.js', ['test', '-c', 'e2e/playwright.config.ts']);
  const read = readReport<BrowserReport>(report);
  const stats = read?.stats;
  counts.passed += (stats?.expected ?? 0) + (stats?.flaky ?? 0);
  counts.failed += stats?.unexpected ?? 0;
  if (!green && !stats?.unexpected) counts.failed += 1;
  failures.push(...(read?.suites ?? []).flatMap(fallenIn));
}

/** The robot for a minute: one way that is always the same, and a new one. */
async function wanderers(): Promise<void> {
  for (const seed of [['--seed', '21'], []]) await check('../scripts/run.mjs', ['wander', '--minutes', '0.5', ...seed]);
}

/** Forty disturbances that nobody listed, others each time. */
const wild = () => check('../scripts/run.mjs', ['wild']);

function ensureChromium(): void {
  if (findChromium()) return;
  process.stdout.write('Installing Chromium from Debian’s packages.\n');
  const apt = (...args: string[]) =>
    spawnSync('apt-get', args, {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
  apt('update', '-qq');
  for (const name of CHROMIUM_PACKAGES) {
    apt('install', '-y', '-qq', name);
    if (findChromium()) return;
  }
  process.stderr.write(
    'Chromium is missing and could not be installed. Install it, or name its program in the variable CHROMIUM.\n',
  );
  process.exit(1);
}

/** What was looked at before and has not changed is not looked at again. */
const kept = (name: string): string => join(out, 'looked', name);
const types = ['tsconfig.json', 'apps/client/tsconfig.json'].map((project) => [
  ...['--noEmit', '-p', project],
  ...['--incremental', '--tsBuildInfoFile', kept(`${project.replaceAll('/', '-')}.types`)],
]);
const rules = [
  ['.dependency-cruiser.cjs', 'packages', 'apps', 'e2e'],
  ['.dependency-cruiser.folders.cjs', 'packages', 'apps'],
].map(([config, ...args]) => ['--config', config!, '--cache', kept(config!), ...args]);
/** A rule about types may fall in a file that has not changed: only what is quick leaves such files out. */
const linted = ['.', '--max-warnings', '0', ...(QUICK ? ['--cache', '--cache-location', kept('eslint')] : [])];

/** Types and lint, in two rows: one for each core. */
async function look(): Promise<void> {
  const typing = async () => {
    for (const args of types) await check('typescript/bin/tsc', args);
    await check('prettier/bin/prettier.cjs', [
      '--check',
      '.',
      '--log-level',
      'warn',
      '--cache',
      '--cache-location',
      kept('prettier'),
    ]);
  };
  const linting = async () => {
    await check('eslint/bin/eslint.js', linted);
    for (const args of rules) await check('dependency-cruiser/bin/dependency-cruise.mjs', args);
    await check('knip/bin/knip.js', ['--no-progress']);
    // What docs say of the program is what the program says.
    await check('../scripts/run.mjs', ['describe', '--check']);
  };
  await Promise.all([typing(), linting()]);
}

/** Tests of what is being changed; of the last commit, where nothing is. */
function touched(): string {
  const status = spawnSync('git', ['status', '--porcelain'], { cwd: root, encoding: 'utf8' });
  return status.stdout.trim() === '' ? '--lastCommit' : '--onlyChanged';
}

mkdirSync(join(out, 'looked'), { recursive: true });
writeRouteTypes();
if (QUICK) {
  await Promise.all([
    look(),
    unitTests([touched(), '--passWithNoTests', '--maxWorkers=2', '--testPathIgnorePatterns', ...SLOW]),
  ]);
} else {
  ensureChromium();
  buildAll();
  await look();
  // Each worker has ports of its own, and the browser waits for most of its time.
  const units = async () => {
    await unitTests(['--maxWorkers=2']);
    await check('../scripts/run.mjs', ['mutate', '--changed']);
    await wanderers();
    await wild();
  };
  await Promise.all([units(), browserTests()]);
}

process.stdout.write(`\n${took.join('\n')}\n`);
if (failures.length > 0) process.stdout.write(`\nWhat failed:\n${failures.join('\n')}\n`);
const line = `${counts.passed} passed, ${counts.failed} failed`;
writeFileSync(join(out, 'counts.txt'), `${line}\n`);
process.stdout.write(`\n${line}\n`);
process.exit(counts.failed > 0 ? 1 : 0);
