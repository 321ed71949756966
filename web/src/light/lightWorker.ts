import {
  cellCentre,
  gridOver,
  hoursAt,
  lightDays,
  type LightPeriod,
  type LightPoint,
  type Ring,
  type Scene,
} from '@border/core'
import { expose, transfer } from 'comlink'

/** Hours over one bed: a value a kept cell, in the order of the grid's cells. */
export interface BedHours {
  cellM: number
  hours: Float32Array
}

const api = {
  bed(scene: Scene, ring: Ring, period: LightPeriod, cellM: number): BedHours {
    const grid = gridOver(ring, cellM)
    const days = lightDays(scene, period)
    const hours = Float32Array.from(grid.cells, (cell) => hoursAt(days, cellCentre(grid, cell)).total)
    return transfer({ cellM, hours }, [hours.buffer])
  },
  points(scene: Scene, points: LightPoint[], period: LightPeriod): number[] {
    const days = lightDays(scene, period)
    return points.map((p) => hoursAt(days, p).total)
  },
}

export type LightWorker = typeof api
expose(api)
