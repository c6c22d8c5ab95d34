/** What incoming channels move: masters and switches of routes, worked out from the plan once for many frames. */
import { SLOTS, wireKey } from '../../base/address';
import { universesByWire } from './standing';
import { type Patch, slotsOf } from '../../rig/patch';
import type { Control, ControlTarget, Route, ShowRecords } from '../../show/records';

/** What one control does to one route. */
export interface Reach {
  readonly controlId: string;
  readonly routeId: string;
  /** Slots (0–511) of the route's output that it scales; null for all */
  readonly slots: readonly number[] | null;
}

const INTENSITY = 'Dimmer';

/** The routes that each master reaches, and which of their slots. Switches reach their route whole. */
export function reachOf(records: Pick<ShowRecords, 'route' | 'control' | 'universe'>, patch: Patch): Reach[] {
  const planned = universesByWire(records.universe);
  return records.control.flatMap((control) =>
    records.route.flatMap((route): Reach[] => {
      const slots = reached(control, route, planned.get(wireKey(route.out))?.number, patch);
      return slots === undefined ? [] : [{ controlId: control.id, routeId: route.id, slots }];
    }),
  );
}

/** What a control moves, in words: `route Over`, `group Spots`, `universe 3`. */
function targetText(target: ControlTarget, { route }: Pick<ShowRecords, 'route'>): string {
  if (target.kind === 'route') return `route ${route.find(({ id }) => id === target.id)?.name ?? 'gone'}`;
  return target.kind === 'group' ? `group ${target.name}` : `universe ${target.number}`;
}

export const controlText = (control: Control, records: Pick<ShowRecords, 'route'>): string =>
  control.does === 'master'
    ? `master of ${targetText(control.target, records)}`
    : `switches ${targetText(control.target, records)} from ${control.threshold}`;

/** Why a control moves nothing as things are planned; undefined if it moves something. */
export function movesNothing(
  { target, id }: Control,
  records: Pick<ShowRecords, 'route' | 'control' | 'universe'>,
  patch: Patch,
): string | undefined {
  if (target.kind === 'route')
    return records.route.some((route) => route.id === target.id) ? undefined : 'Its route is not in the show any more.';
  if (reachOf(records, patch).some(({ controlId }) => controlId === id)) return undefined;
  if (target.kind === 'universe') return `No route goes into universe ${target.number}, so it moves nothing.`;
  const lamps = patch.all().filter(({ lamp }) => lamp.groups.includes(target.name));
  if (lamps.length === 0) return `No lamp is in the group ${target.name}, so it moves nothing.`;
  return `No route goes to the intensities of the group ${target.name}, so it moves nothing.`;
}

/** Slots of a route's output that a control moves; null for all, undefined for none. */
function reached(
  { target }: Control,
  route: Route,
  universe: number | undefined,
  patch: Patch,
): readonly number[] | null | undefined {
  if (target.kind === 'route') return target.id === route.id ? null : undefined;
  if (universe === undefined) return undefined;
  if (target.kind === 'universe') return target.number === universe ? null : undefined;
  const slots: number[] = [];
  for (const patched of patch.all())
    if (patched.lamp.groups.includes(target.name))
      for (const channel of patched.mode.channels)
        if (channel.attribute === INTENSITY)
          for (const at of slotsOf(patched, channel)) if (at.universe === universe) slots.push(at.channel - 1);
  return slots.length === 0 ? undefined : slots;
}

/** Factors 0–1 for the slots of a route; null where everything is at full. `masters` by control, 0–1. */
export function scalesOf(
  route: Route,
  reach: readonly Reach[],
  masters: ReadonlyMap<string, number>,
): Float32Array | null {
  let scales: Float32Array | null = route.master === 255 ? null : new Float32Array(SLOTS).fill(route.master / 255);
  for (const { controlId, slots } of reach) {
    const factor = masters.get(controlId) ?? 1;
    if (factor === 1) continue;
    scales ??= new Float32Array(SLOTS).fill(1);
    if (slots === null) for (let slot = 0; slot < SLOTS; slot += 1) scales[slot]! *= factor;
    else for (const slot of slots) scales[slot]! *= factor;
  }
  return scales;
}
