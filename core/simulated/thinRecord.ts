import type { LightClass } from '../src/light/index.ts'
import type { RecordedPlanting, SeasonScore } from '../src/performance/index.ts'
import { library } from '../src/plants/index.ts'
import { normal, seededRandom } from '../src/random/index.ts'

/** A garden's season scores of which little is known: few kinds, few places, few seasons, each of them sometimes one. */
export interface ThinRecord {
  plantings: RecordedPlanting[]
  scores: SeasonScore[]
  lightOf: (plantingId: string) => LightClass | undefined
  /** How it is thin, in words. */
  thin: string
}

const lightClasses = ['full sun', 'part sun', 'part shade'] as const

/** @param seed of every choice: how many of what, what is true, and chance */
export function thinRecord(seed: number): ThinRecord {
  const random = seededRandom(seed)
  const between = (low: number, high: number) => low + Math.floor(random() * (high - low + 1))
  const kinds = between(3, 20)
  const places = between(1, 6)
  const seasons = between(1, 5)
  const most = random() < 0.4 ? 1 : between(2, 4)
  const [missing, level] = [random() < 0.5 ? 0 : 0.4 * random(), random() < 0.05]
  const knowsLight = random() < 0.4
  const sd = { taxon: 0.9 * random(), place: 0.8 * random(), year: 0.6 * random(), planting: 0.6 * random() }
  const effects = (n: number, by: number) => Array.from({ length: n }, () => by * normal(random))
  const [ofKind, ofPlace, ofYear] = [
    effects(kinds, sd.taxon),
    effects(places, sd.place),
    effects(seasons, sd.year),
  ]
  const taxa = Array.from({ length: kinds }, (_, k) => library[(k * 17 + seed) % library.length]!)
  const plantings: RecordedPlanting[] = []
  const scores: SeasonScore[] = []
  const light = new Map<string, LightClass>()
  taxa.forEach((taxon, kind) => {
    for (let copy = between(1, most); copy > 0; copy--) {
      const place = between(0, places - 1)
      const id = `planting ${plantings.length}`
      const own = sd.planting * normal(random)
      plantings.push({ id, taxon, placeId: `place ${place}`, inPlaceSince: '2012-04-01', plantedCount: 3 })
      if (knowsLight) light.set(id, lightClasses[between(0, 2)]!)
      for (let season = 0; season < seasons; season++) {
        if (random() < missing) continue
        const truth = 3.6 + ofKind[kind]! + ofPlace[place]! + ofYear[season]! + own
        const looks = between(1, 3)
        const ratings = Array.from({ length: looks }, () =>
          level ? 4 : Math.max(1, Math.min(5, Math.round(truth + 0.5 * normal(random)))),
        )
        const score = ratings.reduce((a, b) => a + b, 0) / looks
        scores.push({
          plantingId: id,
          season: 2021 + season,
          score,
          adjusted: score,
          weight: Math.min(2, looks * (0.4 + 0.6 * random())),
          walks: looks,
          seasonInPlace: 10 + season,
          settling: false,
          resting: false,
        })
      }
    }
  })
  const thin = `${kinds} kinds, ${plantings.length} plantings, ${places} places, ${seasons} seasons${level ? ', all rated 4' : ''}`
  return { plantings, scores, lightOf: (id) => light.get(id), thin }
}
