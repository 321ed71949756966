import { seededRandom, sceneOf, type LightLog, type LuxSample } from '@border/core'
import { simulateLog } from '@border/core/simulated'
import type { Db } from '../database/connect.ts'
import { listFeatures, standInChanges, type GardenAccess } from '../store/gardens.ts'

/** A light logger that has stood at a point: what a maker's service would be asked for. */
export interface LoggerService {
  read(
    db: Db,
    garden: GardenAccess,
    stood: { at: Pick<LightLog, 'x' | 'y' | 'z' | 'ground'>; fromMs: number; days: number },
  ): Promise<LuxSample[]>
}

const EVERY_MIN = 10

/**
 * The stand-in: it reads the scene that truly stands (the plan, with changes nobody has recorded where the demo keeps
 * some), with weather and noise. Where and when it stood is its seed.
 */
export const simulatedLogger: LoggerService = {
  async read(db, garden, { at, fromMs, days }) {
    const hidden = await standInChanges(db, garden.id)
    const truly = (await listFeatures(db, garden.id)).map((f) => {
      const events = (f.properties.events as object[] | undefined) ?? []
      const more = hidden.filter((h) => h.feature === f.name).map((h) => h.event)
      return { ...f, properties: { ...f.properties, events: [...events, ...more] } }
    })
    const seed = Math.round(at.x * 131 + at.y * 7919 + fromMs / 60_000)
    return simulateLog(sceneOf(garden, truly), at, { fromMs, days, everyMin: EVERY_MIN }, seededRandom(seed))
  },
}
