import type { BloomView, FeatureRecord, RecordView, SeasonFigures, Stay } from '@border/contract'
import {
  absenceOf,
  addDays,
  daysBetween,
  isAlive,
  isPlace,
  lightClass,
  meanHours,
  placeMoisture,
  seasonStart,
  seasonYearOf,
  usually,
  type BloomingPlanting,
  type CountHistory,
  type LightClass,
  type RecordedPlanting,
  type Seen,
  type SunHours,
  type Taxon,
  type Treatment,
  type Year,
} from '@border/core'
import { rollup } from 'd3-array'
import type { Piscina } from 'piscina'
import type { Db } from '../database/connect.ts'
import { kept } from '../store/computed.ts'
import { listFeatures, practiceOfGarden, recordVersion, type GardenAccess } from '../store/gardens.ts'
import { lastObservations, listSeen } from '../store/observations.ts'
import {
  listLives,
  listTreatments,
  listTrialOutcomes,
  type OutcomeRow,
  type PlantingLife,
} from '../store/plantings.ts'
import { listTaxa } from '../store/taxa.ts'
import { findClimate, findEarliness, usualYearOf } from '../store/weather.ts'
import { COMPUTATION, lightOfGarden } from './assess.ts'
import type { BloomResult, RecordResult } from './recordTasks.ts'

type StayModel = RecordedPlanting & { until: string | null }

export interface RecordTask {
  stays: StayModel[]
  /** Looks, each by the stay it fell in. */
  seen: Seen[]
  counts: (CountHistory & { plantingId: string })[]
  /** Days late of each season. */
  years: [season: number, lateDays: number][]
  /** The usual year of the place. */
  usual: Year
  light: Record<string, LightClass>
  placeNames: Record<string, string>
  /** Stays that are trials. */
  onTrial: string[]
}

export interface BloomTask {
  plantings: BloomingPlanting[]
  seen: Seen[]
  years: [season: number, lateDays: number][]
  /** The usual year of the place. */
  usual: Year
  window: { from: string; to: string; season: number }
  places: { placeId: string; hours: SunHours; moisture: number | null }[]
  taxa: Taxon[]
  proven: [taxon: string, score: number][]
  /** Looks of every season, each by the stay it fell in, and what was done for bloom: compared over seasons. */
  allSeen: Seen[]
  treatments: Treatment[]
}

interface Asked {
  today: string
  signal?: AbortSignal | undefined
}

/**
 * A garden's record, judged. It is worked out when something it rests on has changed, and kept by the version of the
 * record, which the database counts up with every look, count, move and planting.
 */
export async function recordOfGarden(
  db: Db,
  pool: Piscina,
  garden: GardenAccess,
  { today, signal }: Asked,
): Promise<RecordView> {
  const version = await recordVersion(db, garden.id)
  const features = await listFeatures(db, garden.id)
  const outcomes = await listTrialOutcomes(db, garden.id)
  return kept(db, ['record', COMPUTATION, garden.id, version, features, outcomes, today], () =>
    workOutRecord(db, pool, garden, features, outcomes, { today, signal }),
  )
}

