import { library, type Plan } from '@border/core'
import {
  addMember,
  insertEvents,
  insertLog,
  insertPerson,
  insertPractice,
  insertReading,
  insertStation,
  moveSite,
  readGardenFiles,
  saveGarden,
  setStandInChanges,
  setStation,
  setWorkingException,
  setWorkingWeek,
  type Db,
} from '@border/server'
import { filesOf, placedIn } from './files.ts'
import { almshouseTerrace } from './gardens/almshouseTerrace.ts'
import { cliffLane } from './gardens/cliffLane.ts'
import { netmakersYard } from './gardens/netmakersYard.ts'
import { looksOf, type Grown } from './history.ts'
import { lightReadOf } from './lightRead.ts'
import type { SketchGarden } from './sketch.ts'
import { DEMO_DATE, town, townWeather } from './town.ts'

export const demoGardens = [netmakersYard, almshouseTerrace, cliffLane]

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
    const stationId = await insertStation(trx, `Made-up daily record of ${town.name}`, 'simulated', weather)
    const head = ids.get(people[0].name)!
    for (const sketch of demoGardens) {
      const gardenId = await loadGarden(trx, { practiceId, personId: head }, sketch, stationId)
      for (const p of people)
        if ((p.gardens as readonly SketchGarden[]).includes(sketch))
          await addMember(trx, gardenId, ids.get(p.name)!, p.role)
    }
  })
  return names
}

async function loadGarden(
  trx: Db,
  owner: { practiceId: string; personId: string },
  sketch: SketchGarden,
  stationId: string,
): Promise<string> {
  const read = await readGardenFiles(trx, owner.practiceId, filesOf(sketch), DEMO_DATE)
  if (!read.ok)
    throw new Error(`The demo’s ${sketch.name} is not a good file: ${JSON.stringify(read.problems)}`)
  const { gardenId, plantingIds } = await saveGarden(trx, owner, read.value)
  await setStation(trx, gardenId, stationId)
  await setWorkingWeek(trx, gardenId, sketch.minutesByWeekday)
  for (const off of sketch.daysOff) await setWorkingException(trx, gardenId, off.day, off.minutes)
  const { plan, plantings } = read.value
  const byTag = (tag: string) => {
    const id = plantingIds.get(tag)
    if (!id) throw new Error(`${sketch.name} has no tag ${tag}`)
    return id
  }
  await applyMoves(trx, owner.personId, gardenId, sketch, byTag)
  await setStandInChanges(trx, gardenId, sketch.unrecorded)
  await readLight(trx, { gardenId, personId: owner.personId }, sketch, plan)
  const looks = looksOf(sketch, plan, grownOf(plan, plantings))
  await insertEvents(trx, [
    ...looks.map((l) => ({
      plantingId: byTag(l.tag),
      on: l.on,
      kind: 'observed' as const,
      living: l.living,
      says: l.says,
      personId: owner.personId,
    })),
    ...sketch.notes.map((n) => ({
      plantingId: byTag(n.tag),
      on: n.on,
      kind: 'note' as const,
      says: n.says,
      personId: owner.personId,
    })),
  ])
  return gardenId
}

/** What people and a logger saw of the light in the weeks before the demo's day, in the garden as it truly stands. */
async function readLight(
  trx: Db,
  { gardenId, personId }: { gardenId: string; personId: string },
  sketch: SketchGarden,
  plan: Plan,
): Promise<void> {
  const { readings, logs } = lightReadOf(sketch, plan)
  const placeIds = new Map(
    (await trx('features').where({ garden_id: gardenId }).select('id', 'name')).map((f) => [f.name, f.id]),
  )
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
    const says = `Moved from ${move.fromPlace} to ${place}.`
    await insertEvents(trx, [{ plantingId: byTag(move.tag), on: move.on, kind: 'moved', says, personId }])
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
      x: r.x ?? at[0]!,
      y: r.y ?? at[1]!,
      z: (place.properties.rimHeightM as number | undefined) ?? 0,
    }
  })
}
