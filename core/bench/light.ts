import {
  lightDays,
  lightField,
  LightStage,
  pastSolid,
  rasterOver,
  type LightPeriod,
  type Obstruction,
  type Raster,
  type Scene,
} from '../src/light/index.ts'
import { sampleScene } from '../simulated/index.ts'

/**
 * How fast the light is worked out: the whole field, and one obstruction changed, against the plain loop over every
 * cell, position of the sun and obstruction in the same run, with the hours of both compared. Then how the time grows.
 */
const YEAR: LightPeriod = { kind: 'year', on: '2026-06-15' }
const SEEDS = [7, 19, 42]

const say = (text = '') => process.stdout.write(`${text}\n`)
const median = (values: readonly number[]) =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!
const quantile90 = (values: readonly number[]) =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length * 0.9)]!

function milliseconds(work: () => unknown): number {
  const start = performance.now()
  work()
  return performance.now() - start
}
const medianOf = (runs: number, work: () => unknown) =>
  median(Array.from({ length: runs }, () => milliseconds(work)))

/** Nothing left out, nothing remembered. */
function plainLoop(scene: Scene, raster: Raster, period: LightPeriod): Float32Array {
  const days = lightDays(scene, period)
  return Float32Array.from({ length: raster.count }, (_, i) => {
    let sum = 0
    for (const { solids, directions } of days)
      for (const d of directions) {
        let share = 1
        for (const s of solids) share *= pastSolid(s, raster.x[i]!, raster.y[i]!, 0, d)
        sum += share / 6
      }
    return sum / days.length
  })
}

const positionsIn = (scene: Scene, period: LightPeriod) =>
  lightDays(scene, period).reduce((sum, d) => sum + d.directions.length, 0)

const furthest = (a: Float32Array, b: Float32Array) =>
  a.reduce((worst, h, i) => Math.max(worst, Math.abs(h - b[i]!)), 0)

const altered = (o: Obstruction, k: number): Obstruction => ({ ...o, heightM: o.heightM * (1 + 0.02 * k) })

let furthestApart = 0
say('24 half-months, made-up scenes')
say('seed  cells  obstr.  sun pos.   plain loop    whole field  ratio   one changed: median  9 in 10  ratio')
for (const seed of SEEDS) {
  const { scene, beds } = sampleScene(seed)
  const raster = rasterOver(beds)
  let plain!: Float32Array
  const plainMs = milliseconds(() => (plain = plainLoop(scene, raster, YEAR)))
  const fieldMs = medianOf(7, () => lightField(scene, raster, YEAR))
  furthestApart = Math.max(furthestApart, furthest(plain, lightField(scene, raster, YEAR).total))
  const trials = scene.obstructions.flatMap((o) => {
    const stage = new LightStage(scene, raster, YEAR, o.id)
    furthestApart = Math.max(furthestApart, furthest(plain, stage.withChanged(o).total))
    return [1, 2, 3, 4, 5].map((k) => milliseconds(() => stage.withChanged(altered(o, k))))
  })
  const trialMs = median(trials)
  say(
    `${String(seed).padStart(4)}  ${raster.count}  ${String(scene.obstructions.length).padStart(6)}  ${String(positionsIn(scene, YEAR)).padStart(8)}  ` +
      `${plainMs.toFixed(0).padStart(8)} ms  ${fieldMs.toFixed(0).padStart(10)} ms  ${(plainMs / fieldMs).toFixed(0).padStart(4)}x   ` +
      `${trialMs.toFixed(1).padStart(16)} ms  ${quantile90(trials).toFixed(1).padStart(4)} ms  ${(plainMs / trialMs).toFixed(0)}x`,
  )
}
say(`Furthest apart of both in any cell: ${furthestApart.toFixed(4)} h`)

say()
say('How the time of the whole field grows (seed 7, medians of 5)')
const grows = (label: string, rows: [string, () => unknown][]) => {
  say(label)
  for (const [name, work] of rows) say(`  ${name.padStart(8)}  ${medianOf(5, work).toFixed(0)} ms`)
}
const { scene, beds } = sampleScene(7)
grows(
  'cells',
  [1250, 2500, 5000, 10_000, 20_000].map((cells) => {
    const sample = sampleScene(7, 20, cells / 16)
    const raster = rasterOver(sample.beds)
    return [String(raster.count), () => lightField(sample.scene, raster, YEAR)]
  }),
)
const raster = rasterOver(beds)
grows('half-months', [
  ['1', () => lightField(scene, raster, { kind: 'day', on: YEAR.on })],
  ['12', () => lightField(scene, raster, { kind: 'season', on: YEAR.on })],
  ['24', () => lightField(scene, raster, YEAR)],
])
grows(
  'obstructions',
  [0, 5, 10, 20, 40].map((n) => {
    const sample = sampleScene(7, n)
    return [String(n), () => lightField(sample.scene, raster, YEAR)]
  }),
)
if (furthestApart > 0.05) {
  say('The two do not give the same hours.')
  process.exitCode = 1
}
