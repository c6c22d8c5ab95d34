/** Our own symbols for lamps on the plan, drawn about the origin with a radius of 1. */
import type { FixtureKind } from '@taxiarch/core/show/records';

function polygon(points: readonly (readonly [number, number])[]): Path2D {
  const path = new Path2D();
  points.forEach(([x, y], i) => (i === 0 ? path.moveTo(x, y) : path.lineTo(x, y)));
  path.closePath();
  return path;
}

function ring(...circles: readonly (readonly [x: number, y: number, radius: number])[]): Path2D {
  const path = new Path2D();
  for (const [x, y, radius] of circles) {
    path.moveTo(x + radius, y);
    path.arc(x, y, radius, 0, 2 * Math.PI);
  }
  return path;
}

const regular = (corners: number, turn: number, inner = 1): Path2D =>
  polygon(
    Array.from({ length: inner < 1 ? corners * 2 : corners }, (_, i) => {
      const angle = turn + (i * 2 * Math.PI) / (inner < 1 ? corners * 2 : corners);
      const radius = inner < 1 && i % 2 === 1 ? inner : 1;
      return [radius * Math.cos(angle), radius * Math.sin(angle)] as const;
    }),
  );

const box = (w: number, h: number): Path2D =>
  polygon([
    [-w, -h],
    [w, -h],
    [w, h],
    [-w, h],
  ]);

const MAKE: Readonly<Record<FixtureKind, () => Path2D>> = {
  dimmer: () => ring([0, 0, 0.8]),
  relay: () => box(0.7, 0.7),
  par: () => regular(6, 0),
  // A lantern on its hook: narrow above, wide below
  spot: () =>
    polygon([
      [0, -1.2],
      [0.9, 0.3],
      [0.4, 1],
      [-0.4, 1],
      [-0.9, 0.3],
    ]),
  wash: () => regular(10, 0),
  batten: () => box(1.5, 0.4),
  panel: () => box(0.9, 0.9),
  strobe: () => regular(4, Math.PI / 4, 0.45),
  hazer: () => ring([-0.5, 0.2, 0.5], [0.5, 0.2, 0.5], [0, -0.3, 0.6]),
  fan: () => regular(3, -Math.PI / 2, 0.35),
  bubbles: () => ring([-0.5, 0.4, 0.4], [0.4, 0.3, 0.55], [0, -0.6, 0.35]),
  wall: () => box(1.1, 0.7),
  media: () =>
    polygon([
      [-0.7, -0.9],
      [1, 0],
      [-0.7, 0.9],
    ]),
  strip: () => box(1.4, 0.2),
  other: () => regular(5, -Math.PI / 2),
};

const made = new Map<FixtureKind, Path2D>();

export function symbolOf(kind: FixtureKind): Path2D {
  let path = made.get(kind);
  if (!path) {
    path = MAKE[kind]();
    made.set(kind, path);
  }
  return path;
}
