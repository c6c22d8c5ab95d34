/** Places and directions as MVR writes them (DIN SPEC 15801, Matrix): three axes and a point, millimetres. */

/** Three axes and a point, each of three numbers. */
export type Matrix = readonly (readonly [number, number, number])[];
export const IDENTITY: Matrix = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
  [0, 0, 0],
];

/** The matrix that a text holds; undefined if it holds none, or one with numbers that are none. */
export function matrixIn(text: string): Matrix | undefined {
  const rows = [...text.matchAll(/\{([^}]*)\}/g)].map(([, inside]) => inside!.split(',').map(Number));
  const odd = rows.length !== 4 || rows.some((row) => row.length !== 3 || row.some((one) => !Number.isFinite(one)));
  return odd ? undefined : (rows as unknown as Matrix);
}

export const readMatrix = (text: string): Matrix => matrixIn(text) ?? IDENTITY;

export const writeMatrix = (matrix: Matrix): string => matrix.map((row) => `{${row.join(',')}}`).join('');

/** A direction, or with `point` a place, of a child carried into its parent. */
function carry(parent: Matrix, [a, b, c]: readonly [number, number, number], point: boolean): [number, number, number] {
  const at = (axis: number) =>
    a * parent[0]![axis]! + b * parent[1]![axis]! + c * parent[2]![axis]! + (point ? parent[3]![axis]! : 0);
  return [at(0), at(1), at(2)];
}

export const within = (parent: Matrix, child: Matrix): Matrix => child.map((row, i) => carry(parent, row, i === 3));

/** Where a place of the world lies within `parent`; the world's own if the parent cannot be turned round. */
export function placeWithin(parent: Matrix, world: readonly [number, number, number]): [number, number, number] {
  const [u, v, w, p] = parent as unknown as readonly [number[], number[], number[], number[]];
  const cross = (a: number[], b: number[]) => [
    a[1]! * b[2]! - a[2]! * b[1]!,
    a[2]! * b[0]! - a[0]! * b[2]!,
    a[0]! * b[1]! - a[1]! * b[0]!,
  ];
  const dot = (a: number[], b: number[]) => a[0]! * b[0]! + a[1]! * b[1]! + a[2]! * b[2]!;
  const determinant = dot(u, cross(v, w));
  if (Math.abs(determinant) < 1e-9) return [...world];
  const d = world.map((number, i) => number - p[i]!);
  return [dot(d, cross(v, w)) / determinant, dot(d, cross(w, u)) / determinant, dot(d, cross(u, v)) / determinant];
}
