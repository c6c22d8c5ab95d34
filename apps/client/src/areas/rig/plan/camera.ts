/** What part of the plan is seen: metres to pixels and back. */
import type { Spot } from '@taxiarch/core/rig/stage';

export interface Camera {
  /** The metre that stands in the middle */
  readonly middle: Spot;
  /** Pixels a metre */
  readonly scale: number;
  /** The plan's second axis runs to the right and its first one down, instead of up and to the right. */
  readonly turned: boolean;
}

export interface Size {
  readonly width: number;
  readonly height: number;
}

const LEAST_SCALE = 0.5;
const MOST_SCALE = 400;

export const toScreen = ({ middle, scale, turned }: Camera, { width, height }: Size, [a, b]: Spot): Spot => {
  const [right, up] = turned ? [b - middle[1], middle[0] - a] : [a - middle[0], b - middle[1]];
  return [width / 2 + right * scale, height / 2 - up * scale];
};

/** Metres along both axes of the plan for so many pixels to the right and down. */
export const metresFor = ({ scale, turned }: Camera, [dx, dy]: Spot): Spot =>
  turned ? [dy / scale, dx / scale] : [dx / scale, -dy / scale];

export function toPlan(camera: Camera, { width, height }: Size, [x, y]: Spot): Spot {
  const [a, b] = metresFor(camera, [x - width / 2, y - height / 2]);
  return [camera.middle[0] + a, camera.middle[1] + b];
}

/** Larger or smaller about a place of the screen, which stays where it is. */
export function zoomAt(camera: Camera, size: Size, at: Spot, factor: number): Camera {
  const scale = Math.min(MOST_SCALE, Math.max(LEAST_SCALE, camera.scale * factor));
  const fixed = toPlan(camera, size, at);
  const moved = toPlan({ ...camera, scale }, size, at);
  return { ...camera, scale, middle: [camera.middle[0] + fixed[0] - moved[0], camera.middle[1] + fixed[1] - moved[1]] };
}

export function panBy(camera: Camera, by: Spot): Camera {
  const [a, b] = metresFor(camera, by);
  return { ...camera, middle: [camera.middle[0] - a, camera.middle[1] - b] };
}

/** All of some spots in sight, with room around. */
export function fit(spots: readonly Spot[], { width, height }: Size, turned = false): Camera {
  if (spots.length === 0 || width === 0) return { middle: [0, 0], scale: 20, turned };
  const [as, bs] = [spots.map(([a]) => a), spots.map(([, b]) => b)];
  const [left, right] = [Math.min(...as), Math.max(...as)];
  const [low, high] = [Math.min(...bs), Math.max(...bs)];
  const [across, along] = turned ? [high - low, right - left] : [right - left, high - low];
  const scale = Math.min((width - 60) / Math.max(2, across), (height - 60) / Math.max(2, along));
  return {
    middle: [(left + right) / 2, (low + high) / 2],
    scale: Math.min(MOST_SCALE, Math.max(LEAST_SCALE, scale)),
    turned,
  };
}