async function workOutRecord(
  db: Db,
  pool: Piscina,
  garden: GardenAccess,
  features: readonly FeatureRecord[],
  outcomes: readonly OutcomeRow[],
  { today, signal }: Asked,
): Promise<RecordView> {
  const usual = await usualYearOf(db, garden)
  const { south } = usual
  const lives = await listLives(db, garden.id)
  const seen = staying(await listSeen(db, garden.id), lives)
  const seasons = [...new Set(seen.map((s) => seasonYearOf(s.on, south)))].sort((a, b) => a - b)
  const early = await findEarliness(db, garden, seasons, today)
  const stays = lives.flatMap(staysOf)
  const light = await lightClasses(db, pool, garden, lives, { today, signal })
  const latestOutcome = new Map(outcomes.map((o) => [o.plantingId, o]))
  const running = lives.filter((l) => isRunning(latestOutcome.get(l.id)) && l.livingCount > 0)
  const task: RecordTask = {
    stays: stays.map(({ model }) => model),
    seen,
    counts: lives.flatMap((l) => countsOf(l, today)),
    years: [...early].map(([season, e]) => [season, e.lateDays]),
    usual,
    light,
    placeNames: Object.fromEntries(features.map((f) => [f.id, f.name])),
    onTrial: running.map((l) => l.stays.at(-1)!.id),
  }
  const result: RecordResult = await pool.run(task, { name: 'record', signal })
  const scoresOf = rollup(
    result.scores,
    (of) =>
      of.map((s): SeasonFigures => [
        s.season,
        s.score,
        s.adjusted,
        s.walks,
        s.resting ? 'resting' : s.settling ? 'settling' : '',
      ]),
    (s) => s.plantingId,
  )
  const plantingOf = new Map(stays.map((s) => [s.stay.id, s.stay.plantingId]))
  const present = lives.filter((l) => l.livingCount > 0 && l.stays.at(-1)?.to == null)
  const last = await lastObservations(
    db,
    present.map((l) => l.id),
    today,
  )
  const year = { ...usual, lateDays: early.get(seasonYearOf(today, south))?.lateDays ?? 0 }
  return {
    on: today,
    seasons,
    stays: stays.map(({ stay }) => ({ ...stay, scores: scoresOf.get(stay.id) ?? [] })),
    model: result.model,
    declines: result.declines,
    survival: result.survival,
    taxa: result.taxa,
    best: result.best,
    absences: present.flatMap((l) => {
      const absence = absenceOf(l, last.get(l.id), today, year)
      return absence ? [{ plantingId: l.id, absence }] : []
    }),
    trials: result.trials.map(({ stayId, proposal }) => {
      const plantingId = plantingOf.get(stayId)!
      const own = outcomes.filter((o) => o.plantingId === plantingId)
      return {
        plantingId,
        since: own.find((o) => o.outcome === 'trial')!.on,
        proposal,
        outcomes: own.map(({ plantingId: _, ...o }) => o),
      }
    }),
  }
}

const isRunning = (o: OutcomeRow | undefined) => o?.outcome === 'trial' || o?.outcome === 'go on'

function staysOf(life: PlantingLife): { stay: Stay; model: StayModel }[] {
  return life.stays.map((s) => ({
    stay: {
      id: s.id,
      plantingId: life.id,
      tag: life.tag,
      botanical: life.taxon.botanical,
      placeId: s.placeId,
      from: s.from,
      to: s.to,
      plantedCount: life.plantedCount,
      livingCount: life.livingCount,
    },
    model: {
      id: s.id,
      taxon: life.taxon,
      placeId: s.placeId,
      inPlaceSince: s.from,
      plantedCount: life.plantedCount,
      until: s.to,
    },
  }))
}

/** The stay a day falls in. */
const stayOn = (stays: PlantingLife['stays'] | undefined, on: string) => stays?.find((s) => isAlive(s, on))

/** Each look under the stay it fell in; looks from before or after all stays are left out. */
function staying(seen: readonly Seen[], lives: readonly PlantingLife[]): Seen[] {
  const staysOf = new Map(lives.map((l) => [l.id, l.stays]))
  return seen.flatMap((s) => {
    const stay = stayOn(staysOf.get(s.plantingId), s.on)
    return stay ? [{ ...s, plantingId: stay.id }] : []
  })
}

const DAYS_PER_YEAR = 365.25
const yearsBetween = (from: string, to: string) => Math.max(0, daysBetween(from, to)) / DAYS_PER_YEAR

/** A planting's head counts on its latest stay, for survival. */
function countsOf(life: PlantingLife, today: string): (CountHistory & { plantingId: string })[] {
  const stay = life.stays.at(-1)
  if (!stay) return []
  const at = (on: string) => Math.round(yearsBetween(life.plantedOn, on) * 100) / 100
  return [
    {
      plantingId: stay.id,
      plantedCount: life.plantedCount,
      counts: life.counts.map((c) => ({ years: at(c.on), living: c.living })),
      followedYears: at(stay.to ?? life.counts.at(-1)?.on ?? today),
    },
  ]
}

