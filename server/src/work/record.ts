import type { BloomView, RecordView, SeasonFigures, Stay } from '@border/contract'
import {
  countHistory,
  looksOfShow,
  unseenOf,
  isAlive,
  isUnknown,
  lightClass,
  meanHours,
  placesOn,
  seasonYearOf,
  weeksOfShow,
  type CountHistory,
  type LightClass,
  type Seen,
  regionsAt,
} from '@border/core'
import { rollup } from 'd3-array'
import { derive } from '../derived.ts'
import type { GardenReader } from '../reader.ts'
import { listTreatments, type PlantingLife } from '../store/plantings.ts'
import { findEarliness, usualYearOf } from '../store/weather.ts'
import { lightOfGarden } from './gardenLight.ts'
import type { BloomTask, RecordTask, StayModel } from './recordTasks.ts'
import type { ComputePool } from './compute.ts'

/**
 * A garden's record, judged: worked out when something it is made from has changed, and kept.
 */
export async function recordOfGarden(reader: GardenReader, pool: ComputePool): Promise<RecordView> {
  const { today } = reader
  return derive(reader, ['record', [today]], () => workOutRecord(reader, pool))
}

async function workOutRecord(reader: GardenReader, pool: ComputePool): Promise<RecordView> {
  const { garden, today } = reader
  const [found, features, lives, early, allSeen] = await Promise.all([
    reader.climate(),
    reader.features(),
    livesNamed(reader),
    reader.earliness(),
    reader.seen(),
  ])
  const usual = usualYearOf(found, garden)
  const { south } = usual
  const seen = staying(allSeen, lives)
  const seasons = [...new Set(seen.map((s) => seasonYearOf(s.on, south)))].sort((a, b) => a - b)
  const stays = lives.flatMap(staysOf)
  const light = await lightClasses(reader, pool, lives)
  const running = lives.filter((l) => isRunning(l.outcomes.at(-1)) && l.livingCount > 0)
  const task: RecordTask = {
    stays: stays.map(({ model }) => model),
    seen,
    counts: lives.flatMap((l) => countsOf(l, today)),
    years: seasons.flatMap((season) => {
      const e = early.get(season)
      return e ? [[season, e.lateDays] as const] : []
    }),
    usual,
    light,
    placeNames: Object.fromEntries(features.map((f) => [f.id, f.name])),
    onTrial: running.map((l) => l.stays.at(-1)!.id),
  }
  const result = await pool.run('record', task)
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
  const lifeOf = new Map(lives.flatMap((l) => l.stays.map((s) => [s.id, l])))
  const present = lives.filter((l) => l.livingCount > 0 && l.stays.at(-1)?.to == null)
  const last = await reader.lastSeen()
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
    unseen: present.flatMap((l) => {
      const unseen = unseenOf(l, last.get(l.id), today, year)
      return unseen ? [{ plantingId: l.id, unseen }] : []
    }),
    trials: result.trials.map(({ stayId, proposal }) => {
      const { id, outcomes } = lifeOf.get(stayId)!
      return {
        plantingId: id,
        since: outcomes.find((o) => o.outcome === 'trial')!.on,
        proposal,
        outcomes,
      }
    }),
  }
}

const isRunning = (o: PlantingLife['outcomes'][number] | undefined) =>
  o?.outcome === 'trial' || o?.outcome === 'go on'

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

/** A planting's head counts on its latest stay, for survival. */
function countsOf(life: PlantingLife, today: string): (CountHistory & { plantingId: string })[] {
  const stay = life.stays.at(-1)
  if (!stay) return []
  const { takenOutOn } = life
  // What was taken out alive is followed until then, and lost to sight.
  const counts = takenOutOn ? life.counts.filter((c) => c.on < takenOutOn) : life.counts
  const followedTo = takenOutOn ?? stay.to ?? counts.at(-1)?.on ?? today
  return [{ plantingId: stay.id, ...countHistory(life, counts, followedTo) }]
}

async function lightClasses(
  reader: GardenReader,
  pool: ComputePool,
  lives: readonly PlantingLife[],
): Promise<Record<string, LightClass>> {
  const { light } = await lightOfGarden(reader, pool, reader.today)
  const stayOf = new Map(lives.map((l) => [l.id, l.stays.at(-1)?.id]))
  return Object.fromEntries(
    light.plantings.flatMap((p) => {
      const stay = stayOf.get(p.plantingId)
      return stay ? [[stay, lightClass(p.now.total)]] : []
    }),
  )
}

/** Every planting of a kind that somebody has named: of the others there is nothing to compare. */
const livesNamed = async (reader: GardenReader) => (await reader.lives()).filter((l) => !isUnknown(l.taxon))

/** Bloom of a season, seen and expected, with the gaps of every place and what would fill them. */
export async function bloomOfGarden(
  reader: GardenReader,
  pool: ComputePool,
  season: number,
): Promise<BloomView> {
  const { db, garden, today } = reader
  return derive(reader, ['bloom', [season, today]], async () => {
    const found = await reader.climate()
    const usual = usualYearOf(found, garden)
    const window = weeksOfShow(found.climate, season, garden.latitude < 0)
    const lives = await livesNamed(reader)
    const record = await recordOfGarden(reader, pool)
    const { light } = await lightOfGarden(reader, pool, today)
    const early = await findEarliness(
      db,
      garden,
      found.lastDay,
      [...new Set([...record.seasons, season - 1, season])],
      today,
    )
    const allSeen = staying(await reader.seen(), lives)
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
      seen: looksOfShow(allSeen, window),
      // What was never treated needs no looks of other years.
      allSeen: treated.length > 0 ? allSeen : [],
      treatments: treated.flatMap((t) => {
        const stay = stayOn(staysByPlanting.get(t.plantingId), t.on)
        return stay ? [{ ...t, plantingId: stay.id }] : []
      }),
      years: [...early].map(([s, e]) => [s, e.lateDays]),
      usual,
      window: { ...window, season },
      places: placesOn(await reader.features(), window.to).flatMap((p) => {
        const hours = hoursOf.get(p.id)
        if (!hours) return []
        const { id: placeId, moisture, ph, wind, kind, areaM2 } = p
        return [{ placeId, hours, moisture, ph, wind, kind, areaM2 }]
      }),
      climate: found.climate ?? undefined,
      regions: regionsAt(garden),
      taxa: (await reader.taxa()).map((t) => t.taxon),
      proven: record.taxa.flatMap((t) =>
        t.expected ? [[t.taxon, t.expected.score] as [string, number]] : [],
      ),
    }
    const result = await pool.run('bloom', task)
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
