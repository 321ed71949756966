import type { FeatureView, PlantingView } from '@border/contract'
import {
  featuresOn as asDrawnOn,
  isUnknown,
  seasonYearOf,
  standingGarden,
  type Earliness,
  type IsoDate,
  type Seen,
  type StandingGarden,
} from '@border/core'
import type { Db } from './database/connect.ts'
import type { KeptView } from './store/computed.ts'
import { listDecisions } from './store/decisions.ts'
import { listFeatures, type GardenAccess } from './store/gardens.ts'
import { listJobs } from './store/jobs.ts'
import { listSeen, seasonsLooked } from './store/observations.ts'
import { listLives, listPlantings } from './store/plantings.ts'
import { listTaxa } from './store/taxa.ts'
import { versionsOf } from './store/versions.ts'
import { findClimate, findEarliness, type FoundClimate } from './store/weather.ts'

/**
 * A garden as one request reads it: each part is read at most once, when it is first asked for, and handed on to whatever needs
 * it. What a write has changed is not seen by a reader opened before it.
 */
export interface GardenReader {
  db: Db
  garden: GardenAccess
  /** The garden's own day. */
  today: IsoDate
  versions: () => ReturnType<typeof versionsOf>
  /** Derived views that were looked for, and those made since that are still to be kept. */
  kept: { known: Map<string, unknown>; fresh: KeptView[]; atWork: number }
  /** Everything ever on the plan. */
  features: () => Promise<FeatureView[]>
  /** What stands and lives on a day, named or not. */
  growing: (on?: IsoDate) => Promise<PlantingView[]>
  /** Of that, what is known by name: nothing is judged of what is not. */
  plantings: (on?: IsoDate) => Promise<PlantingView[]>
  /** Every planting the garden ever had. */
  lives: () => ReturnType<typeof listLives>
  seen: () => ReturnType<typeof listSeen>
  /** The latest look at each planting, up to today. */
  lastSeen: () => Promise<Map<string, Seen>>
  /** How early or late each season that was looked at has been, and the present one. */
  earliness: () => Promise<Map<number, Earliness>>
  /** Every job, what is dropped among them. */
  jobs: () => ReturnType<typeof listJobs>
  decisions: () => ReturnType<typeof listDecisions>
  climate: () => Promise<FoundClimate>
  /** The taxa that the garden's practice knows. */
  taxa: () => ReturnType<typeof listTaxa>
  standing: (on?: IsoDate) => Promise<StandingGarden>
}

export function openGarden(db: Db, garden: GardenAccess, today: IsoDate): GardenReader {
  const once = <T>(read: () => Promise<T>): (() => Promise<T>) => {
    let found: Promise<T> | undefined
    return () => (found ??= read())
  }
  const plantingsOn = new Map<IsoDate, Promise<PlantingView[]>>()
  const reader: GardenReader = {
    db,
    garden,
    today,
    versions: once(() => versionsOf(db, garden.id)),
    kept: { known: new Map(), fresh: [], atWork: 0 },
    features: once(() => listFeatures(db, garden.id)),
    growing(on = today) {
      const known = plantingsOn.get(on) ?? listPlantings(db, garden.id, on)
      plantingsOn.set(on, known)
      return known
    },
    plantings: async (on) => (await reader.growing(on)).filter((p) => !isUnknown(p.taxon)),
    lives: once(() => listLives(db, garden.id)),
    seen: once(() => listSeen(db, garden.id)),
    lastSeen: once(async () => {
      const seen = (await reader.seen()).filter((s) => s.on <= today)
      return new Map(seen.map((s) => [s.plantingId, s]))
    }),
    earliness: once(async () => {
      const { lastDay } = await reader.climate()
      if (!garden.stationId || !lastDay) return new Map()
      const south = garden.latitude < 0
      const seasons = new Set([...(await seasonsLooked(db, garden.id, south)), seasonYearOf(today, south)])
      return findEarliness(
        db,
        garden,
        lastDay,
        [...seasons].sort((a, b) => a - b),
        today,
      )
    }),
    jobs: once(() => listJobs(db, garden.id)),
    decisions: once(() => listDecisions(db, garden.id)),
    climate: once(() => findClimate(db, garden)),
    taxa: once(() => listTaxa(db, garden.practiceId)),
    standing: async (on = today) =>
      standingGarden(garden, await reader.features(), await reader.plantings(on), on),
  }
  return reader
}

/** Features on the plan on a day. */
export const featuresOn = async (reader: GardenReader, on: IsoDate = reader.today): Promise<FeatureView[]> =>
  asDrawnOn(await reader.features(), on)

/** What stands on a day, in its climate. */
export const standingIn = async (reader: GardenReader, on: IsoDate) => ({
  ...(await reader.standing(on)),
  climate: (await reader.climate()).climate,
})
