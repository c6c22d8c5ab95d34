/** Lamps in rows, lines and arcs, in metres: where each comes to stand. */
import { ok, refuse, type Result } from '../../base/result';
import { lampName, lampsOf, type Rig } from '../patch';
import { changed, countOf, type Plan } from '../../show/edit';
import type { Lamp, Point } from '../../show/records';

/** Positions on two axes of the plan; the third stays as it is. */
export type Spot = readonly [number, number];

const centimetres = (metres: number): number => Math.round(metres * 100) / 100;

/** The nearest multiple of `step` metres; any place if the step is 0. */
export const snap = (metres: number, step: number): number =>
  step > 0 ? centimetres(Math.round(metres / step) * step) : centimetres(metres);

/** Row by row from the first corner: `columns` in a row, rows away from it. */
export const grid = (count: number, columns: number, [dx, dy]: Spot, [x, y]: Spot): Spot[] =>
  Array.from({ length: count }, (_, i) => [
    centimetres(x + (i % columns) * dx),
    centimetres(y + Math.floor(i / columns) * dy),
  ]);

/** Evenly from one end to the other, both ends used; one alone stands in the middle. */
export const line = (count: number, [ax, ay]: Spot, [bx, by]: Spot): Spot[] =>
  Array.from({ length: count }, (_, i) => {
    const share = count === 1 ? 0.5 : i / (count - 1);
    return [centimetres(ax + (bx - ax) * share), centimetres(ay + (by - ay) * share)];
  });

/** Evenly on an arc round a middle; degrees run from the first axis towards the second. A full turn leaves no two on one spot. */
export const arc = (count: number, [x, y]: Spot, radius: number, from: number, to: number): Spot[] => {
  const whole = Math.abs(to - from) >= 360;
  const steps = whole ? count : Math.max(1, count - 1);
  return Array.from({ length: count }, (_, i) => {
    const angle = ((from + ((to - from) * i) / steps) * Math.PI) / 180;
    return [centimetres(x + radius * Math.cos(angle)), centimetres(y + radius * Math.sin(angle))];
  });
};

/** Top view: across and along. Side view: along and up. */
export type View = 'top' | 'side';

export const spotOf = (view: View, { x, y, z }: Point): Spot => (view === 'top' ? [x, y] : [y, z]);
const withSpot = (view: View, lamp: Lamp, [a, b]: Spot): Lamp =>
  view === 'top' ? { ...lamp, x: a, y: b } : { ...lamp, y: a, z: b };

const said = (view: View, lamp: Point): string =>
  spotOf(view, lamp)
    .map((metres) => `${metres} m`)
    .join(', ');

/** Puts lamps at spots of a view. Lamps that are locked stay, and are refused. */
export function putAt(rig: Rig, view: View, spots: readonly (readonly [id: string, spot: Spot])[]): Result<Plan> {
  const pairs = spots.flatMap(([id, spot]) =>
    lampsOf(rig, [id]).map(({ lamp }) => [lamp, withSpot(view, lamp, spot)] as const),
  );
  if (pairs.length === 0) return refuse('nothing', 'No lamp is chosen.');
  const locked = pairs.find(([lamp]) => lamp.locked);
  if (locked) return refuse('not-possible', `Lamp ${locked[0].number} is locked. Unlock it first, or leave it out.`);
  return ok({
    sentence: `Moved ${countOf(pairs.length, 'lamp')} on the plan`,
    changes: pairs.map(([before, after]) => changed('lamp', before, after)),
    lines: pairs.map(([before, after]) => ({
      subject: lampName(before),
      before: said(view, before),
      after: said(view, after),
    })),
  });
}

export function setLocked(rig: Rig, ids: readonly string[], locked: boolean): Result<Plan> {
  const lamps = lampsOf(rig, ids).map(({ lamp }) => lamp);
  if (lamps.length === 0) return refuse('nothing', 'No lamp is chosen.');
  return ok({
    sentence: `${locked ? 'Locked' : 'Unlocked'} ${countOf(lamps.length, 'lamp')} on the plan`,
    changes: lamps.map((lamp) => changed('lamp', lamp, { ...lamp, locked })),
    lines: lamps.map((lamp) => ({
      subject: lampName(lamp),
      before: lamp.locked ? 'locked' : 'free',
      after: locked ? 'locked' : 'free',
    })),
  });
}
