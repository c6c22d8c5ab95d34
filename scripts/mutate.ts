/**
 * `npm run mutate -- FOLDER … [--survivors] [--workers N] [--lines N]`: puts small faults into the code, one at a time, and sees
 * whether the folder's own tests fall. Without a folder, all that the project asks for. What each folder reached is
 * kept in `docs/mutation.json` and told in `docs/figures.md`. `--lines N` tries only the faults of N lines drawn at
 * random, for folders whose tests last long.
 *
 * `npm run mutate -- --changed`: only the lines that the last commit changed; fails where too few are caught.
 */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { cpus } from 'node:os';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { random } from '@taxiarch/core/truth/fault';
import { out, root } from './bundle.mjs';
import { readMutated, shareOf, writeMutated, type Mutated } from './figures';
import { HELD } from './mutated';

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: {
    survivors: { type: 'boolean', default: false },
    changed: { type: 'boolean', default: false },
    workers: { type: 'string', default: String(cpus().length) },
    lines: { type: 'string' },
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

function configFor(folder: string, report: string, lines: readonly string[]): object {
  const inServer = folder.startsWith('apps/server');
  return {
    packageManager: 'npm',
    plugins: ['@stryker-mutator/jest-runner'],
    testRunner: 'jest',
    testRunnerNodeArgs: inServer ? ['--experimental-vm-modules'] : [],
    mutate:
      lines.length > 0
        ? lines
        : [`${folder}/**/*.ts`, `!${folder}/**/*.test.ts`, `!${folder}/**/testing/**`, `!${folder}/**/index.ts`],
    coverageAnalysis: 'perTest',
    concurrency: Number(values.workers),
    timeoutMS: 3000,
    ignoreStatic: true,
    incremental: lines.length === 0,
    incrementalFile: join(out, 'mutate', `${folder.replaceAll('/', '-')}.incremental.json`),
    tempDirName: join(out, 'mutate/tmp'),
    ignorePatterns: ['apps/client', 'docs', 'e2e', 'demo-data', 'test-results', '.build/*', '!.build/server'],
    reporters: ['json', 'progress-append-only'],
    jsonReporter: { fileName: report },
    jest: { projectType: 'custom', enableFindRelatedTests: false, configFile: 'jest.mutate.cjs' },
  };
}

/** Lines with code of a folder, drawn at random: `file:line-line`. */
function drawnLines(folder: string, count: number): readonly string[] {
  const files = readdirSync(join(root, folder), { recursive: true, encoding: 'utf8' }).filter(
    (file) => /\.ts$/.test(file) && !/\.test\.ts$|(^|\/)testing\/|(^|\/)index\.ts$/.test(file),
  );
  const lines = files.flatMap((file) =>
    readFileSync(join(root, folder, file), 'utf8')
      .split('\n')
      .flatMap((text, i) =>
        /^\s*($|[})\]]|\/?\*|\/\/|import |export (\*|interface|type)|readonly )/.test(text)
          ? []
          : [`${folder}/${file}:${i + 1}-${i + 1}`],
      ),
  );
  const next = random(Date.now() % 1_000_000);
  const drawn: string[] = [];
  while (drawn.length < count && lines.length > 0) drawn.push(...lines.splice(Math.floor(next() * lines.length), 1));
  return drawn;
}

/** Fewer faults than this in what a commit changed say nothing of its tests; more than the most take too long. */
const ENOUGH = 10;
const MOST = 150;
/** A commit is one thing: one that changes more folders is many in one, and is looked at by hand. */
const MOST_FOLDERS = 2;
const WANTED = 0.8;
/** Tests that last long are tried against many faults by hand. */
const LONGEST_MS = 90_000;

/** What the last commit changed in the folders that are held to it: `file:first-last` by folder. */
function changedLines(): ReadonlyMap<string, readonly string[]> {
  const diff = spawnSync('git', ['diff', '-U0', '--no-color', 'HEAD~1', 'HEAD', '--', ...HELD], {
    cwd: root,
    encoding: 'utf8',
  });
  const lines = new Map<string, string[]>();
  let file = '';
  for (const line of diff.stdout.split('\n')) {
    if (line.startsWith('+++ ')) file = line.slice('+++ b/'.length);
    const at = /^@@ \S+ \+(\d+)(?:,(\d+))? @@/.exec(line);
    if (!at || !/\.ts$/.test(file) || /\.test\.ts$|\/testing\/|\/index\.ts$/.test(file)) continue;
    const count = Number(at[2] ?? 1);
    const folder = HELD.find((one) => file.startsWith(`${one}/`));
    if (folder === undefined || count === 0) continue;
    lines.set(folder, [...(lines.get(folder) ?? []), `${file}:${at[1]}-${Number(at[1]) + count - 1}`]);
  }
  return lines;
}

