/** One case: something is disturbed, and what Taxiarch says of it is held against what the oracle saw. */
import type { Patch } from '@taxiarch/core/rig/patch';
import type { StandingReport, Trouble } from '@taxiarch/core/truth/known';
import { look, type Seen } from './oracle';
import type { Disturbance, Ship } from './ship';

/** Until everything that notices has noticed: a node is missed after three polls. */
const NOTICED_MS = 13_000;
const CALM_MS = 60_000;
const MOST_ASKED = 4;

export interface Outcome {
  readonly sort: string;
  readonly says: string;
  /** Ports from which something else leaves */
  readonly changed: number;
  readonly falseGreen: string;
  /** Nothing of what changed the ports comes to this computer. */
  readonly unheard: boolean;
  readonly falseBlame: string;
  readonly alarm: string;
  /** Place of what is disturbed among what is named, from 1; 0 for not named, null where nothing changed */
  readonly place: number | null;
  /** Nothing is named, and that something is not explained is said */
  readonly unexplained: boolean;
  /** Lamps said beside lamps that are changed; null where nothing is */
  readonly lamps: readonly [said: number, are: number] | null;
  /** Id of the first cause that is named; empty for none */
  readonly cause: string;
  /** It did not come to rest when all was mended. */
  readonly restless: boolean;
}

const isCalm = ({ troubles, unexplained }: StandingReport): boolean => troubles.length + unexplained.length === 0;

/** Waits until nothing stands against the show, twice in a row. */
export async function calm(ship: Ship): Promise<boolean> {
  for (let waited = 0; waited < CALM_MS; waited += 1000) {
    if (isCalm(await ship.standing())) {
      await ship.wait(700);
      if (isCalm(await ship.standing())) return true;
    }
    await ship.wait(1000);
  }
  return false;
}

/** Where something else leaves on slots that lamps have. */
function forLamps(patch: Patch, seen: readonly Seen[]): Seen[] {
  return seen.flatMap(({ port, otherwise }) => {
    const used = new Set(
      patch.universe(port.universe).flatMap(({ channel, length }) => Array.from({ length }, (_, i) => channel - 1 + i)),
    );
    const slots = new Set([...otherwise].filter((slot) => used.has(slot)));
    return slots.size > 0 ? [{ port, otherwise: slots }] : [];
  });
}

/** Ids of lamps that have a slot from which something else leaves. */
function lampsOf(patch: Patch, seen: readonly Seen[]): Set<string> {
  const slots = new Map<number, Set<number>>();
  for (const { port, otherwise } of seen)
    for (const slot of otherwise) slots.set(port.universe, (slots.get(port.universe) ?? new Set()).add(slot));
  return new Set(
    [...slots].flatMap(([universe, changed]) =>
      patch
        .universe(universe)
        .filter(({ channel, length }) =>
          Array.from({ length }, (_, i) => channel - 1 + i).some((one) => changed.has(one)),
        )
        .map(({ patched }) => patched.lamp.id),
    ),
  );
}

/** Lamps that are said: of the one trouble that has most, or of all together, as they have the same ones or not. */
function lampsSaid(troubles: readonly Trouble[], are: number): number {
  const all = troubles.map(({ lamps }) => lamps);
  const [most, sum] = [Math.max(0, ...all), all.reduce((a, b) => a + b, 0)];
  return Math.abs(most - are) < Math.abs(sum - are) ? most : sum;
}

/** What is called fine though it is among what changed. */
async function greens(ship: Ship, standing: StandingReport, changed: readonly Seen[], lamps: ReadonlySet<string>) {
  const said: string[] = [];
  if (isCalm(standing)) said.push('nothing stands against it');
  for (const { port } of changed.slice(0, MOST_ASKED)) {
    const { sure } = await ship.why({ kind: 'port', id: port.machineId, part: String(port.number) });
    if (sure === 'as planned') said.push(`${port.machineId} port ${port.number} is as planned`);
  }
  for (const id of [...lamps].slice(0, 2)) {
    const { sure } = await ship.why({ kind: 'lamp', id, part: '' });
    if (sure === 'as planned') said.push(`lamp ${id} is as planned`);
  }
  const universes = new Set(changed.map(({ port }) => port.universe));
  for (const id of [...universes].slice(0, MOST_ASKED)) {
    const { sure } = await ship.why({ kind: 'universe', id: String(id), part: '' });
    if (sure === 'as planned') said.push(`universe ${id} is as planned`);
  }
  return said.join('; ');
}

/** `all` are disturbed at once. */
export async function tryCase(ship: Ship, all: readonly Disturbance[], patch: () => Patch): Promise<Outcome> {
  const ends: (() => Promise<void> | void)[] = [];
  const isMeant = (trouble: Trouble) => all.some((one) => one.isMeantBy(trouble));
  const harmless = all.every((one) => one.harmless);
  let outcome: Omit<Outcome, 'restless'>;
  try {
    for (const one of all) ends.push(await one.begin(ship));
    await ship.wait(NOTICED_MS);
    const also = new Map(all.flatMap(({ sendsBy }) => (sendsBy ? [sendsBy] : [])));
    // What comes and goes may be away when it is asked: the worse of two answers counts.
    const before = await ship.standing();
    const seen = forLamps(patch(), await look(ship, ship.records(), patch(), also));
    const after = await ship.standing();
    const standing = before.troubles.length > after.troubles.length ? before : after;
    const lamps = lampsOf(patch(), seen);
    const { troubles } = standing;
    const blamed = troubles.filter((one) => one.sure !== 'open' && !isMeant(one));
    const changed = seen.length > 0;
    const silent = new Set(all.flatMap(({ unheard }) => unheard ?? []));
    const heard = seen.filter(({ port }) => !silent.has(port.universe));
    const told = heard.length > 0 ? heard : seen;
    outcome = {
      sort: all.map(({ sort }) => sort).join(' + '),
      says: all.map(({ says }) => says).join(' + '),
      changed: seen.length,
      unheard: changed && heard.length === 0,
      falseGreen: changed ? await greens(ship, standing, told, lampsOf(patch(), told)) : '',
      falseBlame: blamed.map(({ sure, says }) => `${sure}: ${says}`).join(' '),
      alarm: harmless && !isCalm(standing) ? standing.verdict : '',
      place: changed ? 1 + troubles.findIndex(isMeant) : null,
      unexplained: troubles.length === 0 && standing.unexplained.length > 0,
      lamps: changed ? [lampsSaid(troubles.filter(isMeant), lamps.size), lamps.size] : null,
      cause: troubles[0]?.cause ?? '',
    };
  } finally {
    for (const end of ends.reverse()) await end();
  }
  return { ...outcome, restless: !(await calm(ship)) };
}
