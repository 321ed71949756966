import { lightField, sunHours, type LightPeriod, type LightPoint, type Ring, type Scene } from '@border/core'
import { expose, transfer } from 'comlink'

/** Hours over one bed: a value a kept cell, in the order of the grid's cells. */
export interface BedHours {
  cellM: number
  hours: Float32Array
}

const api = {
  bed(scene: Scene, ring: Ring, period: LightPeriod, cellM: number): BedHours {
    const hours = Float32Array.from(lightField(scene, ring, period, cellM).hours, (h) => h.total)
    return transfer({ cellM, hours }, [hours.buffer])
  },
  points(scene: Scene, points: LightPoint[], period: LightPeriod): number[] {
    return sunHours(scene, points, period).map((h) => h.total)
  },
}

export type LightWorker = typeof api
expose(api)
