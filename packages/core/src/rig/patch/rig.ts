/** The rig: a show's records with their patch, and what a plan would bring to it. */
import {
  formatAddress,
  formatWire,
  isAddressed,
  lastWireNumber,
  NO_ADDRESS,
  type Protocol,
  SACN_FIRST,
  type SlotAddress,
  wireKey,
} from '../../base/address';
import { added, recordsAfter, type Plan, type PlanLine, type ProposedChange } from '../../show/edit';
import type { ShowRecords, Universe } from '../../show/records';
import { patchFindings, type PatchFinding } from './findings';
import { Patch } from './patch';

/** The records of a show, and its patch. */
export interface Rig {
  readonly records: ShowRecords;
  readonly patch: Patch;
}

export const rigOf = (records: ShowRecords): Rig => ({
  records,
  patch: new Patch(records.lamp, records.type, records.run, records.machine),
});

/** Findings that a plan would bring, and those it would mend. */
export function consequences(
  rig: Rig,
  plan: Plan,
): { readonly brings: PatchFinding[]; readonly mends: PatchFinding[] } {
  const after = recordsAfter(rig.records, plan.changes);
  const then = patchFindings(rigOf(after).patch, after.universe);
  const now = patchFindings(rig.patch, rig.records.universe);
  const nowSaid = new Set(now.map(({ sentence }) => sentence));
  const thenSaid = new Set(then.map(({ sentence }) => sentence));
  return {
    brings: then.filter(({ sentence }) => !nowSaid.has(sentence)),
    mends: now.filter(({ sentence }) => !thenSaid.has(sentence)),
  };
}

/** The universe of the show that a number lies next to: the nearest below it, else the nearest above. */
function neighbourOf(number: number, universe: readonly Universe[]): Universe | undefined {
  let below: Universe | undefined;
  let above: Universe | undefined;
  for (const one of universe) {
    if (one.number < number && (!below || one.number > below.number)) below = one;
    if (one.number > number && (!above || one.number < above.number)) above = one;
  }
  return below ?? above;
}

/** The first free number on the wire from the wanted one on, then from the protocol's first. */
function freeWire(protocol: Protocol, wanted: number, carried: ReadonlySet<number>): number | undefined {
  const first = protocol === 'sacn' ? SACN_FIRST : 0;
  const last = lastWireNumber(protocol);
  for (const start of [Math.max(first, wanted), first])
    for (let number = start; number <= last; number += 1)
      if (!carried.has(wireKey({ protocol, number }))) return number;
  return undefined;
}

/**
 * Show universes that `numbers` need and the show lacks. Each speaks the protocol of the universe next to it and
 * counts on from it; in an empty show it is sACN of the same number.
 */
export function missingUniverses(
  { universe }: ShowRecords,
  numbers: Iterable<number>,
  newId: () => string,
): { changes: ProposedChange[]; lines: PlanLine[] } {
  const known = new Set(universe.map(({ number }) => number));
  const carried = new Set(universe.map(({ protocol, wire }) => wireKey({ protocol, number: wire })));
  const changes: ProposedChange[] = [];
  const lines: PlanLine[] = [];
  for (const number of [...new Set(numbers)].sort((a, b) => a - b)) {
    // 0 is no universe: a lamp without an address.
    if (number === 0 || known.has(number)) continue;
    const beside = neighbourOf(number, universe);
    const protocol = beside?.protocol ?? 'sacn';
    const wire = freeWire(protocol, beside ? beside.wire + number - beside.number : number, carried);
    if (wire === undefined) continue;
    carried.add(wireKey({ protocol, number: wire }));
    const made: Universe = { id: newId(), rev: 0, number, name: '', protocol, wire, merge: beside?.merge ?? 'htp' };
    changes.push(added('universe', made));
    lines.push({
      subject: `Universe ${number}`,
      before: '',
      after: `added, as ${formatWire({ protocol, number: wire })}`,
    });
  }
  return { changes, lines };
}

/** All addresses of a lamp: “3/47, 4/1”, or “no address” where none of its blocks has one. */
export const formatAll = (addresses: readonly SlotAddress[]): string =>
  addresses.some(isAddressed) ? addresses.map(formatAddress).join(', ') : formatAddress(NO_ADDRESS);
