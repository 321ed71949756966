import type { SaidScheme } from '@border/contract'
import {
  addDays,
  arrange,
  careRules,
  carryingOut,
  CELL_M,
  climateOf,
  driftStands,
  finished,
  groundM2,
  groundOf,
  groundWritten,
  library,
  maxDay,
  metresOutside,
  placesOn,
  plantingDivided,
  sitedGarden,
  unarranged,
  usualWorth,
  withRestFilled,
  type Arrangement,
  type BedGround,
  type Climate,
  type DailyWeather,
  type Feature,
  type Goes,
  type Place,
  type Plan,
} from '@border/core'
import {
  acceptSteps,
  insertRework,
  insertScheme,
  listPlantings,
  plantedAlready,
  recordDone,
  type Db,
} from '@border/server'
import { randomUUID } from 'node:crypto'
import type { SketchRework } from './sketch.ts'
import { DEMO_DATE } from './town.ts'

const taxonOf = new Map(library.map((t) => [t.botanical, t]))
const kind = (botanical: string) => {
  const found = taxonOf.get(botanical)
  if (!found) throw new Error(`The demo’s schemes want ${botanical}, which is in no library`)
  return found
}

/** What is known of a garden while its reworks are loaded. */
export interface LoadedGarden {
  gardenId: string
  practiceId: string
  personId: string
  plan: Plan
  weather: readonly DailyWeather[]
  byTag: (tag: string) => string
}

/**
 * A place decided anew, its schemes laid out as the screen would lay them out: waiting for somebody’s word, or accepted and carried out
 * as far as the sketch says.
 */
export async function insertReworks(trx: Db, known: LoadedGarden, sketch: SketchRework): Promise<void> {
  const { gardenId, personId } = known
  const features = await featuresById(trx, known)
  const places = new Map(placesOn(features, DEMO_DATE).map((p) => [p.id, p]))
  const place = [...places.values()].find((p) => p.name === sketch.place)!
  const climate = climateIn(known)
  const [of] = sitedGarden(
    { at: known.plan.garden, features, places: [place], climate },
    DEMO_DATE,
    CELL_M,
  ).places
  // What was carried out was so as the garden stood then.
  const on = sketch.carriedOut?.acceptedOn ?? DEMO_DATE
  const standing = await listPlantings(trx, gardenId, on)
  const here = standing.filter((p) => p.placeId === place.id)
  const idOf = (name: string) => [...places.values()].find((p) => p.name === name)!.id
  const reworkId = randomUUID()
  await insertRework(trx, { gardenId, personId }, { id: reworkId, placeId: place.id })
  for (const [i, scheme] of sketch.schemes.entries()) {
    const leaving = scheme.leaving.map(known.byTag)
    const stands = (scheme.stands ?? []).map((tag) => known.byTag(tag))
    const ground: BedGround = {
      of: of!,
      cellM: CELL_M,
      viewedFrom: [180],
      stays: here.filter((p) => !leaving.includes(p.id) && !stands.includes(p.id)),
    }
    const found = stands.length > 0 ? standingDrifts(trx, ground, stands, known) : laidOut(ground, scheme)
    const { arranged, from } = await found
    const runs = groundWritten(ground.of, CELL_M, arranged.has, arranged.drifts.length)
    const worthOf = (id: string) =>
      usualWorth(
        standing.find((p) => p.id === id)!,
        standing,
        on,
      ).worth
    const goesTo = (tag: string): SaidScheme['leaving'][number]['to'] => {
      const goes = scheme.goes?.[tag]
      if (!goes || goes.to !== 'spot') return goes ?? null
      return { to: 'spot', placeId: idOf(goes.place), x: goes.at[0], y: goes.at[1] }
    }
    const said: SaidScheme = {
      name: scheme.name,
      leaving: [
        ...scheme.leaving.map((tag) => ({
          plantingId: known.byTag(tag),
          how: 'leaves' as const,
          to: goesTo(tag),
          worth: worthOf(known.byTag(tag)),
        })),
        ...scheme.divides.map((tag) => ({
          plantingId: known.byTag(tag),
          how: 'divides' as const,
          to: null,
          worth: worthOf(known.byTag(tag)),
        })),
      ],
      wishes: { tallestM: sketch.tallestM, kinds: { least: 5, most: 12 }, drifts: 'odd' },
      drifts: arranged.drifts.map((d, k) => ({
        id: d.id,
        botanical: d.taxon.botanical,
        count: d.count,
        from: from[k]!,
        ground: runs[k]!,
        isDrawn: stands.length > 0,
      })),
      between: scheme.between.map(([botanical, count]) => ({
        id: randomUUID(),
        botanical: kind(botanical).botanical,
        count,
        from: 'library' as const,
      })),
      ...(scheme.filler && { filler: kind(scheme.filler).botanical }),
      viewedFrom: null,
      seenFromM: 8,
      baseLine: null,
      compostM: 0.03,
      mulchM: 0.05,
      spareShare: 0.05,
      hourPrice: 3200,
    }
    const schemeId = randomUUID()
    await insertScheme(trx, { gardenId, personId }, reworkId, { id: schemeId, said })
    if (i === 0 && sketch.carriedOut && climate)
      await carryOut(trx, known, { schemeId, said, ground, arranged, places, climate, ...sketch.carriedOut })
  }
}

