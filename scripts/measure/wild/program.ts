/** `--seed N --from N --to N --step N`: cases in memory, by a clock of their own; each outcome is a line of JSON. */
import { parseArgs } from 'node:util';
import { random } from '@taxiarch/core/truth/fault';
import { pass } from '../../virtual/clock';
import { PORTS, openWorld, panel } from '../../virtual/world';
import { drawCase } from './cases';
import { calm, tryCase } from './judge';
import type { Ship } from './ship';

const numbered = { type: 'string', default: '0' } as const;
const { values } = parseArgs({ options: { seed: numbered, from: numbered, to: numbered, step: numbered } });
const [seed, from, to, step] = [values.seed, values.from, values.to, values.step].map(Number) as [
  number,
  number,
  number,
  number,
];
const SETTLE_MS = 9000;

const world = await openWorld(random(seed + from));
const ship: Ship = {
  ports: PORTS,
  wait: pass,
  panel,
  live: async () => world.live(),
  standing: async () => world.ask({ type: 'standing' }),
  why: async (about) => world.ask({ type: 'why', about }),
  records: () => world.records,
  plan: async (records) => world.plan(records),
};
await pass(SETTLE_MS);
await calm(ship);
for (let i = from; i < to; i += step) {
  const outcome = await tryCase(ship, await drawCase(seed, i, ship), () => world.patch);
  process.stdout.write(`${JSON.stringify({ number: i, ...outcome })}\n`);
  // What does not come to rest would be taken for the next one: that begins in a world of its own.
  if (outcome.restless) break;
}
process.exit(0);
