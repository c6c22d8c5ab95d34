/** The rig: a show's records with their patch, and what a plan would bring to it. */
import { formatAddress, isAddressed, NO_ADDRESS, wireKey, type SlotAddress } from '../address';
import { added, recordsAfter, type Plan, type PlanLine, type ProposedChange } from '../edit';
import type { ShowRecords, Universe } from '../records';
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

/** Show universes that `numbers` need and the show lacks, as sACN of the same number where that is free. */
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
    let wire = number;
    while (carried.has(wireKey({ protocol: 'sacn', number: wire }))) wire += 1;
    carried.add(wireKey({ protocol: 'sacn', number: wire }));
    const made: Universe = { id: newId(), rev: 0, number, name: '', protocol: 'sacn', wire, merge: 'htp' };
    changes.push(added('universe', made));
    lines.push({ subject: `Universe ${number}`, before: '', after: `added, as sACN ${wire}` });
  }
  return { changes, lines };
}

/** All addresses of a lamp: “3/47, 4/1”, or “no address” where none of its blocks has one. */
export const formatAll = (addresses: readonly SlotAddress[]): string =>
  addresses.some(isAddressed) ? addresses.map(formatAddress).join(', ') : formatAddress(NO_ADDRESS);