const climateIn = ({ weather, plan }: LoadedGarden): Climate | undefined => {
  const read = climateOf(weather, plan.garden.latitude)
  return read.ok ? read.climate : undefined
}

/** What is on the plan of a garden, by the ids that the database knows it by. */
async function featuresById(trx: Db, { gardenId, plan }: LoadedGarden): Promise<Feature[]> {
  const rows = await trx('features')
    .where({ garden_id: gardenId })
    .select<{ id: string; name: string }[]>('id', 'name')
  const ids = new Map(rows.map((r) => [r.name, r.id]))
  return plan.features.map((f) => ({ ...f, id: ids.get(f.name) ?? f.name }))
}

interface DriftsLaid {
  arranged: Arrangement
  from: readonly SaidScheme['drifts'][number]['from'][]
}

function laidOut(ground: BedGround, scheme: SketchRework['schemes'][number]): DriftsLaid {
  const drifts = scheme.drifts.map(([botanical, count]) => ({
    id: randomUUID(),
    taxon: kind(botanical),
    count,
  }))
  const from = scheme.drifts.map(([, , source]) => source ?? ('library' as const))
  const bare = unarranged(ground, drifts)
  if (scheme.keepsTo) return { arranged: finished(arrange(ground, bare, 1)), from }
  const filled = withRestFilled(ground, bare)
  // Of what is on the bench there is no more.
  const had = filled.drifts.map((d, k) => (from[k] === 'bench' ? drifts[k]! : d))
  return { arranged: finished(arrange(ground, { ...filled, drifts: had }, 1)), from }
}

/** Drifts on the ground of plantings that stand there: each is a drift of the scheme that it was planted by. */
async function standingDrifts(
  trx: Db,
  ground: BedGround,
  plantingIds: readonly string[],
  { gardenId }: LoadedGarden,
): Promise<DriftsLaid> {
  const all = await listPlantings(trx, gardenId, DEMO_DATE)
  const stand = plantingIds.map((id) => all.find((p) => p.id === id)!)
  const grounds = stand.map(groundOf)
  const has = Int16Array.from(ground.of.stations, ({ x, y }) =>
    grounds.findIndex((g) => metresOutside(g, x, y) <= 0),
  )
  return {
    arranged: {
      drifts: stand.map((p) => ({ id: p.id, taxon: p.taxon, count: p.plantedCount, isDrawn: true })),
      has,
    },
    from: stand.map(() => 'library'),
  }
}

