import type { Point } from './ring.ts'

/** A map of the plane that keeps straight lines straight: `x' = a x + c y + e`, `y' = b x + d y + f`. */
export type Affine = readonly [a: number, b: number, c: number, d: number, e: number, f: number]

const DEG = Math.PI / 180

export const carried = ([a, b, c, d, e, f]: Affine, [x, y]: Point): Point => [
  a * x + c * y + e,
  b * x + d * y + f,
]

/** One map after another. */
export const followedBy = (first: Affine, next: Affine): Affine => {
  const [a, b] = [carried(next, [first[0], first[1]]), carried(next, [first[2], first[3]])]
  const [x, y] = carried(next, [first[4], first[5]])
  const [e, f] = [next[4], next[5]]
  return [a[0] - e, a[1] - f, b[0] - e, b[1] - f, x, y]
}

/** Everything by so many metres. */
export const shift = ([dx, dy]: Point): Affine => [1, 0, 0, 1, dx, dy]

/** Everything about a point, degrees clockwise as bearings are. */
export function turn([x, y]: Point, clockwiseDeg: number): Affine {
  const [cos, sin] = [Math.cos(clockwiseDeg * DEG), Math.sin(clockwiseDeg * DEG)]
  return [cos, -sin, sin, cos, x - cos * x - sin * y, y + sin * x - cos * y]
}

/** Everything to the other side of the line through two points that differ. */
export function mirror([ax, ay]: Point, [bx, by]: Point): Affine {
  const twice = 2 * Math.atan2(by - ay, bx - ax)
  const [cos, sin] = [Math.cos(twice), Math.sin(twice)]
  return [cos, sin, sin, -cos, ax - cos * ax - sin * ay, ay - sin * ax + cos * ay]
}
