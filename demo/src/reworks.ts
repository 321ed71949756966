import type { SaidScheme } from '@border/contract'
import {
  arrange,
  CELL_M,
  climateOf,
  finished,
  groundWritten,
  library,
  placesOn,
  sitedGarden,
  unarranged,
  usualWorth,
  withRestFilled,
  type BedGround,
  type DailyWeather,
  type Plan,
} from '@border/core'
import { insertRework, insertScheme, listPlantings, type Db } from '@border/server'
import { randomUUID } from 'node:crypto'
import type { SketchRework } from './sketch.ts'
import { DEMO_DATE } from './town.ts'

const taxonOf = new Map(library.map((t) => [t.botanical, t]))
const kind = (botanical: string) => {
  const found = taxonOf.get(botanical)
  if (!found) throw new Error(`The demo’s schemes want ${botanical}, which is in no library`)
  return found
}

/** A place decided anew, its schemes laid out as the screen would lay them out, and waiting for somebody’s word. */
export async function insertReworks(
  trx: Db,
  owner: { gardenId: string; personId: string },
  { place: name, tallestM, schemes }: SketchRework,
  known: { plan: Plan; weather: readonly DailyWeather[]; byTag: (tag: string) => string },
): Promise<void> {
  const { id: placeId } = await trx('features').where({ garden_id: owner.gardenId, name }).first('id')
  const { garden, features } = known.plan
  const own = features.map((f) => ({ ...f, id: f.name === name ? placeId : f.name }))
  const places = placesOn(own, DEMO_DATE).filter((p) => p.id === placeId)
  const read = climateOf(known.weather, garden.latitude)
  const climate = read.ok ? read.climate : undefined
  const [of] = sitedGarden({ at: garden, features: own, places, climate }, DEMO_DATE, CELL_M).places
  const standing = await listPlantings(trx, owner.gardenId, DEMO_DATE)
  const plantings = standing.filter((p) => p.placeId === placeId)
  const worthOf = (id: string) =>
    usualWorth(
      standing.find((p) => p.id === id)!,
      standing,
      DEMO_DATE,
    ).worth
  const reworkId = randomUUID()
  await insertRework(trx, owner, { id: reworkId, placeId })
  for (const scheme of schemes) {
    const leaving = scheme.leaving.map(known.byTag)
    const ground: BedGround = {
      of: of!,
      cellM: CELL_M,
      viewedFrom: [180],
      stays: plantings.filter((p) => !leaving.includes(p.id)),
    }
    const drifts = scheme.drifts.map(([botanical, count, from]) => ({
      id: randomUUID(),
      taxon: kind(botanical),
      count,
      from: from ?? ('library' as const),
    }))
    const filled = withRestFilled(ground, unarranged(ground, drifts))
    // Of what is on the bench there is no more.
    const had = filled.drifts.map((d, k) => (drifts[k]!.from === 'bench' ? drifts[k]! : d))
    const arranged = finished(arrange(ground, { ...filled, drifts: had }, 1))
    const runs = groundWritten(ground.of, CELL_M, arranged.has, drifts.length)
    const said: SaidScheme = {
      name: scheme.name,
      leaving: [
        ...leaving.map((plantingId) => ({
          plantingId,
          how: 'leaves' as const,
          to: null,
          worth: worthOf(plantingId),
        })),
        ...scheme.divides.map((tag) => ({
          plantingId: known.byTag(tag),
          how: 'divides' as const,
          to: null,
          worth: worthOf(known.byTag(tag)),
        })),
      ],
      wishes: { tallestM, kinds: { least: 5, most: 12 }, drifts: 'odd' },
      drifts: arranged.drifts.map((d, k) => ({
        id: d.id,
        botanical: d.taxon.botanical,
        count: d.count,
        from: drifts[k]!.from,
        ground: runs[k]!,
        isDrawn: false,
      })),
      between: scheme.between.map(([botanical, count]) => ({
        id: randomUUID(),
        botanical: kind(botanical).botanical,
        count,
        from: 'library' as const,
      })),
      viewedFrom: null,
      seenFromM: 8,
      baseLine: null,
      compostM: 0.03,
      mulchM: 0.05,
      spareShare: 0.05,
      hourPrice: 3200,
    }
    await insertScheme(trx, owner, reworkId, { id: randomUUID(), said })
  }
}