const CAUGHT: ReadonlySet<string> = new Set(['Killed', 'Timeout']);
const MISSED: ReadonlySet<string> = new Set(['Survived', 'NoCoverage']);

function tell(folder: string, { files }: Report): Mutated {
  const all = Object.entries(files).flatMap(([file, { mutants }]) => mutants.map((one) => ({ file, ...one })));
  const caught = all.filter(({ status }) => CAUGHT.has(status)).length;
  const missed = all.filter(({ status }) => MISSED.has(status));
  if (values.survivors || values.changed)
    for (const { file, location, mutatorName, replacement, status } of missed)
      process.stdout.write(
        `  ${file}:${location.start.line}:${location.start.column} ${mutatorName}${status === 'NoCoverage' ? ' (no test runs it)' : ''}: ${(replacement ?? '').slice(0, 80)}\n`,
      );
  return { folder, caught, missed: missed.length, on: new Date().toISOString().slice(0, 10) };
}

/** Runs Stryker over a folder, or over some lines of it; what it found, undefined where the tests do not run. */
function mutate(folder: string, lines: readonly string[] = [], longest?: number): Report | 'late' | undefined {
  const report = join(out, 'mutate', `${folder.replaceAll('/', '-')}${lines.length > 0 ? '.changed' : ''}.json`);
  const config = join(out, 'mutate', 'config.json');
  rmSync(report, { force: true });
  writeFileSync(config, JSON.stringify(configFor(folder, report, lines)));
  const run = spawnSync(
    process.execPath,
    [join(root, 'node_modules/@stryker-mutator/core/bin/stryker.js'), 'run', config],
    {
      cwd: root,
      encoding: 'utf8',
      env: { ...process.env, MUTATED_FOLDER: folder },
      ...(longest !== undefined && { timeout: longest }),
    },
  );
  if ((run.error as NodeJS.ErrnoException | undefined)?.code === 'ETIMEDOUT') return 'late';
  if (existsSync(report)) return JSON.parse(readFileSync(report, 'utf8')) as Report;
  process.stderr.write(`${folder}: the tests could not be run.\n${run.stdout.slice(-3000)}${run.stderr}\n`);
  return undefined;
}

const said = (what: string, figure: Mutated): string =>
  `${what}: ${figure.caught} of ${figure.caught + figure.missed} caught, ${(100 * shareOf(figure)).toFixed(0)} %\n`;

/** Whether the tests of what the last commit changed fall often enough. */
function judgeChanged(): boolean {
  const folders = changedLines();
  if (folders.size > MOST_FOLDERS) {
    process.stdout.write(
      `So many folders were changed at once: ${[...folders.keys()].join(', ')}. Run them by hand.\n`,
    );
    return true;
  }
  let good = true;
  let left = MOST;
  for (const [folder, lines] of folders) {
    if (left <= 0) {
      process.stdout.write(`${folder}: left out, so much was changed. Run it by hand.\n`);
      continue;
    }
    const report = mutate(folder, lines, LONGEST_MS);
    if (!report) return false;
    if (report === 'late') {
      process.stdout.write(`${folder}: its tests last too long for what was changed. Run it by hand.\n`);
      continue;
    }
    const figure = tell(folder, report);
    const all = figure.caught + figure.missed;
    left -= all;
    process.stdout.write(said(`${folder}, what was changed`, figure));
    if (all >= ENOUGH && shareOf(figure) < WANTED) good = false;
  }
  return good;
}

mkdirSync(join(out, 'mutate'), { recursive: true });
if (values.changed) process.exit(judgeChanged() ? 0 : 1);
let kept = readMutated();
for (const folder of foldersOf(positionals)) {
  const count = values.lines === undefined ? undefined : Number(values.lines);
  const report = mutate(folder, count === undefined ? [] : drawnLines(folder, count));
  if (!report || report === 'late') process.exit(1);
  const figure = { ...tell(folder, report), ...(count !== undefined && { lines: count }) };
  kept = [...kept.filter((one) => one.folder !== folder), figure].sort((a, b) => (a.folder < b.folder ? -1 : 1));
  await writeMutated(kept);
  process.stdout.write(said(folder, figure));
}
