import type { Feature } from '../../garden/index.ts'
import type { Point } from '../../geometry/index.ts'

/** A wall, fence, hedge or house of a height along a line. */
export const upright = (kind: Feature['kind'], heightM: number, ...coordinates: Point[]): Feature => ({
  id: `${kind} ${heightM}`,
  kind,
  name: `A ${kind}`,
  from: null,
  to: null,
  geometry: { type: 'LineString', coordinates: coordinates.map(([x, y]): [number, number] => [x, y]) },
  properties: { heightM },
})
