import { median } from 'd3-array'
import loadHighs from 'highs'
import { london } from '../src/climate/test/london.ts'
import { simulatedLayout, simulatedRelocation } from '../simulated/index.ts'
import {
  finished,
  grownOver,
  highsSolver,
  laidGreedily,
  layOut,
  layoutScore,
  library,
  palettesFor,
  relocate,
  relocatedGreedily,
  weeksOfShow,
  weekStarts,
  yearAt,
  type Candidate,
  type StandingPlant,
} from '../src/index.ts'
import { timed } from './timed.ts'

/**
 * Figures of a rework: where what leaves goes, beside a quick hand and the solver's bound, and palettes from the whole library.
 * `npm run bench:rework -w core`
 */
const solve = highsSolver(await loadHighs())
const middle = (of: readonly number[]) => median(of)!
const say = (...of: unknown[]) => process.stdout.write(`${of.join(' ')}\n`)

// The first solve makes the solver ready: a thread that solves stays.
relocate(simulatedRelocation(100, 60, 40), solve)
/** None of them was looked at while the search was made. */
const SEEDS = Array.from({ length: 60 }, (_, i) => 7001 + i)
const moves = SEEDS.map((seed) => {
  const problem = simulatedRelocation(seed, 60, 40)
  const [found, ms] = timed(() => relocate(problem, solve))
  if (!found.ok) throw new Error(`seed ${seed}: ${found.why}`)
  const greedy = relocatedGreedily(problem).reduce((sum, d) => sum + d.cost, 0)
  return { ms, gap: found.gap, better: 1 - found.cost / greedy }
})
say(
  `relocation of 60 plantings over 40 spots, ${SEEDS.length} seeds:`,
  `${Math.round(middle(moves.map((m) => m.ms)))} ms in the middle, ${Math.round(Math.max(...moves.map((m) => m.ms)))} at most, ${moves.filter((m) => m.ms > 1000).length} over a second;`,
  `gap at most ${(100 * Math.max(...moves.map((m) => m.gap))).toFixed(2)} %;`,
  `${Math.round(100 * middle(moves.map((m) => m.better)))} % less cost than a quick hand in the middle, ${Math.round(100 * Math.min(...moves.map((m) => m.better)))} % at least`,
)

const weeks = weekStarts(weeksOfShow(london, 2026, false))
const priceOf = (form: string) => (/tree/.test(form) ? 6000 : /shrub|climber/.test(form) ? 1800 : 450)
const candidates = library
  .filter((t) => t.hardyToC <= -8)
  .map((taxon, i): Candidate => ({
    taxon,
    from: 'library',
    fit: 0.7 + ((i * 7) % 4) / 10,
    price: priceOf(taxon.lifeForm),
  }))
for (const areaM2 of [6, 12, 30, 60]) {
  const [answer, ms] = timed(() =>
    palettesFor(
      candidates,
      {
        areaM2,
        stays: [],
        weeks,
        season: 2026,
        year: yearAt(london),
        drifts: 'odd',
        tallestM: 2,
        kinds: { least: 6, most: 14 },
        evergreenShare: 0.15,
        layerShares: { front: 0.2, middle: 0.2, back: 0.15 },
      },
      solve,
    ),
  )
  if (!answer.ok) throw new Error(`palette of ${areaM2} m2: ${answer.why}`)
  const gaps = answer.palettes.map((p) => p.gap)
  say(
    `palettes of ${areaM2} m2 from ${candidates.length} kinds: ${answer.palettes.length} in ${Math.round(ms)} ms,`,
    `gap at most ${(100 * Math.max(...gaps)).toFixed(2)} % of what a bare place lacks`,
  )
}

const beds = Array.from({ length: 20 }, (_, i) => {
  const problem = simulatedLayout(201 + i, 60, 20)
  const [layout, ms] = timed(() => finished(layOut(problem, 1)))
  return { ms, better: 1 - layout.score.total / layoutScore(problem, laidGreedily(problem)).total }
})
say(
  `layout of 60 m2 with 20 drifts, ${beds.length} seeds:`,
  `${Math.round(middle(beds.map((b) => b.ms)))} ms in the middle, ${Math.round(Math.max(...beds.map((b) => b.ms)))} at most;`,
  `${Math.round(100 * middle(beds.map((b) => b.better)))} % better than a quick hand in the middle, ${Math.round(100 * Math.min(...beds.map((b) => b.better)))} % at least`,
)

/** A border of ten kinds in rows, tall ones among them. */
const rowsOf = [
  'Miscanthus sinensis',
  'Helenium autumnale',
  'Buddleja davidii',
  'Phlox paniculata',
  'Nepeta × faassenii',
]
const border = Array.from({ length: 500 }, (_, i): StandingPlant => {
  const botanical = rowsOf[Math.floor(i / 100)]!
  const taxon = library.find((t) => t.botanical === botanical)!
  return {
    id: `${i}`,
    groupId: botanical,
    taxon,
    x: (i % 25) * 0.6,
    y: Math.floor(i / 25) * 0.35,
    ageYears: 0,
  }
})
const open = { latitudeDeg: 52, longitudeDeg: 0, northDeg: 0, obstructions: [] }
const grown = Array.from(
  { length: 5 },
  () => timed(() => grownOver(open, border, [1, 2, 3, 5, 10], '2026-06-15'))[1],
)
say(`growth and shade of 500 plants over ten years: ${Math.round(middle(grown))} ms in the middle`)
