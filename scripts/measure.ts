/**
 * `npm run measure`: the figures that this project holds itself to, each beside its baseline, in one run; they are
 * written to docs/figures.md. `npm run measure -- glass rig` measures parts of them; `-- --short` sees to it that
 * every part works, once and briefly, and writes nothing.
 */
import { spawnSync } from 'node:child_process';
import { buildAll } from './built';
import { root } from './bundle.mjs';
import { TRIES, readFigures, wordOf, writeFigures, type Kept } from './figures';
import { QUIET, percent, stolen, ticks, type Extent, type Figure, type Part } from './measure/figure';
import * as exchange from './measure/exchange';
import * as faults from './measure/faults';
import * as files from './measure/files';
import * as flow from './measure/flow';
import * as glass from './measure/glass';
import * as history from './measure/history';
import * as ingest from './measure/ingest';
import * as load from './measure/load';
import * as plug from './measure/plug';
import * as rest from './measure/rest';
import * as rig from './measure/rig';
import * as roll from './measure/roll';
import * as stop from './measure/stop';
import * as walk from './measure/walk';
import * as wild from './measure/wild/wild';
import * as wire from './measure/wire';

const PARTS: Readonly<Record<string, Part>> = {
  ingest: ingest.measure,
  glass: glass.measure,
  load: load.measure,
  rest: rest.measure,
  rig: rig.measure,
  files: files.measure,
  stop: stop.measure,
  history: history.measure,
  wire: wire.measure,
  flow: flow.measure,
  faults: faults.measure,
  roll: roll.measure,
  walk: walk.measure,
  exchange: exchange.measure,
  plug: plug.measure,
  wild: wild.measure,
};
/** Parts that count what is right, or last for many minutes: these are not measured again for quiet. */
const ONCE: ReadonlySet<string> = new Set(['faults', 'walk', 'wild']);

const given = process.argv.slice(2);
const short = given.includes('--short');
const asked = given.filter((name) => name !== '--short');
const unknown = asked.filter((name) => !(name in PARTS));
if (unknown.length > 0) {
  process.stderr.write(`There is no figure ${unknown.join(', ')}. Choose from: ${Object.keys(PARTS).join(', ')}.\n`);
  process.exit(1);
}

const extent: Extent = { short, of: (full, brief) => (short ? brief : full) };
const commit = spawnSync('git', ['describe', '--always', '--dirty'], { cwd: root, encoding: 'utf8' }).stdout.trim();

/** The round with the least of the computer taken away, of as many as it takes to have a quiet one. */
async function quietest(part: string, measure: Part): Promise<Kept[]> {
  let best: { share: number; figures: Figure[] } | undefined;
  let tries = 0;
  do {
    const began = ticks();
    const figures = await measure(extent);
    const share = stolen(began);
    tries += 1;
    if (!best || share < best.share) best = { share, figures };
  } while (!short && !ONCE.has(part) && best.share >= QUIET && tries < TRIES);
  const taken = `${percent(best.share)}${best.share >= QUIET ? `, no quiet one in ${tries}` : ''}`;
  const on = new Date().toISOString().slice(0, 10);
  return best.figures.map((figure) => ({ part, ...figure, on, of: commit, taken }));
}

buildAll();
let kept = readFigures();
for (const [part, measure] of Object.entries(PARTS)) {
  if (asked.length > 0 && !asked.includes(part)) continue;
  process.stdout.write(`\n${part}\n`);
  const figures = await quietest(part, measure);
  for (const { figure, asked: held, seen, met, taken } of figures)
    process.stdout.write(`  ${figure}: ${seen} (${held}: ${wordOf(met)}; ${taken} taken away)\n`);
  const order = Object.keys(PARTS);
  kept = [...kept.filter((one) => one.part !== part), ...figures].sort(
    (a, b) => order.indexOf(a.part) - order.indexOf(b.part),
  );
  // A choice of faults says nothing of the library.
  if (!short && process.env['TAXIARCH_ONLY'] === undefined) await writeFigures(kept);
}
process.exit(0);
