/** Ways to mend what the patch's findings say, each with a plan that shows what it would move. */
import { type Result, ok } from '../../base/result';
import { blocksOf, footprintOf } from '../fixture';
import { changeMode, makeTwins, readdress } from './addressing';
import type { PatchFinding } from './findings';
import { freeNumbers, lampsOf } from './lamps';
import { renumber } from './marking';
import type { PatchedLamp } from './patch';
import { consequences, missingUniverses, type Rig } from './rig';
import type { Plan } from '../../show/edit';

export interface Repair {
  /** What to press: “Move lamp 12 to the next free place” */
  readonly label: string;
  readonly plan: Plan;
}

const START = { universe: 1, channel: 1 };

/** The next free place: in the lamp's own universe if there is one, else after it, else anywhere. */
function moveAway(rig: Rig, { lamp }: PatchedLamp, newId: () => string): Result<Plan> {
  const own = readdress(rig, [lamp.id], { how: 'gaps', start: { universe: lamp.universe, channel: 1 }, gap: 0 }, newId);
  return own.ok ? own : readdress(rig, [lamp.id], { how: 'gaps', start: START, gap: 0 }, newId);
}

/** A place in a universe that the show has. */
function moveIntoShow(rig: Rig, subjects: readonly string[], newId: () => string): Result<Plan>[] {
  return rig.records.universe
    .map(({ number }) => number)
    .sort((a, b) => a - b)
    .map((universe) => readdress(rig, subjects, { how: 'gaps', start: { universe, channel: 1 }, gap: 0 }, newId))
    .filter((plan) => plan.ok && plan.value.changes.every(({ kind }) => kind !== 'universe'));
}

function* candidates(rig: Rig, finding: PatchFinding, newId: () => string): Generator<readonly [string, Result<Plan>]> {
  const lamps = lampsOf(rig, finding.subjects);
  switch (finding.rule) {
    case 'overlap': {
      for (const patched of [...lamps].reverse())
        yield [`Move lamp ${patched.lamp.number} to the next free place`, moveAway(rig, patched, newId)];
      const [one, other] = lamps;
      if (one && other && blocksOf(one.mode).join() === blocksOf(other.mode).join())
        yield [
          `Make lamps ${one.lamp.number} and ${other.lamp.number} twins`,
          makeTwins(rig, [one.lamp.id, other.lamp.id], newId),
        ];
      yield* smallerModes(rig, lamps, newId);
      return;
    }
    case 'past-end':
      for (const patched of lamps)
        yield [`Move lamp ${patched.lamp.number} to the next free place`, moveAway(rig, patched, newId)];
      yield* smallerModes(rig, lamps, newId);
      return;
    case 'no-address':
      for (const patched of lamps)
        yield [
          `Give lamp ${patched.lamp.number} all its addresses`,
          changeMode(rig, [patched.lamp.id], patched.mode.name, false, newId),
        ];
      return;
    case 'unaddressed': {
      const some = lamps.length === 1 ? 'it a place' : 'them places';
      for (const universe of [...rig.records.universe.map(({ number }) => number), 1].sort((a, b) => a - b)) {
        const plan = readdress(rig, finding.subjects, { how: 'gaps', start: { universe, channel: 1 }, gap: 0 }, newId);
        if (!plan.ok) continue;
        yield [`Give ${some} from universe ${universe} on, where there is room`, plan];
        return;
      }
      return;
    }
    case 'unknown-type':
      return;
    case 'shared-number':
      for (const { lamp } of [...lamps].reverse()) {
        const number = freeNumbers(rig, lamp.number).next().value;
        yield [`Number ${lamp.name} ${number}`, renumber(rig, [lamp.id], number, 1)];
      }
      return;
    case 'no-universe': {
      const universe = finding.at!.universe;
      const { changes, lines } = missingUniverses(rig.records, [universe], newId);
      yield [`Add universe ${universe} to the show`, ok({ sentence: `Added universe ${universe}`, changes, lines })];
      const [into] = moveIntoShow(rig, finding.subjects, newId);
      if (into) yield ['Move them to free places in the show’s universes', into];
      return;
    }
    case 'run':
      return;
  }
}

function* smallerModes(
  rig: Rig,
  lamps: readonly PatchedLamp[],
  newId: () => string,
): Generator<readonly [string, Result<Plan>]> {
  for (const { lamp, type, mode } of lamps)
    for (const other of type.modes)
      if (footprintOf(other) < footprintOf(mode))
        yield [`Change lamp ${lamp.number} to ${other.name}`, changeMode(rig, [lamp.id], other.name, false, newId)];
}

/** Repairs that really mend the finding and bring no new one, best first. */
export function repairsOf(rig: Rig, finding: PatchFinding, newId: () => string): Repair[] {
  const repairs: Repair[] = [];
  for (const [label, plan] of candidates(rig, finding, newId)) {
    if (!plan.ok) continue;
    const { brings, mends } = consequences(rig, plan.value);
    if (brings.length === 0 && mends.some(({ sentence }) => sentence === finding.sentence))
      repairs.push({ label, plan: plan.value });
  }
  return repairs;
}
