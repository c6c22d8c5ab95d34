/** Fingers, pen or mouse on the plan: one drags or taps, two move and zoom, the wheel zooms. */
import { useGesture } from '@use-gesture/react';
import { useRef, type RefObject } from 'react';
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
  const drawn = useRef(false);
  const here = ([x, y]: readonly [number, number]): Spot => {
    const { left, top } = target.current!.getBoundingClientRect();
    return [x - left, y - top];
  };
  useGesture(
    {
      onDrag: ({ xy, initial, tap, first, last, pinching, cancel }) => {
        if (pinching) {
          if (drawn.current) gestures.onDragEnd(here(initial), here(initial));
          drawn.current = false;
          return cancel();
        }
        if (tap) return gestures.onTap(here(xy));
        if (first) gestures.onDragStart(here(initial));
        drawn.current = !last;
        if (last) gestures.onDragEnd(here(initial), here(xy));
        else gestures.onDrag(here(initial), here(xy));
      },
      onPinch: ({ origin, da: [reach], first, memo }) => {
        const before = memo as { origin: Spot; reach: number } | undefined;
        const at = here(origin);
        if (!first && before) {
          gestures.onPan([at[0] - before.origin[0], at[1] - before.origin[1]]);
          if (before.reach > 10) gestures.onZoom(at, reach / before.reach);
        }
        return { origin: at, reach };
      },
      onWheel: ({ event, last }) => {
        // The end of a turn is told with its last event once more.
        if (last) return;
        event.preventDefault();
        gestures.onZoom(here([event.clientX, event.clientY]), Math.exp(-event.deltaY / 400));
      },
    },
    {
      target,
      eventOptions: { passive: false },
      drag: { filterTaps: true, tapsThreshold: TAP, threshold: TAP },
      // The wheel zooms by itself, with or without a key.
      pinch: { pinchOnWheel: false },
    },
  );
}
