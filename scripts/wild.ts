/**
 * `npm run wild [-- --cases N --seed N]`: something is disturbed at random, again and again, in memory, and what Taxiarch
 * says of it is held against what leaves the ports. Fails where something is called fine that is not, or something
 * healthy is blamed for certain. The same seed draws the same cases.
 */
import { parseArgs } from 'node:util';
import { isFalseBlame, isFalseGreen, runCases, wrongWith } from './measure/wild/pool';

const { values } = parseArgs({
  options: {
    cases: { type: 'string', default: '40' },
    seed: { type: 'string', default: String(Date.now() % 1_000_000) },
  },
});
const { outcomes, broken } = await runCases(Number(values.seed), Number(values.cases));
const failed = outcomes.filter((one) => isFalseGreen(one) || isFalseBlame(one));
for (const one of failed) process.stdout.write(`${one.number} [${one.sort}] ${one.says}: ${wrongWith(one)}\n`);
const changed = outcomes.filter(({ place }) => place !== null);
process.stdout.write(
  `Seed ${values.seed}: ${outcomes.length} cases, ${changed.length} changed a port, ${changed.filter(({ place }) => place === 1).length} of these named first; ${failed.length} failed, ${broken} broke.\n`,
);
process.exit(failed.length + broken > 0 ? 1 : 0);
