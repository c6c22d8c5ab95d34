/** Cases run by programs beside each other, one for each core, and what came of them together. */
import { spawn } from 'node:child_process';
import { cpus } from 'node:os';
import { join } from 'node:path';
import { out } from '../../bundle.mjs';
import type { Outcome } from './judge';

export interface Numbered extends Outcome {
  readonly number: number;
}

const PROGRAM = join(out, 'scripts/programs/wild.mjs');

/** Runs cases `from`, `from + step` …; resolves with the number of the first that it did not run. */
function run(
  seed: number,
  from: number,
  to: number,
  step: number,
  found: (one: Numbered) => void,
  broke: () => void,
): Promise<number> {
  const args = { seed, from, to, step };
  const program = spawn(process.execPath, [
    '--enable-source-maps',
    PROGRAM,
    ...Object.entries(args).flatMap(([name, value]) => [`--${name}`, String(value)]),
  ]);
  const end = () => program.kill('SIGKILL');
  process.once('exit', end);
  let next = from;
  let text = '';
  let trouble = '';
  program.stderr.on('data', (piece) => (trouble += String(piece)));
  program.stdout.on('data', (piece) => {
    const lines = (text + String(piece)).split('\n');
    text = lines.pop()!;
    for (const line of lines) {
      const one = JSON.parse(line) as Numbered;
      next = one.number + step;
      found(one);
    }
  });
  return new Promise((done) =>
    // Closed: what it said last has been read.
    program.once('close', (code) => {
      process.off('exit', end);
      if (code === 0) return done(next);
      process.stdout.write(`  ${next} BROKE: ${trouble}\n`);
      broke();
      done(next + step);
    }),
  );
}

export interface Ran {
  /** In the order of their numbers */
  readonly outcomes: readonly Numbered[];
  /** Cases in which a program broke */
  readonly broken: number;
}

/** All of `count` cases. */
export async function runCases(
  seed: number,
  count: number,
  found: (one: Numbered) => void = () => undefined,
): Promise<Ran> {
  const all: Numbered[] = [];
  let broken = 0;
  const step = cpus().length;
  const note = (one: Numbered) => {
    all.push(one);
    found(one);
  };
  const row = async (first: number) => {
    for (let next = first; next < count;) next = await run(seed, next, count, step, note, () => (broken += 1));
  };
  await Promise.all(Array.from({ length: step }, (_, i) => row(i)));
  return { outcomes: all.sort((a, b) => a.number - b.number), broken };
}

const NEAR = 0.05;
export const lampsRight = ({ lamps }: Outcome): boolean =>
  lamps !== null && Math.abs(lamps[0] - lamps[1]) <= Math.max(0.5, NEAR * lamps[1]);

/** Something is called fine that is not, and that could be known. */
export const isFalseGreen = ({ falseGreen, unheard }: Outcome): boolean => falseGreen !== '' && !unheard;
/** Something healthy is called the cause for certain. */
export const isFalseBlame = ({ falseBlame }: Outcome): boolean => falseBlame.includes('certain:');

/** What is wrong with what was said in a case; empty if nothing. */
export const wrongWith = (one: Outcome): string =>
  [
    one.falseGreen && `${one.unheard ? 'not to be known' : 'FALSE GREEN'}: ${one.falseGreen}`,
    one.falseBlame && `BLAMES ${one.falseBlame}`,
    one.alarm && `ALARM ${one.alarm}`,
    one.place === 0 && (one.unexplained ? 'not explained' : `not named (${one.cause})`),
    one.place !== null && one.place > 1 && `named as number ${one.place}`,
    one.lamps && !lampsRight(one) && `${one.lamps[0]} lamps said, ${one.lamps[1]} are`,
    one.restless && 'restless after it',
  ]
    .filter(Boolean)
    .join('; ');
