/** How all stands, thing by thing, and what became of it since somebody kept it as good. */
import type { MachineEntry } from '../../network/node';
import type { Good, KeptState } from '../../show/records';
import type { UniverseReport } from '../../signal/stream';

/** States of universes of the show as heard, and of planned machines, each in a word. */
export function statesNow(universes: readonly UniverseReport[], entries: readonly MachineEntry[]): KeptState[] {
  return [
    ...universes
      .filter(({ show }) => show !== null)
      .map(({ show, name, state }) => ({
        about: `universe ${show}`,
        name: `Universe ${show} ${name}`.trim(),
        says: state,
      })),
    ...entries.flatMap(({ plan, state }) =>
      plan && state !== 'unseen' ? [{ about: `machine ${plan.id}`, name: plan.name, says: state }] : [],
    ),
  ];
}

export interface ChangedState {
  readonly name: string;
  readonly before: string;
  readonly now: string;
}

/** What stands otherwise than it was kept; what came or went in between is told too. */
export function changedSince(good: Good, now: readonly KeptState[]): ChangedState[] {
  const then = new Map(good.states.map((one) => [one.about, one]));
  const changed = now.flatMap(({ about, name, says }): ChangedState[] => {
    const before = then.get(about);
    then.delete(about);
    return before?.says === says ? [] : [{ name, before: before?.says ?? 'not there', now: says }];
  });
  return [...changed, ...[...then.values()].map(({ name, says }) => ({ name, before: says, now: 'not there' }))];
}

/** The one that was kept last. */
export const lastGood = (all: readonly Good[]): Good | undefined =>
  all.reduce<Good | undefined>((last, one) => (!last || one.rev > last.rev ? one : last), undefined);
