import { library, type DailyWeather, type Plan } from '@border/core'
import { randomUUID } from 'node:crypto'
import {
  addMember,
  findTaxon,
  giveToCrew,
  insertAbsence,
  insertCrew,
  insertCrewPerson,
  insertEvents,
  insertLog,
  insertObservations,
  insertPhoto,
  insertPicture,
  insertPlaceLook,
  insertPerson,
  insertPractice,
  insertReading,
  insertStandpoint,
  insertStation,
  insertTreatment,
  insertTrialOutcome,
  makePhoto,
  makePlanPicture,
  sentFile,
  moveSite,
  putOnBench,
  readGardenFiles,
  saveGarden,
  sayOffer,
  setStandInChanges,
  setStation,
  setTravel,
  type Db,
  updatePicture,
} from '@border/server'
import { demoCrews } from './crews.ts'
import { filesOf, placedIn } from './files.ts'
import { almshouseTerrace } from './gardens/almshouseTerrace.ts'
import { cliffLane } from './gardens/cliffLane.ts'
import { netmakersYard } from './gardens/netmakersYard.ts'
import { insertFills } from './fills.ts'
import { looksOf, placeLooksOf, type Grown } from './history.ts'
import { lightReadOf } from './lightRead.ts'
import { pictureOf } from './pictures.ts'
import { insertReworks } from './reworks.ts'
import { demoOffers } from './offers.ts'
import { scanOf } from './scan.ts'
import type { SketchGarden } from './sketch.ts'
import { DEMO_DATE, town } from './town.ts'
import { townWeather } from './townWeather.ts'

export const demoGardens = [netmakersYard, almshouseTerrace, cliffLane]

/** What waits for a place in the demo. */
const demoBench = [
  {
    sketch: netmakersYard,
    botanical: 'Geranium sanguineum',
    count: 4,
    since: '2026-08-27',
    note: 'pieces in pots by the tar house',
  },
  { sketch: cliffLane, botanical: 'Iris sibirica', count: 3, since: '2026-09-02' },
]

/** The made-up people, by the one-click sign-in, and the gardens each belongs to. */
const people = [
  { name: 'Marla Quill', role: 'head', gardens: demoGardens },
  { name: 'Tobin Reeve', role: 'crew', gardens: [netmakersYard, cliffLane] },
  { name: 'Odile Fenn', role: 'keeper', gardens: [almshouseTerrace] },
] as const

/**
 * Puts the made-up practice into a database that has none yet.
 *
 * @returns the people of the demo by name
 */
export async function loadDemo(db: Db, say: (text: string) => void): Promise<string[]> {
  const names = people.map((p) => p.name)
  if (await db('people').first('id')) return names
  say('loading the demo practice')
  await db.transaction(async (trx) => {
    const practiceId = await insertPractice(trx, `Quill & Reeve, gardens in ${town.name}`, DEMO_DATE)
    const ids = new Map<string, string>()
    for (const p of people)
      ids.set(
        p.name,
        await insertPerson(trx, {
          practiceId,
          name: p.name,
          email: `${p.name.split(' ')[0]!.toLowerCase()}@harrowmouth.invalid`,
          passwordHash: null,
          isDemo: true,
          leads: p.role === 'head',
        }),
      )
    const weather = townWeather()
    // In the made-up town this is what was measured there; it says itself that it is made up.
    const name = `Made-up daily record of ${town.name}`
    const stationId = await insertStation(trx, { name, source: 'service', at: town }, weather)
    const head = ids.get(people[0].name)!
    const gardenIds = new Map<SketchGarden, string>()
    for (const sketch of demoGardens) {
      const gardenId = await loadGarden(trx, { practiceId, personId: head }, sketch, {
        id: stationId,
        days: weather,
      })
      for (const p of people)
        if ((p.gardens as readonly SketchGarden[]).includes(sketch))
          await addMember(trx, gardenId, ids.get(p.name)!, p.role)
      gardenIds.set(sketch, gardenId)
    }
    await employ(trx, practiceId, gardenIds)
    for (const offer of demoOffers()) await sayOffer(trx, { practiceId, personId: head }, offer)
    for (const { sketch, botanical, ...item } of demoBench) {
      const taxon = await findTaxon(trx, practiceId, botanical)
      if (!taxon) throw new Error(`The demo’s bench has no ${botanical}`)
      await putOnBench(trx, { gardenId: gardenIds.get(sketch)!, personId: head }, [
        { ...item, taxonId: taxon.id },
      ])
    }
  })
  // So much came at once that the planner must be told of it.
  await db.raw('analyze')
  return names
}

