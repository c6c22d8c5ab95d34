/**
 * `npm run soak -- MINUTES`: a show for as many minutes as asked (60), then servers killed in mid-edit and folders torn
 * in mid-edit, 200 times each; `-- MINUTES ROUNDS` for another number of these. Prints its table; ends non-zero if
 * anything confirmed is lost, memory grows, or whoever looks on sees too little.
 */
import { lostByKills, lostByTearing } from '../apps/server/src/testing/kills';
import { buildPrograms } from './programs';
import { showFor } from './soak/show';

const [minutes = 60, rounds = 200] = process.argv.slice(2).map(Number);
if (![minutes, rounds].every((one) => Number.isInteger(one) && one >= 0)) {
  process.stderr.write('Say how many minutes and how many rounds, as in: npm run soak -- 5 20.\n');
  process.exit(1);
}
await buildPrograms();
let harmed = minutes > 0 && !(await showFor(minutes, (line) => process.stdout.write(`${line}\n`)));
for (const [name, lostBy] of [
  ['killed', lostByKills],
  ['torn', lostByTearing],
] as const) {
  const { confirmed, lost } = await lostBy(rounds);
  harmed ||= lost.length > 0;
  process.stdout.write(
    `${name} ${rounds} times: ${confirmed} edits confirmed, ${lost.length} lost ${lost.join(', ')}\n`,
  );
}
process.exit(harmed ? 1 : 0);
