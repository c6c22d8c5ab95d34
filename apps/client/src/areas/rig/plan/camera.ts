/** What part of the plan is seen: metres to pixels and back. */
import type { Spot } from '@taxiarch/core/stage';

export interface Camera {
  /** The metre that stands in the middle */
  readonly middle: Spot;
  /** Pixels a metre */
  readonly scale: number;
}

export interface Size {
  readonly width: number;
  readonly height: number;
}

const LEAST_SCALE = 0.5;
const MOST_SCALE = 400;

/** The second axis of the plan runs up the screen. */
export const toScreen = ({ middle, scale }: Camera, { width, height }: Size, [a, b]: Spot): Spot => [
  width / 2 + (a - middle[0]) * scale,
  height / 2 - (b - middle[1]) * scale,
];

export const toPlan = ({ middle, scale }: Camera, { width, height }: Size, [x, y]: Spot): Spot => [
  middle[0] + (x - width / 2) / scale,
  middle[1] - (y - height / 2) / scale,
];

/** Larger or smaller about a place of the screen, which stays where it is. */
export function zoomAt(camera: Camera, size: Size, at: Spot, factor: number): Camera {
  const scale = Math.min(MOST_SCALE, Math.max(LEAST_SCALE, camera.scale * factor));
  const fixed = toPlan(camera, size, at);
  const moved = toPlan({ ...camera, scale }, size, at);
  return { scale, middle: [camera.middle[0] + fixed[0] - moved[0], camera.middle[1] + fixed[1] - moved[1]] };
}

export const panBy = (camera: Camera, [dx, dy]: Spot): Camera => ({
  ...camera,
  middle: [camera.middle[0] - dx / camera.scale, camera.middle[1] + dy / camera.scale],
});

/** All of some spots in sight, with room around. */
export function fit(spots: readonly Spot[], { width, height }: Size): Camera {
  if (spots.length === 0 || width === 0) return { middle: [0, 0], scale: 20 };
  const [as, bs] = [spots.map(([a]) => a), spots.map(([, b]) => b)];
  const [left, right] = [Math.min(...as), Math.max(...as)];
  const [low, high] = [Math.min(...bs), Math.max(...bs)];
  const scale = Math.min((width - 60) / Math.max(2, right - left), (height - 60) / Math.max(2, high - low));
  return { middle: [(left + right) / 2, (low + high) / 2], scale: Math.min(MOST_SCALE, Math.max(LEAST_SCALE, scale)) };
}
