/**
 * `npm run mutate -- FOLDER … [--survivors] [--workers N]`: puts small faults into the code, one at a time, and sees
 * whether the folder's own tests fall. Without a folder, all that the project asks for. What each folder reached is
 * kept in `docs/mutation.json` and told in `docs/figures.md`.
 */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { cpus } from 'node:os';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { out, root } from './bundle.mjs';
import { readMutated, shareOf, writeMutated, type Mutated } from './figures';
import { HELD } from './mutated';

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: {
    survivors: { type: 'boolean', default: false },
    workers: { type: 'string', default: String(cpus().length) },
  },
});

interface Mutant {
  readonly status: string;
  readonly mutatorName: string;
  readonly replacement?: string;
  readonly location: { readonly start: { readonly line: number; readonly column: number } };
}
interface Report {
  readonly files: Readonly<Record<string, { readonly mutants: readonly Mutant[] }>>;
}

/** Folders of the project by their last name or their whole path below it. */
function foldersOf(names: readonly string[]): string[] {
  if (names.length === 0) return [...HELD];
  return names.map((name) => {
    const folder = HELD.find((one) => one === name || one.endsWith(`/${name}`)) ?? name;
    if (existsSync(join(root, folder))) return folder;
    process.stderr.write(`There is no folder ${name}.\n`);
    process.exit(1);
  });
}

function configFor(folder: string, report: string): object {
  const inServer = folder.startsWith('apps/server');
  return {
    packageManager: 'npm',
    plugins: ['@stryker-mutator/jest-runner'],
    testRunner: 'jest',
    testRunnerNodeArgs: inServer ? ['--experimental-vm-modules'] : [],
    mutate: [`${folder}/**/*.ts`, `!${folder}/**/*.test.ts`, `!${folder}/**/testing/**`, `!${folder}/**/index.ts`],
    coverageAnalysis: 'perTest',
    concurrency: Number(values.workers),
    timeoutMS: 3000,
    ignoreStatic: true,
    incremental: true,
    incrementalFile: join(out, 'mutate', `${folder.replaceAll('/', '-')}.incremental.json`),
    tempDirName: join(out, 'mutate/tmp'),
    ignorePatterns: ['apps/client', 'docs', 'e2e', 'demo-data', 'test-results', '.build'],
    reporters: ['json', 'progress-append-only'],
    jsonReporter: { fileName: report },
    jest: { projectType: 'custom', enableFindRelatedTests: false, configFile: 'jest.mutate.cjs' },
  };
}

const CAUGHT: ReadonlySet<string> = new Set(['Killed', 'Timeout']);
const MISSED: ReadonlySet<string> = new Set(['Survived', 'NoCoverage']);

function tell(folder: string, { files }: Report): Mutated {
  const all = Object.entries(files).flatMap(([file, { mutants }]) => mutants.map((one) => ({ file, ...one })));
  const caught = all.filter(({ status }) => CAUGHT.has(status)).length;
  const missed = all.filter(({ status }) => MISSED.has(status));
  if (values.survivors)
    for (const { file, location, mutatorName, replacement, status } of missed)
      process.stdout.write(
        `  ${file}:${location.start.line}:${location.start.column} ${mutatorName}${status === 'NoCoverage' ? ' (no test runs it)' : ''}: ${(replacement ?? '').slice(0, 80)}\n`,
      );
  return { folder, caught, missed: missed.length, on: new Date().toISOString().slice(0, 10) };
}

mkdirSync(join(out, 'mutate'), { recursive: true });
let kept = readMutated();
for (const folder of foldersOf(positionals)) {
  const report = join(out, 'mutate', `${folder.replaceAll('/', '-')}.json`);
  const config = join(out, 'mutate', 'config.json');
  rmSync(report, { force: true });
  writeFileSync(config, JSON.stringify(configFor(folder, report)));
  const run = spawnSync(
    process.execPath,
    [join(root, 'node_modules/@stryker-mutator/core/bin/stryker.js'), 'run', config],
    {
      cwd: root,
      encoding: 'utf8',
      env: { ...process.env, MUTATED_FOLDER: folder },
    },
  );
  if (!existsSync(report)) {
    process.stderr.write(`${folder}: the tests could not be run.\n${run.stdout.slice(-3000)}${run.stderr}\n`);
    process.exit(1);
  }
  const figure = tell(folder, JSON.parse(readFileSync(report, 'utf8')) as Report);
  kept = [...kept.filter((one) => one.folder !== folder), figure].sort((a, b) => (a.folder < b.folder ? -1 : 1));
  await writeMutated(kept);
  const share = 100 * shareOf(figure);
  process.stdout.write(
    `${folder}: ${figure.caught} of ${figure.caught + figure.missed} caught, ${share.toFixed(0)} %\n`,
  );
}
