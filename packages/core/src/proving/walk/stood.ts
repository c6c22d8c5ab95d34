/** How what stands on a lamp’s path stands now, as its devices say it: kept with each mark, and compared later. */
import { heardMachines, matchMachines, type Heard, type MachineEntry } from '../../network/node';
import { isOutlet } from '../../truth/simulate';
import type { PatchedLamp } from '../../rig/patch';
import type { MarkFact, ShowRecords } from '../../show/records';
import type { RollRow } from '../../truth/roll';
import { universesOfPort } from '../../network/machine';

/** Boxes and lamps that have said how they stand. */
export class StoodNow {
  private readonly byUniverse = new Map<number, readonly MarkFact[]>();
  private readonly entries: readonly MachineEntry[];
  private readonly rows: ReadonlyMap<string, RollRow>;

  constructor(
    private readonly records: ShowRecords,
    heard: Heard | undefined,
    rows: readonly RollRow[],
  ) {
    this.entries = heard ? matchMachines(records, heardMachines(heard)) : [];
    this.rows = new Map(rows.map((row) => [row.lampId, row]));
  }

  /** Firmware and ports of the boxes that carry a universe */
  private ofUniverse(universe: number): readonly MarkFact[] {
    const known = this.byUniverse.get(universe);
    if (known) return known;
    const made = this.entries.flatMap(({ plan, heard, name }): MarkFact[] => {
      const node = heard && !heard.gone ? heard.node : undefined;
      if (!plan || !node || !isOutlet(plan)) return [];
      const ports = node.ports.filter(
        ({ number, direction }) =>
          direction === 'out' && universesOfPort(this.records, plan.id, number).includes(universe),
      );
      if (ports.length === 0) return [];
      return [
        { about: `firmware of ${name}`, says: node.firmware },
        ...ports.map(({ number, sacn, portAddress, ltp }) => ({
          about: `${name}, port ${number}`,
          says: `${sacn ? 'sACN' : 'Art-Net'} ${portAddress}, ${ltp ? 'LTP' : 'HTP'}`,
        })),
        ...(node.failSafe === null ? [] : [{ about: `what ${name} does without signal`, says: node.failSafe }]),
      ];
    });
    this.byUniverse.set(universe, made);
    return made;
  }

  of({ lamp, spans }: PatchedLamp): MarkFact[] {
    const universes = [...new Set(spans.map(({ universe }) => universe))];
    const seen = this.rows.get(lamp.id)?.seen;
    const own: MarkFact[] =
      seen?.says === 'all'
        ? [
            { about: `address of ${lamp.name}`, says: seen.startAddress === null ? 'none' : String(seen.startAddress) },
            { about: `mode of ${lamp.name}`, says: `${seen.mode}, ${seen.slots} slots` },
            { about: `firmware of ${lamp.name}`, says: seen.firmware },
          ]
        : [];
    return [...universes.flatMap((universe) => this.ofUniverse(universe)), ...own];
  }
}
