/** What lamps said lately when they were asked, in the words of the simulation. */
import type { RollReply } from '../roll';
import type { ObservedLamp } from '../simulate';

/** What was said longer ago says nothing of now, ms. */
const FRESH_MS = 60_000;

export interface AskedLamps {
  readonly asked: ReadonlySet<string>;
  readonly lamps: readonly ObservedLamp[];
}

export const NOBODY_ASKED: AskedLamps = { asked: new Set(), lamps: [] };

/** `at`: now, Unix ms. Lamps of ports that cannot be asked now were not asked. */
export function askedLamps({ rows, ports }: RollReply, at: number): AskedLamps {
  const fresh = (time: number) => at - time < FRESH_MS;
  const open = new Set(
    ports
      .filter(({ state, at: asked }) => state === 'asked' && fresh(asked))
      .map((port) => `${port.machineId} ${port.number}`),
  );
  const asked = new Set<string>();
  const lamps: ObservedLamp[] = [];
  for (const { lampId, state, seen, machineId, portNumber, differences } of rows) {
    if (lampId === '' || !open.has(`${machineId} ${portNumber}`)) continue;
    if (state === 'missing' || state === 'no answer') asked.add(lampId);
    if (!seen || seen.says === 'nothing' || !fresh(seen.at)) continue;
    asked.add(lampId);
    const word = (what: string) => (differences.some((one) => one.what === what) ? 'another' : 'planned');
    lamps.push({ id: lampId, on: word('port'), set: word('address'), mode: word('mode') });
  }
  return { asked, lamps };
}
