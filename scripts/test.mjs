/** `npm test`: types, lint, unit tests, and the whole in a real browser; on a fresh clone too. */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ensurePackages } from './prepare.mjs';

ensurePackages();
const { buildClient, buildPrograms, out, root } = await import('./build.mjs');
mkdirSync(out, { recursive: true });

const counts = { passed: 0, failed: 0 };

/** Runs a tool of this project's own packages, its output going where ours goes. */
function run(name, args, cwd = root) {
  process.stdout.write(`\n— ${name} ${args.join(' ')}\n`);
  return (
    spawnSync(process.execPath, [join(root, 'node_modules', name), ...args], { cwd, stdio: 'inherit' }).status === 0
  );
}

/** A check without tests of its own counts as one. */
function check(name, args) {
  if (run(name, args)) counts.passed += 1;
  else counts.failed += 1;
}

function readReport(file) {
  return existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : undefined;
}

function ensureChromium() {
  const path = process.env.CHROMIUM ?? '/usr/bin/chromium';
  if (existsSync(path)) return;
  process.stdout.write('Installing Chromium from Debian’s packages.\n');
  const apt = (...args) =>
    spawnSync('apt-get', args, {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
  apt('update', '-qq');
  apt('install', '-y', '-qq', 'chromium');
  if (existsSync(path)) return;
  process.stderr.write(
    'Chromium is missing and could not be installed. Install it, or name its program in the variable CHROMIUM.\n',
  );
  process.exit(1);
}

ensureChromium();
await buildPrograms();
buildClient();

check('typescript/bin/tsc', ['--noEmit', '-p', 'tsconfig.json']);
check('typescript/bin/tsc', ['--noEmit', '-p', 'apps/client/tsconfig.json']);
check('eslint/bin/eslint.js', ['.', '--max-warnings', '0']);
check('prettier/bin/prettier.cjs', ['--check', '.', '--log-level', 'warn']);
check('dependency-cruiser/bin/dependency-cruise.mjs', [
  '--config',
  '.dependency-cruiser.cjs',
  'packages',
  'apps',
  'e2e',
]);

const unitReport = join(out, 'unit.json');
const e2eReport = join(out, 'e2e.json');
for (const file of [unitReport, e2eReport]) rmSync(file, { force: true });

// One after the other: the tests listen to real sockets and keep real time.
const unitGreen = run('jest/bin/jest.js', ['--runInBand', '--json', `--outputFile=${unitReport}`]);
const unit = readReport(unitReport);
counts.passed += unit?.numPassedTests ?? 0;
counts.failed += (unit?.numFailedTests ?? 0) + (unit?.numRuntimeErrorTestSuites ?? 0);
if (!unitGreen && counts.failed === 0) counts.failed += 1;

const before = counts.failed;
const e2eGreen = run('@playwright/test/cli.js', ['test', '-c', 'e2e/playwright.config.ts']);
const e2e = readReport(e2eReport)?.stats;
counts.passed += (e2e?.expected ?? 0) + (e2e?.flaky ?? 0);
counts.failed += e2e?.unexpected ?? 0;
if (!e2eGreen && counts.failed === before) counts.failed += 1;

const line = `${counts.passed} passed, ${counts.failed} failed`;
writeFileSync(join(out, 'counts.txt'), `${line}\n`);
process.stdout.write(`\n${line}\n`);
process.exit(counts.failed > 0 ? 1 : 0);
