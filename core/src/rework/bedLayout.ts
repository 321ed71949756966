import { groundM2, type Taxon } from '../plants/index.ts'
import type { LayoutProblem } from './layout.ts'
import type { StationedPlace } from './stations.ts'
import { suitScore } from './suits.ts'

/**
 * A bed to be laid out, from its stations.
 *
 * @param cellM how far apart the stations are
 * @param drifts in the order in which they are numbered, from 1
 */
export const bedLayout = (
  { stations }: StationedPlace,
  cellM: number,
  drifts: readonly { taxon: Taxon; count: number; isMatrix?: boolean | undefined }[],
  viewedFrom: readonly number[],
): LayoutProblem => ({
  cells: stations.map(({ x, y }) => ({ x, y })),
  cellM,
  viewedFrom,
  drifts: drifts.map(({ taxon, count, isMatrix }, i) => ({
    id: `${i + 1}`,
    taxon,
    count,
    isMatrix,
    areaM2: groundM2(count, taxon.spacingM),
    fit: Float32Array.from(stations, (s) => suitScore(taxon, s)),
  })),
})