async function employ(
  trx: Db,
  practiceId: string,
  gardenIds: ReadonlyMap<SketchGarden, string>,
): Promise<void> {
  for (const crew of demoCrews) {
    const crewId = await insertCrew(trx, practiceId, crew.name)
    const people = new Map<string, string>()
    for (const p of crew.people) people.set(p.name, await insertCrewPerson(trx, crewId, p))
    for (const { name, ...a } of crew.absences)
      await insertAbsence(trx, crewId, { ...a, personId: name ? people.get(name)! : null })
    for (const { sketch, travelMinutes } of crew.gardens) {
      await giveToCrew(trx, gardenIds.get(sketch)!, crewId)
      await setTravel(trx, gardenIds.get(sketch)!, travelMinutes)
    }
  }
}

async function loadGarden(
  trx: Db,
  owner: { practiceId: string; personId: string },
  sketch: SketchGarden,
  station: { id: string; days: readonly DailyWeather[] },
): Promise<string> {
  const read = await readGardenFiles(trx, owner.practiceId, filesOf(sketch), () => DEMO_DATE)
  if (!read.ok)
    throw new Error(`The demo’s ${sketch.name} is not a good file: ${JSON.stringify(read.problems)}`)
  const { gardenId, plantingIds } = await saveGarden(trx, owner, read.value, {
    from: 'file',
    days: [],
  })
  await setStation(trx, gardenId, station.id)
  const { plan, plantings } = read.value
  const byTag = (tag: string) => {
    const id = plantingIds.get(tag)
    if (!id) throw new Error(`${sketch.name} has no tag ${tag}`)
    return id
  }
  await applyMoves(trx, owner.personId, gardenId, sketch, byTag)
  await setStandInChanges(trx, gardenId, sketch.unrecorded)
  await readLight(trx, { gardenId, personId: owner.personId }, sketch, plan)
  const grown = grownOf(plan, plantings)
  await walk(trx, { gardenId, personId: owner.personId }, sketch, {
    plan,
    grown,
    weather: station.days,
    byTag,
  })
  await photograph(trx, { gardenId, personId: owner.personId }, sketch, plan, grown)
  if (sketch.survey) await scan(trx, { gardenId, personId: owner.personId }, sketch.survey, plan)
  const placeIds = await placeIdsOf(trx, gardenId)
  await insertFills(trx, { gardenId, ...owner }, sketch.fills ?? {}, (pot) => placeIds.get(pot)!)
  for (const rework of sketch.reworks ?? [])
    await insertReworks(trx, { gardenId, ...owner, plan, weather: station.days, byTag }, rework)
  for (const t of sketch.trials)
    await insertTrialOutcome(trx, {
      gardenId,
      plantingId: byTag(t.tag),
      personId: owner.personId,
      on: t.on,
      outcome: 'trial',
      reason: t.reason,
    })
  for (const { tag, ...t } of sketch.treatments)
    await insertTreatment(trx, { gardenId, plantingId: byTag(tag), personId: owner.personId, ...t })
  await insertEvents(
    trx,
    sketch.notes.map((n) => ({
      gardenId,
      plantingId: byTag(n.tag),
      on: n.on,
      kind: 'note' as const,
      note: n.says,
      personId: owner.personId,
    })),
  )
  return gardenId
}

const noon = (day: string) => `${day}T11:00:00.000Z`

/** Five seasons of walks: what was seen of plantings and, lately, of places. */
async function walk(
  trx: Db,
  by: { gardenId: string; personId: string },
  sketch: SketchGarden,
  known: {
    plan: Plan
    grown: readonly Grown[]
    weather: readonly DailyWeather[]
    byTag: (tag: string) => string
  },
): Promise<void> {
  const looks = looksOf(sketch, known.plan, known.grown, known.weather)
  await insertObservations(
    trx,
    by,
    looks.map(({ tag, ...l }) => ({
      kind: 'planting',
      id: randomUUID(),
      at: noon(l.on),
      plantingId: known.byTag(tag),
      ...l,
    })),
  )
  const placeIds = await placeIdsOf(trx, by.gardenId)
  for (const { place, ...l } of placeLooksOf(sketch))
    await insertPlaceLook(trx, by, {
      kind: 'place',
      id: randomUUID(),
      at: noon(l.on),
      placeId: placeIds.get(place)!,
      ...l,
    })
}

