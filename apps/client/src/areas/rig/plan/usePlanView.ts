/** The plan as one looks at it: what stands where, the camera, and which lamp a finger means. */
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { wireKey } from '@taxiarch/core/base/address';
import { Light, spotOf, type Spot, type View as PlanSide } from '@taxiarch/core/rig/stage';
import { useShow } from '@/data/show';
import { fit, toScreen, type Camera } from './camera';
import type { Mark, Region } from './drawPlan';
import type { Moving } from './PlanPicture';

/** A finger this near to a lamp means it. */
const REACH = 22;

/** `place`: of this place only; empty for all. `only`: of these lamps only. */
export function usePlanView(side: PlanSide, place: string, only?: ReadonlySet<string>) {
  const { records, patch } = useShow();
  const holder = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  const camera = useRef<Camera>({ middle: [0, 0], scale: 20, turned: false });
  const drag = useRef<Spot>([0, 0]);
  const box = useRef<readonly [Spot, Spot] | undefined>(undefined);
  /** Something was moved that the plan does not know of by itself */
  const dirty = useRef(true);
  const moving = useMemo((): Moving => ({ camera, drag, box, dirty }), []);

  const lights = useMemo(
    () => new Map([...patch.all()].map((patched) => [patched.lamp.id, new Light(patched)])),
    [patch],
  );
  const keyOf = useMemo(
    () => new Map(records.universe.map(({ number, protocol, wire }) => [number, wireKey({ protocol, number: wire })])),
    [records.universe],
  );
  const marks = useMemo(
    (): Mark[] =>
      [...patch.all()]
        .filter(({ lamp }) => (place === '' || lamp.placeId === place) && (!only || only.has(lamp.id)))
        .map(({ lamp, type, run }) => {
          const light = lights.get(lamp.id)!;
          return {
            id: lamp.id,
            number: lamp.number,
            kind: type.kind,
            spot: spotOf(side, lamp),
            end: run && spotOf(side, run.to),
            locked: lamp.locked,
            light,
            keys: [...light.universes].flatMap((number) => keyOf.get(number) ?? []),
            inks: new Uint32Array(Math.max(2, light.cells)),
          };
        }),
    [patch, place, only, side, lights, keyOf],
  );
  const regions = useMemo(
    (): Region[] =>
      records.place.flatMap(({ id, name }) => {
        const here = records.lamp
          .filter((lamp) => lamp.placeId === id && (!only || only.has(lamp.id)))
          .map((lamp) => spotOf(side, lamp));
        if (here.length === 0 || (place !== '' && place !== id)) return [];
        const [as, bs] = [here.map(([a]) => a), here.map(([, b]) => b)];
        return [{ name, from: [Math.min(...as), Math.min(...bs)], to: [Math.max(...as), Math.max(...bs)] }];
      }),
    [records.place, records.lamp, place, only, side],
  );

  useEffect(() => {
    const element = holder.current;
    if (!element) return;
    const observer = new ResizeObserver(() => setSize({ width: element.clientWidth, height: element.clientHeight }));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);

  /** Seen from above in a wide pane, what is long lies across. */
  const turned = side === 'top' && size.width > size.height;

  /** Side and place in which a person moved the camera; in others, and until then, all lamps are kept in sight. */
  const moved = useRef('');
  const view = `${side} ${turned} ${place}`;
  /** For seeing all when it is asked for, and not whenever a lamp is moved */
  const standing = useRef(marks);
  useEffect(() => {
    standing.current = marks;
  }, [marks]);
  const seeAll = useCallback(() => {
    camera.current = fit(
      standing.current.map(({ spot }) => spot),
      size,
      turned,
    );
    dirty.current = true;
  }, [size, turned]);
  const any = marks.length > 0;
  useEffect(() => {
    if (any && size.width > 0 && moved.current !== view) seeAll();
  }, [view, any, size, seeAll]);

  const markAt = (at: Spot): Mark | undefined => {
    let best: Mark | undefined;
    let reach = REACH;
    for (const mark of marks) {
      const [x, y] = toScreen(camera.current, size, mark.spot);
      const distance = Math.hypot(x - at[0], y - at[1]);
      if (distance < reach) {
        best = mark;
        reach = distance;
      }
    }
    return best;
  };
  const look = (next: Camera) => {
    moved.current = view;
    camera.current = next;
    dirty.current = true;
  };

  /** All lamps are in sight again. */
  const reset = () => {
    moved.current = '';
    seeAll();
  };
  return { holder, size, camera, drag, box, dirty, moving, keyOf, marks, regions, turned, markAt, look, reset };
}
