/** Which universes leave by which ports, as planned. */
import { carriedBy } from './ports';
import type { ShowRecords } from '../../show/records';

/** Universes that come out of a port of a machine; those of a pixel controller one a port. */
export function universesOfPort(
  records: Pick<ShowRecords, 'machine'>,
  machineId: string,
  port: number,
): readonly number[] {
  const machine = records.machine.find(({ id }) => id === machineId);
  if (!machine) return [];
  const its = machine.ports.find(({ number }) => number === port);
  if (its) {
    const carried = its.copyOf === null ? its : carriedBy(its, machine.ports);
    return carried.use === 'out' ? [carried.universe] : [];
  }
  const { controller } = machine;
  return controller && port >= 1 && port <= controller.universes ? [controller.firstUniverse + port - 1] : [];
}

/** Ports (`machine-1 3`) by the show universe that they carry. */
export function portsByUniverse({ machine }: Pick<ShowRecords, 'machine'>): ReadonlyMap<number, readonly string[]> {
  const found = new Map<number, string[]>();
  for (const { id, ports, controller } of machine) {
    const numbers = [
      ...ports.map(({ number }) => number),
      ...Array.from({ length: controller?.universes ?? 0 }, (_, i) => i + 1),
    ];
    for (const number of new Set(numbers))
      for (const universe of universesOfPort({ machine }, id, number))
        found.set(universe, [...(found.get(universe) ?? []), `${id} ${number}`]);
  }
  return found;
}