/** Drawn pictures of some beds from their fixed standpoints, a few a season. */
async function photograph(
  trx: Db,
  { gardenId, personId }: { gardenId: string; personId: string },
  sketch: SketchGarden,
  plan: Plan,
  grown: readonly Grown[],
): Promise<void> {
  const placeIds = await placeIdsOf(trx, gardenId)
  for (const s of sketch.standpoints) {
    const placeId = placeIds.get(s.place)
    const standpointId = await insertStandpoint(trx, gardenId, { name: s.name, placeId, framing: s.framing })
    for (const on of s.photographedOn) {
      const photo = await makePhoto(
        {
          id: randomUUID(),
          on,
          at: noon(on),
          standpointId,
          placeId,
          keepPosition: false,
          deviceAt: null,
        },
        await sentFile(await pictureOf(plan, s.place, grown, on)),
      )
      await insertPhoto(trx, gardenId, personId, photo)
    }
  }
}

/** An old survey, laid under the plan. */
async function scan(
  trx: Db,
  by: { gardenId: string; personId: string },
  { name, turnDeg }: NonNullable<SketchGarden['survey']>,
  plan: Plan,
): Promise<void> {
  const { file, laying } = await scanOf(plan, turnDeg)
  const picture = await makePlanPicture({ id: randomUUID(), name }, await sentFile(file))
  const id = await insertPicture(trx, by, picture)
  await updatePicture(trx, by.gardenId, id, { laying, strength: 0.4 })
}

const placeIdsOf = async (trx: Db, gardenId: string): Promise<Map<string, string>> =>
  new Map(
    (await trx('features').where({ garden_id: gardenId }).select('id', 'name')).map((f) => [f.name, f.id]),
  )

/** What people and a logger saw of the light in the weeks before the demo's day, in the garden as it truly stands. */
async function readLight(
  trx: Db,
  { gardenId, personId }: { gardenId: string; personId: string },
  sketch: SketchGarden,
  plan: Plan,
): Promise<void> {
  const { readings, logs } = lightReadOf(sketch, plan)
  const placeIds = await placeIdsOf(trx, gardenId)
  for (const { place, ...r } of readings)
    await insertReading(trx, gardenId, personId, { ...r, placeId: placeIds.get(place) })
  for (const { place, samples, ...log } of logs)
    await insertLog(trx, gardenId, personId, { ...log, placeId: placeIds.get(place) }, samples)
}

async function applyMoves(
  trx: Db,
  personId: string,
  gardenId: string,
  sketch: SketchGarden,
  byTag: (tag: string) => string,
): Promise<void> {
  const placed = placedIn(sketch)
  for (const move of sketch.moves) {
    const { place, at } = placed.find((p) => p.tag === move.tag)!
    const [x, y] = at!
    const { id: placeId } = await trx('features').where({ garden_id: gardenId, name: place }).first('id')
    await moveSite(trx, {
      plantingId: byTag(move.tag),
      gardenId,
      placeId,
      x,
      y,
      on: move.on,
      radiusM: null,
      jobId: null,
    })
    const from = await trx('features').where({ garden_id: gardenId, name: move.fromPlace }).first('id')
    await insertEvents(trx, [
      {
        gardenId,
        plantingId: byTag(move.tag),
        on: move.on,
        kind: 'moved',
        facts: { fromPlaceId: from?.id, placeId },
        personId,
      },
    ])
  }
}

function grownOf(
  plan: Plan,
  rows: readonly {
    tag: string
    place: string
    taxon: string
    count: number
    planted_on: string
    x?: number
    y?: number
  }[],
): Grown[] {
  const taxa = new Map(library.map((t) => [t.botanical, t]))
  return rows.map((r) => {
    const place = plan.features.find((f) => f.name === r.place)!
    const at = place.geometry.type === 'Point' ? place.geometry.coordinates : [0, 0]
    return {
      tag: r.tag,
      taxon: taxa.get(r.taxon)!,
      count: r.count,
      plantedOn: r.planted_on,
      place: r.place,
      x: r.x ?? at[0]!,
      y: r.y ?? at[1]!,
      z: (place.properties.rimHeightM as number | undefined) ?? 0,
    }
  })
}