/** Steps of a scheme as jobs, and those that are done recorded on the first day that is good for each. */
async function carryOut(
  trx: Db,
  known: LoadedGarden,
  of: {
    schemeId: string
    said: SaidScheme
    ground: BedGround
    arranged: Arrangement
    places: ReadonlyMap<string, Place>
    climate: Climate
    acceptedOn: string
    how: 'first planting' | 'all'
  },
): Promise<void> {
  const { gardenId, practiceId, personId } = known
  const { said, ground, arranged, places, climate, acceptedOn: on } = of
  const { place } = ground.of
  const standing = new Map((await listPlantings(trx, gardenId, on)).map((p) => [p.id, p]))
  const stands = driftStands(ground, arranged)
  const dividing = said.leaving
    .filter((l) => l.how === 'divides')
    .map((l) => {
      const planting = standing.get(l.plantingId)!
      return { planting, spare: plantingDivided(planting, on).spare }
    })
  const inHand = new Map(dividing.map((d) => [d.planting.taxon.botanical, d.spare]))
  const bare = { x: ground.of.stations[0]!.x, y: ground.of.stations[0]!.y, outline: null }
  const comes = [
    ...arranged.drifts.map((d, k) => ({
      id: d.id,
      taxon: d.taxon,
      count: d.count,
      stand: stands[k] ?? bare,
    })),
    ...said.between.map((b) => ({ id: b.id, taxon: kind(b.botanical), count: b.count, stand: bare })),
  ]
  const plantedM2 = comes.reduce((sum, c) => sum + groundM2(c.count, c.taxon.spacingM), 0)
  const found = carryingOut(
    {
      place,
      leaving: said.leaving.flatMap(({ plantingId, how, to }) => {
        const planting = standing.get(plantingId)!
        if (how === 'divides' || !to || to.to === 'stay') return []
        const goes: Goes =
          to.to === 'spot' ? { ...to, place: places.get(to.placeId)!, hazards: [] } : { to: to.to }
        return [{ planting, goes }]
      }),
      dividing,
      fetched: [],
      comes: comes.map((c) => ({
        ...c,
        have: Math.min(c.count, inHand.get(c.taxon.botanical) ?? 0),
        areaM2: groundM2(c.count, c.taxon.spacingM),
        over: [],
      })),
      plantedM2,
      compostM: said.compostM,
      mulchM: said.mulchM,
      extras: [],
      hazards: [],
      climate,
      lateDays: 0,
      schools: {},
      rules: careRules,
    },
    on,
  )
  if (!found.ok)
    throw new Error(`The demo’s ${said.name} cannot be carried out: ${JSON.stringify(found.problems)}`)
  await acceptSteps(trx, { gardenId, personId, schemeId: of.schemeId }, found.steps)
  const waits = new Set(of.how === 'all' ? [] : found.turns.slice(1).flatMap((t) => t.ids))
  const days = new Map<string, string>()
  // A drift whose ground was told from a planting has its id.
  const all = new Map((await listPlantings(trx, gardenId, DEMO_DATE)).map((p) => [p.id, p]))
  for (const step of found.steps) {
    const isLater =
      (step.sets && waits.has(step.sets.id)) || /(^(set out|finish)\/|^turn )[2-9]/.test(step.key)
    if (isLater) continue
    const stood = all.get(step.sets?.id ?? '')
    // What waits for something that is still to be done is still to be done.
    if (step.after.some((a) => !days.has(a.key))) continue
    const before = step.after.map((a) => addDays(days.get(a.key)!, a.leastDays))
    const best = step.kind === 'aftercare' ? on : step.window.bestFrom
    const day = stood?.plantedOn ?? maxDay(best, ...before)
    if (day > DEMO_DATE) continue
    days.set(step.key, day)
    const { id: jobId } = await trx('jobs').where({ scheme_id: of.schemeId, key: step.key }).first('id')
    if (stood) await plantedAlready(trx, { gardenId, personId }, jobId, stood.id, step.minutes)
    else
      await recordDone(trx, { gardenId, practiceId, personId, today: DEMO_DATE }, jobId, {
        on: day,
        deviceAt: null,
        minutes: step.minutes,
        ...(step.sets && { lived: step.sets.count }),
        ...(step.kind === 'move' && { lived: standing.get(step.plantingId!)!.livingCount }),
        ...(step.spare !== null && { leftOver: [{ plantingId: step.plantingId!, count: step.spare }] }),
      })
  }
}
