/** Fingers, pen or mouse on the plan: one drags or taps, two move and zoom, the wheel zooms. */
import { useEffect, useRef, type RefObject } from 'react';
import type { Spot } from '@taxiarch/core/rig/stage';

export interface Gestures {
  onTap(at: Spot): void;
  onDragStart(at: Spot): void;
  onDrag(from: Spot, to: Spot): void;
  onDragEnd(from: Spot, to: Spot): void;
  onPan(by: Spot): void;
  onZoom(at: Spot, factor: number): void;
}

/** A finger that moved less than this has tapped. */
const TAP = 6;

export function usePointers(target: RefObject<HTMLElement | null>, gestures: Gestures): void {
  const latest = useRef(gestures);
  useEffect(() => {
    latest.current = gestures;
  });
  useEffect(() => {
    const element = target.current;
    if (!element) return;
    const down = new Map<number, Spot>();
    let start: Spot | undefined;
    let dragging = false;
    let pinched = false;
    const at = (event: PointerEvent | WheelEvent): Spot => {
      const { left, top } = element.getBoundingClientRect();
      return [event.clientX - left, event.clientY - top];
    };
    const far = (a: Spot, b: Spot) => Math.hypot(a[0] - b[0], a[1] - b[1]);
    const onDown = (event: PointerEvent) => {
      element.setPointerCapture(event.pointerId);
      down.set(event.pointerId, at(event));
      if (down.size === 1) {
        start = at(event);
        dragging = false;
        pinched = false;
      } else {
        if (dragging && start) latest.current.onDragEnd(start, start);
        dragging = false;
        pinched = true;
      }
    };
    const onMove = (event: PointerEvent) => {
      const before = down.get(event.pointerId);
      if (!before) return;
      const now = at(event);
      const other = [...down.entries()].find(([id]) => id !== event.pointerId)?.[1];
      if (other) {
        const middle = (a: Spot): Spot => [(a[0] + other[0]) / 2, (a[1] + other[1]) / 2];
        const [was, is] = [middle(before), middle(now)];
        latest.current.onPan([is[0] - was[0], is[1] - was[1]]);
        const reach = far(before, other);
        if (reach > 10) latest.current.onZoom(is, far(now, other) / reach);
      } else if (start && !pinched) {
        if (!dragging && far(start, now) > TAP) {
          dragging = true;
          latest.current.onDragStart(start);
        }
        if (dragging) latest.current.onDrag(start, now);
      }
      down.set(event.pointerId, now);
    };
    const onUp = (event: PointerEvent) => {
      const now = at(event);
      if (down.delete(event.pointerId) && down.size === 0 && start && !pinched) {
        if (dragging) latest.current.onDragEnd(start, now);
        else latest.current.onTap(now);
      }
      if (down.size === 0) start = undefined;
    };
    const onWheel = (event: WheelEvent) => {
      event.preventDefault();
      latest.current.onZoom(at(event), Math.exp(-event.deltaY / 400));
    };
    element.addEventListener('pointerdown', onDown);
    element.addEventListener('pointermove', onMove);
    element.addEventListener('pointerup', onUp);
    element.addEventListener('pointercancel', onUp);
    element.addEventListener('wheel', onWheel, { passive: false });
    return () => {
      element.removeEventListener('pointerdown', onDown);
      element.removeEventListener('pointermove', onMove);
      element.removeEventListener('pointerup', onUp);
      element.removeEventListener('pointercancel', onUp);
      element.removeEventListener('wheel', onWheel);
    };
  }, [target]);
}
