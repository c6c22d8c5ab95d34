/** The lamps’ truth taken into the plan: their addresses and modes, and who they are. */
import { changed, countOf, type Plan, type ProposedChange } from '../../show/edit';
import { formatAll, lampName, lampsOf, type PatchedLamp, type Rig } from '../../rig/patch';
import type { Lamp, ShowRecords } from '../../show/records';
import { ok, refuse, type Result } from '../../base/result';
import { modeSeen } from './compare';
import type { RollRow } from './row';

const describe = ({ lamp }: PatchedLamp, after: Lamp): string =>
  [
    formatAll([after, ...after.blocks]),
    lamp.mode === after.mode ? '' : after.mode,
    lamp.uid === after.uid ? '' : after.uid,
  ]
    .filter(Boolean)
    .join(', ');

/** What the plan would be with what these lamps say. */
export function takeOver(rig: Rig, rows: readonly RollRow[]): Result<Plan> {
  const bad: string[] = [];
  const lamps = new Map(
    lampsOf(
      rig,
      rows.map(({ lampId }) => lampId),
    ).map((one) => [one.lamp.id, one]),
  );
  const after = rows.flatMap(({ lampId, seen, machineId, portNumber }): readonly (readonly [PatchedLamp, Lamp])[] => {
    const patched = lamps.get(lampId);
    if (!patched || !seen || seen.says === 'nothing') return [];
    const { lamp } = patched;
    const mode = modeSeen(patched.type, seen)?.name;
    if (mode === undefined) {
      bad.push(`${lampName(lamp)} is in a mode of ${countOf(seen.slots, 'slot')} that its type does not have.`);
      return [];
    }
    if (seen.startAddress === null) {
      bad.push(`${lampName(lamp)} has no address.`);
      return [];
    }
    const universe = universeAt(rig.records, machineId, portNumber) ?? lamp.universe;
    return [[patched, { ...lamp, universe, channel: seen.startAddress, mode, uid: seen.uid }]];
  });
  if (after.length === 0) return refuse('nothing', bad[0] ?? 'None of these lamps answered.');
  return ok({
    sentence: `Took ${after.length === 1 ? lampName(after[0]![0].lamp) : countOf(after.length, 'lamp')} into the plan as ${after.length === 1 ? 'it says' : 'they say'}`,
    changes: after.map(([{ lamp }, next]) => changed('lamp', lamp, next)),
    lines: [
      ...after.map(([patched, next]) => ({
        subject: lampName(patched.lamp),
        before: formatAll([patched.lamp, ...patched.lamp.blocks]),
        after: describe(patched, next),
      })),
      ...bad.map((subject) => ({ subject, before: '', after: 'stays as it is' })),
    ],
  });
}

/** Show universe that a port is planned to put out; undefined if none is. */
export function universeAt(
  { machine }: Pick<ShowRecords, 'machine'>,
  machineId: string,
  number: number,
): number | undefined {
  const port = machine.find(({ id }) => id === machineId)?.ports.find((one) => one.number === number);
  return port?.use === 'out' ? port.universe : undefined;
}

/** A lamp known by a UID from now on; whoever was known by it before is not any more. */
export function knownBy(lamps: readonly Lamp[], lampId: string, uid: string): ProposedChange[] {
  return lamps.flatMap((lamp) => {
    if (lamp.id === lampId) return lamp.uid === uid ? [] : [changed('lamp', lamp, { ...lamp, uid })];
    return lamp.uid === uid ? [changed('lamp', lamp, { ...lamp, uid: '' })] : [];
  });
}

/** Who the lamps are: the UIDs of sure matches kept with them, so that they are known whatever happens to their settings. */
export function keepUids(rig: Rig, rows: readonly RollRow[]): Result<Plan> {
  const uids = new Map(
    rows
      .filter(({ confidence, lampId }) => lampId !== '' && confidence === 'sure')
      .map(({ lampId, uid }) => [lampId, uid]),
  );
  const lamps = lampsOf(rig, [...uids.keys()]).filter(({ lamp }) => lamp.uid !== uids.get(lamp.id));
  if (lamps.length === 0) return refuse('nothing', 'Nobody new is known for sure.');
  return ok({
    sentence: `Kept which of the lamps that answer is which: ${countOf(lamps.length, 'lamp')}`,
    changes: lamps.map(({ lamp }) => changed('lamp', lamp, { ...lamp, uid: uids.get(lamp.id)! })),
    lines: lamps.map(({ lamp }) => ({ subject: lampName(lamp), before: lamp.uid, after: uids.get(lamp.id)! })),
  });
}
