import { addDays, library, seededRandom, signs, type IsoDate } from '@border/core'
import { addMember, insertObservations, readGardenFiles, saveGarden, type Db } from '@border/server'
import { randomUUID } from 'node:crypto'

/** The day of what is made up here. */
export const TODAY: IsoDate = '2026-09-14'

/** Forty beds, without anything that casts shade, and plantings all over them. */
function gardenFiles(name: string, plantings: number): { plan: string; plantings: string } {
  const beds = Array.from({ length: 40 }, (_, i) => {
    const [x, y] = [(i % 8) * 14, Math.floor(i / 8) * 9]
    const ring = [
      [x, y],
      [x + 11, y],
      [x + 11, y + 5],
      [x, y + 5],
      [x, y],
    ]
    return {
      type: 'Feature',
      properties: { kind: 'bed', name: `Bed ${i + 1}`, moisture: 'fresh' },
      geometry: { type: 'Polygon', coordinates: [ring] },
    }
  })
  const plan = {
    type: 'FeatureCollection',
    garden: {
      version: 1,
      name,
      latitude: 52,
      longitude: 1,
      timeZone: 'Europe/London',
      coordinates: 'local-metres',
    },
    features: beds,
  }
  const random = seededRandom(8)
  const rows = Array.from({ length: plantings }, (_, i) => {
    const bed = i % 40
    const [x, y] = [(bed % 8) * 14 + 0.3 + 10 * random(), Math.floor(bed / 8) * 9 + 0.3 + 4.4 * random()]
    const taxon = library[Math.floor(random() * library.length)]!.botanical
    return `L-${i},Bed ${bed + 1},${taxon},${1 + (i % 7)},${2012 + (i % 6)}-04-0${1 + (i % 9)},${x.toFixed(2)},${y.toFixed(2)}`
  })
  return {
    plan: JSON.stringify(plan),
    plantings: `tag,place,taxon,count,planted_on,x,y\n${rows.join('\n')}\n`,
  }
}

/** A garden of so many plantings, never worked out. */
export async function saveMadeUp(
  db: Db,
  owner: { practiceId: string; personId: string },
  name: string,
  plantings: number,
): Promise<{ gardenId: string; plantingIds: string[] }> {
  const read = await readGardenFiles(db, owner.practiceId, gardenFiles(name, plantings), () => TODAY)
  if (!read.ok) throw new Error(JSON.stringify(read.problems.slice(0, 3)))
  const saved = await saveGarden(db, owner, read.value, { from: 'nothing', why: '' })
  await addMember(db, saved.gardenId, owner.personId, 'head')
  return { gardenId: saved.gardenId, plantingIds: [...saved.plantingIds.values()] }
}

/** Looks at all plantings of a garden, so many at each, every 55 days from 2019 on. */
export async function lookAtAll(
  db: Db,
  by: { gardenId: string; personId: string },
  plantingIds: readonly string[],
  times: number,
): Promise<void> {
  const random = seededRandom(3)
  for (let w = 0; w < times; w++) {
    const on = addDays('2019-04-20', w * 55)
    await insertObservations(
      db,
      by,
      plantingIds.map((plantingId) => ({
        kind: 'planting',
        id: randomUUID(),
        plantingId,
        on,
        at: `${on}T10:00:00Z`,
        rating: 1 + Math.floor(5 * random()),
        living: random() < 0.3 ? 1 : undefined,
        absent: false,
        stage: random() < 0.3 ? 'full' : undefined,
        signs: random() < 0.3 ? [signs[Math.floor(random() * signs.length)]!.id] : [],
      })),
    )
  }
}
