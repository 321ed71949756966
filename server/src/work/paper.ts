import {
  beyondOf,
  CELL_M,
  kindsOf,
  MOST_LEAVING,
  plantingM2,
  reckonScheme,
  seasonOfFeeding,
  staysOf,
  usualYearAt,
  viewsOf,
  type SchemeTotals,
  type Went,
} from '@border/core'
import type { SaidScheme } from '@border/contract'
import { sum } from 'd3-array'
import { featuresOn, type GardenReader } from '../reader.ts'
import { listOffers } from '../store/offers.ts'
import { schemeOfGarden } from './carryOut.ts'
import type { ComputePool } from './compute.ts'
import type { SchemeToDraw } from '../paper/drawnScheme.ts'
import { groundOfPlace, inHand, placeOfGarden, plantsElsewhere, relocationTask } from './rework.ts'

/** Where what leaves goes, as far as the least cost decides it. */
async function wentTo(reader: GardenReader, pool: ComputePool, { leaving }: SaidScheme): Promise<Went> {
  const here = new Set((await reader.plantings()).map((p) => p.id))
  const leaves = leaving.filter((l) => l.how === 'leaves' && here.has(l.plantingId))
  if (leaves.length > MOST_LEAVING || leaves.every((l) => l.to !== null)) return { ok: false }
  return pool.run('relocation', await relocationTask(reader, pool, leaves))
}

/** What the drawings of a scheme are made from, as the garden stands. */
export async function schemeToDraw(
  reader: GardenReader,
  pool: ComputePool,
  ids: { reworkId: string; schemeId: string },
): Promise<{ task: SchemeToDraw; totals: () => Promise<SchemeTotals> }> {
  const { garden, today, db } = reader
  const { said, placeId, plantedIds } = await schemeOfGarden(db, garden.id, ids)
  const [place, plantings, taxa, features, { climate }, relocated] = await Promise.all([
    placeOfGarden(reader, placeId),
    reader.plantings(),
    reader.taxa(),
    featuresOn(reader),
    reader.climate(),
    wentTo(reader, pool, said),
  ])
  // What was planted by the scheme is drawn as its drifts.
  const stays = staysOf(plantings, placeId, said, relocated).filter((p) => !plantedIds.includes(p.id))
  const named = new Set([...kindsOf(said).map((k) => k.botanical), said.filler])
  const known = taxa.map((t) => t.taxon).filter((t) => named.has(t.botanical))
  const task: SchemeToDraw = {
    garden: garden.name,
    place: place.name,
    scheme: said.name,
    today,
    northDeg: garden.northDeg,
    year: usualYearAt(climate, garden.latitude),
    ground: {
      of: await groundOfPlace(reader, pool, placeId),
      cellM: CELL_M,
      viewedFrom: viewsOf(features, placeId, said),
      stays,
    },
    said,
    taxa: known,
    features,
    beyond: beyondOf(features, plantings, placeId, today),
  }
  const totals = async () => {
    const dividing = said.leaving.filter((l) => l.how === 'divides')
    const has = await inHand(reader, await plantsElsewhere(reader, pool, placeId), dividing)
    return reckonScheme(said, new Map(known.map((t) => [t.botanical, t])), {
      plantings,
      relocated,
      offers: await listOffers(db, garden.practiceId),
      bedM2: place.areaM2,
      staysM2: sum(stays, plantingM2),
      inHand: has.map(({ taxon, most }) => ({ botanical: taxon.botanical, count: most })),
      feedingSeason: seasonOfFeeding(today, garden.latitude < 0),
    })
  }
  return { task, totals }
}
