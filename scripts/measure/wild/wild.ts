/**
 * Disturbances that nobody listed, made up at random, alone and together: senders, boxes, plans. What Taxiarch says of
 * each is held against what leaves the ports, in memory and by a clock of its own; some of them on real sockets.
 * `TAXIARCH_WILD=500 TAXIARCH_REAL=10 TAXIARCH_SEED=7 npm run measure -- wild`.
 */
import type { Extent, Figure } from '../figure';
import { isFalseGreen, lampsRight, runCases, wrongWith, type Numbered } from './pool';
import { runReal } from './real';

const CASES = Number(process.env['TAXIARCH_WILD'] ?? 500);
const REAL = Number(process.env['TAXIARCH_REAL'] ?? 10);
const SEED = Number(process.env['TAXIARCH_SEED'] ?? Date.now() % 1_000_000);

const share = (part: number, of: number): string =>
  of === 0 ? 'none' : `${((100 * part) / of).toFixed(1)} % (${part} of ${of})`;

/** What was taken for what: for each sort of disturbance that changed a port, the causes that were named first. */
export function takenFor(outcomes: readonly Numbered[]): string {
  const rows = new Map<string, Map<string, number>>();
  for (const { sort, cause, place, unexplained } of outcomes) {
    if (place === null || sort.includes(' + ')) continue;
    const row = rows.get(sort) ?? new Map<string, number>();
    const said = unexplained ? 'not explained' : cause || 'nothing';
    rows.set(sort, row.set(said, (row.get(said) ?? 0) + 1));
  }
  return [...rows]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([sort, said]) => `${sort}: ${[...said].map(([cause, times]) => `${cause} ${times}`).join(', ')}`)
    .join('\n');
}

function tell(one: Numbered): void {
  const wrong = wrongWith(one);
  if (wrong) process.stdout.write(`  ${one.number} [${one.sort}] ${one.says}: ${wrong}\n`);
}

export async function measure(extent: Extent): Promise<Figure[]> {
  const count = extent.of(CASES, 4);
  const { outcomes, broken } = await runCases(SEED, count, tell);
  const real = await runReal(SEED, extent.of(REAL, 1));
  process.stdout.write('  on real sockets:\n');
  real.forEach(tell);
  process.stdout.write(`${takenFor(outcomes)}\n`);
  const amount = (which: (one: Numbered) => boolean) => outcomes.filter(which).length;
  const changing = amount(({ place }) => place !== null);
  const greens = amount(isFalseGreen);
  const unheard = amount(({ falseGreen, unheard: all }) => all && falseGreen !== '');
  const [certain, likely] = ['certain:', 'likely:'].map((sure) =>
    amount(({ falseBlame }) => falseBlame.includes(sure)),
  );
  const alarms = amount(({ alarm }) => alarm !== '');
  const first = amount(({ place }) => place === 1);
  const three = amount(({ place }) => place !== null && place >= 1 && place <= 3);
  const open = amount(({ place, unexplained }) => place === 0 && unexplained);
  const right = amount(lampsRight);
  const known = changing - open;
  const name = `${count} cases made up at random, seed ${SEED}`;
  return [
    {
      figure: `${name}: false greens, by what leaves the ports`,
      asked: '0',
      seen: `${greens}; ${changing} of them changed a port; ${unheard} more came to nodes by unicast alone, which say nothing of it; in ${broken} a program broke`,
      met: greens + broken === 0,
    },
    {
      figure: `${real.length} of them on real sockets: false greens`,
      asked: '0',
      seen: `${real.filter(isFalseGreen).length}; ${real.filter(({ place }) => place !== null).length} changed a port, ${real.filter(({ place }) => place === 1).length} of these named first`,
      met: !real.some(isFalseGreen),
    },
    {
      figure: 'of all in memory: something healthy is blamed',
      asked: 'certain 0, likely at most 2 %',
      seen: `certain ${certain}, likely ${likely}`,
      met: certain === 0 && likely! <= 0.02 * count,
    },
    {
      figure: 'the same: alarms where nobody planned is touched',
      asked: '0',
      seen: String(alarms),
      met: alarms === 0,
    },
    {
      figure: 'the same: named first, of those that are explained',
      asked: 'at least 85 %',
      seen: `${share(first, known)}; ${open} more are said to be not explained`,
      met: first >= 0.85 * known,
    },
    {
      figure: 'the same: named among three',
      asked: 'at least 95 %',
      seen: share(three, known),
      met: three >= 0.95 * known,
    },
    {
      figure: 'the same: lamps affected within 5 %, where a port changed',
      asked: 'in 95 %',
      seen: share(right, changing),
      met: right >= 0.95 * changing,
    },
  ];
}
