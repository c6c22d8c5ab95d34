/**
 * `npm run soak -- ROUNDS`: servers killed in mid-edit and folders torn in mid-edit, as often as asked (200),
 * to see whether anything confirmed is ever lost. Prints its table; ends non-zero if something is.
 */
import { lostByKills, lostByTearing } from '../apps/server/src/testing/kills';
import { buildPrograms } from './build';

const rounds = Number(process.argv[2] ?? 200);
if (!Number.isInteger(rounds) || rounds < 1) {
  process.stderr.write('Say how many rounds, as in: npm run soak -- 50.\n');
  process.exit(1);
}
await buildPrograms();
let harmed = false;
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
