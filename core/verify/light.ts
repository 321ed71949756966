import { marchedHours } from '../reference/rayMarcher.ts'
import { sampleScene } from '../simulated/index.ts'
import { addDays } from '../src/dates/index.ts'
import { seededRandom } from '../src/random/index.ts'
import { lightField, rasterOver, sunHours } from '../src/light/index.ts'

/** How far the engine's hours of sun at some points of a garden lie from those of rays marched through it. */
export interface LightDeviation {
  /** Of rays traced and of the field drawn from shadows: hours of each point that they are off by. */
  traced: number[]
  drawn: number[]
}

const CELL_M = 0.5
const STEP_M = 0.05
/** Where a march is this far off, hours, it is done again in tenths of its steps: they may have missed what a ray grazes. */
const OFF_HOURS = 0.02

/** A made-up garden with a dozen things of every kind, on a day of the year, on the level or on a slope. */
export function lightDeviation(seed: number, points = 4): LightDeviation {
  const { scene, beds } = sampleScene(seed, 12, 60)
  const random = seededRandom(seed * 13 + 5)
  const dice = (n: number) => Math.floor(random() * n)
  const on = addDays('2026-01-01', dice(365))
  const ground = { slopeDeg: [0, 0, 12, 30][dice(4)]!, aspectDeg: dice(360) }
  const raster = rasterOver(beds, CELL_M)
  const field = lightField(scene, raster, { kind: 'day', on }, ground)
  const traced: number[] = []
  const drawn: number[] = []
  for (let k = 0; k < points; k++) {
    const cell = dice(raster.count)
    const point = { x: raster.x[cell]!, y: raster.y[cell]!, z: 0 }
    const [hours] = sunHours(scene, [point], { kind: 'day', on }, ground)
    const inField = { total: field.total[cell]!, heat: field.heat[cell]! }
    let marched = marchedHours(scene, point, on, ground, STEP_M)
    if (off(hours!, marched) > OFF_HOURS) marched = marchedHours(scene, point, on, ground, STEP_M / 10)
    traced.push(off(hours!, marched))
    drawn.push(off(inField, marched))
  }
  return { traced, drawn }
}

type Hours = Record<'total' | 'heat', number>

const off = (a: Hours, b: Hours) => Math.max(Math.abs(a.total - b.total), Math.abs(a.heat - b.heat))