async function lightClasses(
  db: Db,
  pool: Piscina,
  garden: GardenAccess,
  lives: readonly PlantingLife[],
  asked: Asked,
): Promise<Record<string, LightClass>> {
  const { light } = await lightOfGarden(db, pool, garden, asked.today, asked)
  const stayOf = new Map(lives.map((l) => [l.id, l.stays.at(-1)?.id]))
  return Object.fromEntries(
    light.plantings.flatMap((p) => {
      const stay = stayOf.get(p.plantingId)
      return stay ? [[stay, lightClass(p.now.total)]] : []
    }),
  )
}

/** While the usual day is warmer than this a place is expected to show something: a working figure. */
const SEASON_C = 8

/** Bloom of a season, seen and expected, with the gaps of every place and what would fill them. */
export async function bloomOfGarden(
  db: Db,
  pool: Piscina,
  garden: GardenAccess,
  season: number,
  { today, signal }: Asked,
): Promise<BloomView> {
  const version = await recordVersion(db, garden.id)
  const features = await listFeatures(db, garden.id)
  return kept(db, ['bloom', COMPUTATION, garden.id, version, features, season, today], async () => {
    const usual = await usualYearOf(db, garden)
    const window = await seasonWindow(db, garden, season)
    const lives = await listLives(db, garden.id)
    const record = await recordOfGarden(db, pool, garden, { today, signal })
    const { light } = await lightOfGarden(db, pool, garden, today, { today, signal })
    const early = await findEarliness(
      db,
      garden,
      [...new Set([...record.seasons, season - 1, season])],
      today,
    )
    const inSeason = (on: string) => on >= addDays(window.from, -30) && on <= window.to
    const allSeen = staying(await listSeen(db, garden.id), lives)
    const treated = await listTreatments(db, garden.id)
    const staysByPlanting = new Map(lives.map((l) => [l.id, l.stays]))
    const hoursOf = new Map(
      light.field.places.map(({ place, points }) => [place.id, meanHours(points.map((p) => p.hours))]),
    )
    const task: BloomTask = {
      plantings: lives.flatMap((l) =>
        staysOf(l)
          .filter(
            ({ stay }) =>
              l.livingCount > 0 && stay.from <= window.to && (stay.to === null || stay.to > window.from),
          )
          .map(({ model }) => ({ ...model, livingCount: l.livingCount })),
      ),
      seen: allSeen.filter((s) => inSeason(s.on)),
      // What was never treated needs no looks of other years.
      allSeen: treated.length > 0 ? allSeen : [],
      treatments: treated.flatMap((t) => {
        const stay = stayOn(staysByPlanting.get(t.plantingId), t.on)
        return stay ? [{ ...t, plantingId: stay.id }] : []
      }),
      years: [...early].map(([s, e]) => [s, e.lateDays]),
      usual,
      window: { ...window, season },
      places: features
        .filter((f) => isPlace(f) && isAlive(f, window.to))
        .flatMap((f) => {
          const hours = hoursOf.get(f.id)
          return hours ? [{ placeId: f.id, hours, moisture: placeMoisture(f) }] : []
        }),
      taxa: (await listTaxa(db, await practiceOfGarden(db, garden.id))).map((t) => t.taxon),
      proven: record.taxa.flatMap((t) =>
        t.expected ? [[t.taxon, t.expected.score] as [string, number]] : [],
      ),
    }
    const result: BloomResult = await pool.run(task, { name: 'bloom', signal })
    const plantingOf = new Map(lives.flatMap((l) => l.stays.map((s) => [s.id, l.id])))
    return {
      season,
      window,
      blooms: result.blooms.map((b) => ({ ...b, plantingId: plantingOf.get(b.plantingId)! })),
      effects: result.effects,
      places: result.places,
    }
  })
}

/** The weeks in which a place should show something. */
async function seasonWindow(
  db: Db,
  garden: GardenAccess,
  season: number,
): Promise<{ from: string; to: string }> {
  const { climate } = await findClimate(db, garden)
  const start = seasonStart(season, garden.latitude < 0)
  const days = Array.from({ length: 365 }, (_, i) => addDays(start, i))
  const warm = climate
    ? days.filter((d) => (usually(climate.minC, d) + usually(climate.maxC, d)) / 2 >= SEASON_C)
    : days.slice(60, 304)
  return { from: warm[0] ?? days[60]!, to: warm.at(-1) ?? days[304]! }
}
