/** DMX out of a plug: how evenly frames leave beside a bare program on the same port, and how soon what is heard leaves. */
import { PLAIN_MACHINE, PLAIN_PORT, type Machine } from '@taxiarch/core/show/records';
import type { ChildProcess } from 'node:child_process';
import { ratio, wait, type Extent, type Figure } from './figure';
import { base, ports, withProgram, withServer } from './server';

const PORT = 37_217;
const UNIVERSE = 2;
const RATE = 44;
const IDEAL_MS = 1000 / RATE;
const MOST_OVER_MS = 1.5;
const MOST_LATENCY_MS = IDEAL_MS + 5;

const ask = (program: ChildProcess, what: string) =>
  new Promise<number[]>((done) => {
    program.once('message', (answer) => done(answer as number[]));
    program.send(what);
  });
const post = async (path: string, body: object): Promise<void> => {
  const answer = await fetch(base + path, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
  if (!answer.ok) throw new Error(await answer.text());
};
const quantile = (values: readonly number[], share: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))]!;

export async function measure(extent: Extent): Promise<Figure[]> {
  const seconds = extent.of(20, 2);
  const jumps = extent.of(100, 5);
  const machine: Machine = {
    ...PLAIN_MACHINE,
    ...{ id: 'measured', rev: 0, name: 'Measured plug', kind: 'USB adapter', placeId: null },
    ports: [{ ...PLAIN_PORT, number: 1, use: 'out', protocol: 'sacn', universe: UNIVERSE, rate: RATE }],
    line: { at: `127.0.0.57:${PORT}`, slots: 512, routeId: null },
  };
  return withProgram('plugEnd', [PORT, ports.sacn, UNIVERSE, jumps], (end) =>
    withServer([], async () => {
      const bare = await withProgram(
        'barePlug',
        [PORT, RATE, seconds],
        async (program) => {
          await new Promise((over) => program.once('exit', over));
          return ask(end, 'intervals');
        },
        false,
      );
      const change = { kind: 'machine', id: machine.id, rev: null, after: machine };
      await post('/api/edits', { author: 'Measure', sentence: 'Added a plug', changes: [change] });
      await post('/api/output/hot', { hot: true, by: 'Measure' });
      await post('/api/plugs/run', { ids: [machine.id], on: true, by: 'Measure' });
      await wait(1000);
      await ask(end, 'intervals');
      await wait(seconds * 1000);
      const own = await ask(end, 'intervals');
      const took = await ask(end, 'latency');
      const over = quantile(own, 0.99) - IDEAL_MS;
      const bareOver = quantile(bare, 0.99) - IDEAL_MS;
      const median = quantile(took, 0.5);
      return [
        {
          figure: `out of a plug at ${RATE} Hz, ${own.length} frames: the pause between frames that 1 in 100 exceeds, over the ideal`,
          asked: `at most ${MOST_OVER_MS} ms`,
          seen: `${over.toFixed(2)} ms; a bare program on the same port ${bareOver.toFixed(2)} ms`,
          met: over <= MOST_OVER_MS,
        },
        {
          figure: `from the wire until it has left the plug, median of ${took.length}`,
          asked: `at most ${MOST_LATENCY_MS.toFixed(1)} ms: a frame and 5 ms`,
          seen: `${median.toFixed(1)} ms, ${ratio(median, MOST_LATENCY_MS)} of that`,
          met: median <= MOST_LATENCY_MS,
        },
      ];
    }),
  );
}
