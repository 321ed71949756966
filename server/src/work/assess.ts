import {
  driftRadiusM,
  groundRadiusM,
  groundTakenBy,
  isUnknown,
  plantPrices,
  suspectedMoisture,
  type Assessment,
  type FreeSpots,
  type GardenLight,
  type JudgedGarden,
  type Openings,
  type PlantPrices,
  type TakenGround,
} from '@border/core'
import { derive } from '../derived.ts'
import { standingIn, type GardenReader } from '../reader.ts'
import { listOffers } from '../store/offers.ts'
import { conditionsOfGarden } from './conditions.ts'
import type { ComputePool } from './compute.ts'
import { diagnoseGarden, yearOfGarden } from './diagnosis.ts'
import { comparedDay, lightOfGarden } from './gardenLight.ts'

/** Every planting judged, the light of two days compared. */
export interface AssessedGarden {
  then: string
  on: string
  assessments: Assessment[]
}

/**
 * Every planting of a garden judged on a day, by its light and all that is known of it.
 *
 * @param chosen the day that is compared with; the one most worth it unless somebody chose it
 */
export async function assessGardenOn(
  reader: GardenReader,
  pool: ComputePool,
  on: string,
  chosen?: string,
): Promise<AssessedGarden> {
  const { today } = reader
  return derive(
    reader,
    ['assessment', [on, chosen ?? null, today]],
    async () => {
      // Where there is room, what would let light in and how the plantings do are worked out beside each other.
      const [{ then, light }, spots, openings, garden] = await Promise.all([
        lightOfGarden(reader, pool, on, chosen),
        spotsOfGarden(reader, pool, on, chosen),
        openingsOfGarden(reader, pool, on, chosen),
        judgedGarden(reader, pool, on),
      ])
      const { plantings } = light
      const assessments = await pool.run('judge', { garden, light: { plantings }, spots, openings, on })
      return { then, on, assessments }
    },
    [
      ['light', [on, comparedDay(reader, on, chosen)]],
      ['spots', [on, comparedDay(reader, on, chosen), []]],
      ['openings', [on, comparedDay(reader, on, chosen)]],
      // What is known of the plantings rests on the light of today.
      ['light', [today, null]],
      ['diagnosis', [today]],
      ['record', [today]],
    ],
  )
}

/**
 * The free spots of a garden for whichever of its plantings is worth another place. Of the record they rest on what it makes suspect of
 * the ground alone: a look that changes nothing of that leaves them as they are.
 */
async function spotsOfGarden(
  reader: GardenReader,
  pool: ComputePool,
  on: string,
  then: string | undefined,
): Promise<FreeSpots> {
  const { suspected } = await diagnoseGarden(reader, pool)
  const moistures = [...suspectedMoisture(suspected)].toSorted()
  return derive(reader, ['spots', [on, comparedDay(reader, on, then), moistures]], async () => {
    const [{ light }, { plantings }, { climate }, reserved] = await Promise.all([
      lightOfGarden(reader, pool, on, then),
      reader.standing(on),
      reader.climate(),
      groundPromised(reader, on),
    ])
    return pool.run('spots', { garden: { plantings, reserved, climate, suspected }, light, on })
  })
}

/** What would let light in to the plantings of a garden that lack it. */
const openingsOfGarden = (
  reader: GardenReader,
  pool: ComputePool,
  on: string,
  then: string | undefined,
): Promise<Openings> =>
  derive(reader, ['openings', [on, comparedDay(reader, on, then)]], async () => {
    const [{ light }, garden] = await Promise.all([
      lightOfGarden(reader, pool, on, then),
      standingIn(reader, on),
    ])
    return pool.run('openings', { garden, light: { plantings: light.plantings }, on })
  })

/** A garden judged as it is supposed to stand, by its light. */
export async function judge(
  pool: ComputePool,
  garden: JudgedGarden,
  light: GardenLight,
  on: string,
): Promise<Assessment[]> {
  const { plantings, reserved, climate, suspected } = garden
  const lit = { plantings: light.plantings }
  const [spots, openings] = await Promise.all([
    pool.run('spots', { garden: { plantings, reserved, climate, suspected }, light, on }),
    pool.run('openings', { garden, light: lit, on }),
  ])
  return pool.run('judge', { garden, light: lit, spots, openings, on })
}

/** A garden with the ground that is promised and all that is known of its plantings. */
export async function judgedGarden(
  reader: GardenReader,
  pool: ComputePool,
  on: string,
): Promise<JudgedGarden> {
  const standing = await reader.standing(on)
  return {
    ...standing,
    reserved: await groundPromised(reader, on),
    conditions: await conditionsOfGarden(reader, pool),
    year: (await yearOfGarden(reader)).year,
    climate: (await reader.climate()).climate,
    suspected: (await diagnoseGarden(reader, pool)).suspected,
    prices: await pricesKnown(reader),
  }
}

/** What the practice’s suppliers ask for the kinds that it knows. */
export async function pricesKnown(reader: GardenReader): Promise<PlantPrices | undefined> {
  const [offers, taxa] = await Promise.all([listOffers(reader.db, reader.garden.practiceId), reader.taxa()])
  return plantPrices(offers, new Set(taxa.map((t) => t.taxon.botanical)))
}

/** Ground promised to moves that are decided and not yet done and to what a scheme will plant, and what plants have that nobody has named. */
export async function groundPromised(reader: GardenReader, on: string): Promise<TakenGround[]> {
  const plantings = new Map((await reader.plantings(on)).map((p) => [p.id, p]))
  const unnamed = (await reader.growing(on)).filter((p) => isUnknown(p.taxon))
  const taxa = await reader.taxa()
  const promised = (await reader.jobs()).flatMap((j): TakenGround[] => {
    const planting = j.plantingId && plantings.get(j.plantingId)
    if (j.kind !== 'move' || j.state !== 'open' || !j.target || !planting) return []
    const { placeId, x, y } = j.target
    // As a round: an outline is of the place it was drawn in.
    return [groundTakenBy({ ...planting, placeId, x, y, outline: null, radiusM: groundRadiusM(planting) })]
  })
  const toPlant = (await reader.jobs()).flatMap((j): TakenGround[] => {
    if (!j.sets || j.state !== 'open' || !j.placeId) return []
    const { driftId, outline, x, y, count, botanical } = j.sets
    const spacingM = taxa.find((t) => t.taxon.botanical === botanical)?.taxon.spacingM ?? 0
    const ground = outline ? { ring: outline } : { x, y, radiusM: driftRadiusM(count, spacingM) }
    return [{ plantingId: driftId, placeId: j.placeId, ground }]
  })
  return [...promised, ...toPlant, ...unnamed.map(groundTakenBy)]
}
