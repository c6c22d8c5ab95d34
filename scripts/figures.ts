/** `docs/figures.md`: what was measured, and whether tests fall when the code is wrong. Written by scripts, never by hand. */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { cpus } from 'node:os';
import { join } from 'node:path';
import { format, type Options } from 'prettier';
import { root } from './bundle.mjs';
import { QUIET, percent, type Figure } from './measure/figure';

/** A figure as it is kept: with when it was taken, of what, and how quiet the computer was. */
export interface Kept extends Figure {
  readonly part: string;
  readonly on: string;
  readonly of: string;
  readonly taken: string;
}

/** What putting faults into a folder showed. */
export interface Mutated {
  readonly folder: string;
  /** Faults at which a test of the folder fell */
  readonly caught: number;
  readonly missed: number;
  readonly on: string;
  /** Only the faults of so many lines, drawn at random; all where this is missing */
  readonly lines?: number;
}

/** A part that met no quiet time is measured again, so many times in all. */
export const TRIES = 3;

const FIGURES = join(root, 'docs/figures.json');
const MUTATED = join(root, 'docs/mutation.json');

const read = <T>(file: string): T[] => (existsSync(file) ? (JSON.parse(readFileSync(file, 'utf8')) as T[]) : []);
export const readFigures = () => read<Kept>(FIGURES);
export const readMutated = () => read<Mutated>(MUTATED);

export const wordOf = (met: boolean | null) => (met === null ? 'not to be told' : met ? 'met' : 'MISSED');
export const shareOf = ({ caught, missed }: Mutated): number => caught / (caught + missed);

const table = (heads: readonly string[], rows: readonly (readonly string[])[]): string =>
  [heads, heads.map(() => '---'), ...rows]
    .map((row) => `| ${row.map((cell) => cell.replaceAll('|', '\\|')).join(' | ')} |`)
    .join('\n');

async function write(kept: readonly Kept[], mutated: readonly Mutated[]): Promise<void> {
  const options = JSON.parse(readFileSync(join(root, '.prettierrc.json'), 'utf8')) as Options;
  const cores = cpus();
  const text = `# Figures

Written by \`npm run measure\` and \`npm run mutate\`, never by hand. Each figure stands beside its baseline, both taken in one run, on ${cores.length} cores of ${cores[0]?.model ?? 'an unknown processor'}. A run is quiet when less than ${percent(QUIET)} of the computer's time was taken away by its host; a part that met no quiet time was measured ${TRIES} times, and the quietest of them stands here.

${table(
  ['figure', 'asked for', 'seen', '', 'taken away', 'on', 'of'],
  kept.map((one) => [one.figure, one.asked, one.seen, wordOf(one.met), one.taken, one.on, one.of]),
)}

## Whether tests fall

Small faults were put into the code of a folder, one at a time, and its own tests were run. Asked for is that 80 % of them make a test fall. Folders that are not listed were not tried yet.

${table(
  ['folder', 'faults', 'a test fell at', '', 'on'],
  mutated.map((one) => [
    one.folder,
    `${one.caught + one.missed}${one.lines === undefined ? '' : `, of ${one.lines} lines drawn at random`}`,
    percent(shareOf(one)),
    wordOf(shareOf(one) >= 0.8),
    one.on,
  ]),
)}
`;
  const json = (records: unknown) => format(JSON.stringify(records), { ...options, parser: 'json' });
  writeFileSync(FIGURES, await json(kept));
  writeFileSync(MUTATED, await json(mutated));
  writeFileSync(join(root, 'docs/figures.md'), await format(text, { ...options, parser: 'markdown' }));
}

export const writeFigures = (kept: readonly Kept[]) => write(kept, readMutated());
export const writeMutated = (mutated: readonly Mutated[]) => write(readFigures(), mutated);
