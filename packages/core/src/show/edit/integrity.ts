/** What must hold between records. Faults that a person may keep for a while (overlaps, say) are findings, not these. */
import { applyChanges, type Change, type ShowMaps } from './edit';
import { formatWire } from '../../base/address';
import { findRouteLoop } from '../../signal/route';
import {
  type FixtureType,
  KINDS,
  type Lamp,
  type PixelRun,
  type Place,
  type RecordOf,
  type Route,
  type Universe,
} from '../records';

/** Copies only the maps that the changes touch. */
function withChanges(maps: ShowMaps, changes: readonly Change[]): ShowMaps {
  const touched = new Set(changes.map((change) => change.kind));
  const entries = KINDS.map((kind) => [kind, touched.has(kind) ? new Map(maps[kind]) : maps[kind]]);
  const copy = Object.fromEntries(entries) as ShowMaps;
  applyChanges(copy, changes);
  return copy;
}

const isHalf = ({ universe, channel }: Pick<Lamp, 'universe' | 'channel'>): boolean =>
  (universe === 0) !== (channel === 0);

/** One sentence that says why these changes cannot stand, or nothing if they can. */
export function refuseChanges(maps: ShowMaps, changes: readonly Change[]): string | undefined {
  const after = withChanges(maps, changes);
  const touched = new Set(changes.map((change) => change.kind));
  const types = after.type as Map<string, FixtureType>;
  const places = after.place as Map<string, Place>;

  if (after.show.size > 1) return 'There is one show in a show file; this would make two.';
  if (touched.has('lamp') || touched.has('type') || touched.has('place')) {
    for (const lamp of after.lamp.values() as IterableIterator<Lamp>) {
      const type = types.get(lamp.typeId);
      if (!type) return `Lamp ${lamp.number} needs its fixture type: it cannot be removed or be missing.`;
      if (!type.modes.some((mode) => mode.name === lamp.mode))
        return `${type.maker} ${type.name} has no mode “${lamp.mode}”, which lamp ${lamp.number} uses.`;
      if (isHalf(lamp) || lamp.blocks.some(isHalf))
        return `Lamp ${lamp.number} has half an address: universe and channel belong together, and 0/0 is none.`;
      if (lamp.placeId !== null && !places.has(lamp.placeId))
        return `Lamp ${lamp.number} stands in a place that is not in the show.`;
    }
  }
  if (touched.has('machine') || touched.has('model') || touched.has('place')) {
    for (const machine of after.machine.values() as IterableIterator<RecordOf['machine']>) {
      if (machine.placeId !== null && !places.has(machine.placeId))
        return `${machine.name} stands in a place that is not in the show.`;
      if (machine.modelId !== null && !after.model.has(machine.modelId))
        return `The model of ${machine.name} cannot be removed or be missing.`;
    }
  }
  if (touched.has('run') || touched.has('machine') || touched.has('place')) {
    for (const run of after.run.values() as IterableIterator<PixelRun>) {
      if (run.machineId !== null && !after.machine.has(run.machineId))
        return `The controller that drives run ${run.number} ${run.name} cannot be removed or be missing.`;
      if (run.placeId !== null && !places.has(run.placeId))
        return `Run ${run.number} stands in a place that is not in the show.`;
    }
  }
  if (touched.has('universe')) {
    const numbers = new Set<number>();
    const carried = new Map<string, number>();
    for (const universe of after.universe.values() as IterableIterator<Universe>) {
      if (numbers.has(universe.number)) return `Universe ${universe.number} is in the show already.`;
      numbers.add(universe.number);
      const wire = `${universe.protocol} ${universe.wire}`;
      const other = carried.get(wire);
      if (other !== undefined)
        return `Universes ${other} and ${universe.number} would both travel as the same wire universe.`;
      carried.set(wire, universe.number);
    }
  }
  if (touched.has('route')) {
    const way = findRouteLoop([...after.route.values()] as Route[]);
    const outs = new Map<string, string>();
    for (const { name, out } of after.route.values() as IterableIterator<Route>) {
      const other = outs.get(formatWire(out));
      if (other !== undefined)
        return `The routes ${other} and ${name} would both send ${formatWire(out)}: make one route of them, with the inputs of both.`;
      outs.set(formatWire(out), name);
    }
    if (way !== undefined) return `These routes would feed themselves: ${way}.`;
  }
  if (touched.has('control') || touched.has('route')) {
    for (const { name, target } of after.control.values() as IterableIterator<RecordOf['control']>)
      if (target.kind === 'route' && !after.route.has(target.id))
        return `The control ${name} needs its route: take the control out first.`;
  }
  if (touched.has('machine') || touched.has('route')) {
    for (const { name, line } of after.machine.values() as IterableIterator<RecordOf['machine']>)
      if (line?.routeId != null && !after.route.has(line.routeId))
        return `The adapter ${name} sends what a route makes: give it something else to send first.`;
  }
  if (touched.has('link') || touched.has('machine')) {
    for (const { name, senderId, visualiserId } of after.link.values() as IterableIterator<RecordOf['link']>) {
      const sender = after.machine.get(senderId) as RecordOf['machine'] | undefined;
      if (!sender?.sends) return `The link ${name} needs its sender, and what it sends: take the link out first.`;
      if (!after.machine.has(visualiserId)) return `The link ${name} needs its visualiser: take the link out first.`;
    }
  }
  if (touched.has('walk') || touched.has('mark')) {
    for (const mark of after.mark.values() as IterableIterator<RecordOf['mark']>)
      if (!after.walk.has(mark.walkId)) return 'A walk in which something was marked stays: its marks stand in it.';
  }
  // With another show in its place a record goes as well; it stays in the history.
  if (!touched.has('show') && changes.some(({ kind, id }) => kind === 'proof' && maps.proof.has(id)))
    return 'A signed record of proof cannot be changed. Sign a later one, which says what differs.';
  return undefined;
}
