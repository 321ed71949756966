import { gardenRecord, taxonRecords, type RecordedPlanting, type Seen } from '../src/performance/index.ts'
import { library, USUAL_YEAR } from '../src/plants/index.ts'
import { normal, seededRandom } from '../src/random/index.ts'

/** How long the record of a large garden takes: 500 plantings over 8 seasons, 2 to 4 walks a season. */
const PLANTINGS = 500
const SEASONS = [2019, 2020, 2021, 2022, 2023, 2024, 2025, 2026]
const say = (text: string) => process.stdout.write(`${text}\n`)

for (const seed of [1, 2, 3]) {
  const random = seededRandom(seed)
  const kind = library.map(() => 0.6 * normal(random))
  const place = Array.from({ length: 24 }, () => 0.4 * normal(random))
  const plantings = Array.from({ length: PLANTINGS }, (_, i): RecordedPlanting => {
    const taxon = library[Math.floor(random() * library.length)]!
    const since = `${2010 + Math.floor(random() * 9)}-04-01`
    return { id: String(i), taxon, placeId: String(i % 24), inPlaceSince: since, plantedCount: 5 }
  })
  const seen = plantings.flatMap((p) =>
    SEASONS.flatMap((year) =>
      ['05-20', '06-25', '08-10'].slice(0, 2 + Math.floor(random() * 2)).map((day): Seen => {
        const truth = 3.6 + kind[library.indexOf(p.taxon)]! + place[Number(p.placeId)]! + 0.6 * normal(random)
        const rating = Math.max(1, Math.min(5, Math.round(truth)))
        return {
          plantingId: p.id,
          on: `${year}-${day}`,
          rating,
          living: null,
          stage: null,
          flush: null,
          absent: false,
          signs: [],
        }
      }),
    ),
  )
  const light = (id: string) => (['full sun', 'part sun', 'part shade'] as const)[Number(id) % 3]
  const start = performance.now()
  const record = gardenRecord(plantings, seen, [], {
    yearOfSeason: () => USUAL_YEAR,
    south: false,
    lightOf: light,
  })
  const taxa = taxonRecords(plantings, record, (id) => id)
  const ms = performance.now() - start
  const { model } = record
  say(
    `seed ${seed}: ${seen.length} looks, ${model!.records} season scores, ${taxa.length} kinds, ${
      model!.lights.length
    } kinds in a light, ${model!.iterations} steps: ${ms.toFixed(0)} ms`,
  )
  if (ms > 1000) process.exitCode = 1
}
