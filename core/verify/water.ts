import { waterSheet, type SheetDay } from '../reference/waterSheet.ts'
import { seededRandom } from '../src/random/index.ts'
import { waterBalance, type RootingPlant } from '../src/care/index.ts'
import { addDays, daysBetween } from '../src/dates/index.ts'

/** How far the engine's water of a plant not yet rooted in lies from the sheet of the paper filled in by hand. */
export interface WaterDeviation {
  /** Of what is gone from the root zone, mm, on the worst of the days asked for. */
  depletionMm: number
  /** Days that the day it needs watering is off by; Infinity where only one of the two knows one. */
  dueDays: number
}

/** Water between field capacity and wilting, middles of the paper's table 19, and the share that may go before a plant lacks it. */
const SOILS = [
  { texture: 'sand', available: 0.08 },
  { texture: 'loam', available: 0.155 },
  { texture: 'clay', available: 0.16 },
] as const
const TASTES = [
  { moistureMin: 4, moistureMax: 5, share: 0.3 },
  { moistureMin: 2, moistureMax: 4, share: 0.4 },
  { moistureMin: 1, moistureMax: 2, share: 0.5 },
] as const
const DAYS = 120

/** A plant somewhere on earth, set on a day of the year, with dry spells, rain and a can now and then. */
export function waterDeviation(seed: number): WaterDeviation {
  const random = seededRandom(seed * 17 + 3)
  const pick = <T>(from: readonly T[]) => from[Math.floor(random() * from.length)]!
  const soil = pick(SOILS)
  const { share, ...moisture } = pick(TASTES)
  const since = addDays('2026-01-01', Math.floor(random() * 365))
  const latitudeDeg = -65 + 130 * random()
  const areaM2 = 0.2 + 3 * random()
  const plant: RootingPlant = {
    since,
    taxon: { ...moisture, lifeForm: 'perennial' },
    areaM2,
    texture: soil.texture,
  }
  const days = Array.from({ length: DAYS }, (_, i): SheetDay => {
    const minC = 4 + 14 * random()
    const isWet = random() < 0.25
    return {
      day: addDays(since, i),
      minC,
      maxC: minC + 2 + 14 * random(),
      rainMm: isWet ? 12 * random() ** 2 : 0,
      irrigationMm: random() < 0.06 ? 15 * random() : 0,
    }
  })
  const waterings = days
    .filter((d) => d.irrigationMm > 0)
    .map((d) => ({ day: d.day, litres: d.irrigationMm * areaM2 }))
  const sheet = waterSheet(days, {
    latitudeDeg,
    cropCoefficient: 0.8,
    lightRainShare: 0.2,
    zone(day) {
      // Roots go from 15 to 40 cm in their first year.
      const depthM = 0.15 + 0.25 * Math.min(1, daysBetween(since, day) / 365)
      const totalMm = 1000 * soil.available * depthM
      return { totalMm, readilyMm: share * totalMm }
    },
  })
  const off = { depletionMm: 0, dueDays: 0 }
  for (let asked = 10; asked < DAYS; asked += 10) {
    const today = days[asked]!.day
    const { depletionMm, dueOn } = waterBalance(plant, days, today, waterings, latitudeDeg)
    const due = sheet.slice(asked).find((line) => line.depletionAtFirstMm >= line.readilyMm)?.day ?? null
    off.depletionMm = Math.max(off.depletionMm, Math.abs(depletionMm - sheet[asked]!.depletionAtFirstMm))
    off.dueDays = Math.max(
      off.dueDays,
      due === null || dueOn === null ? (due === dueOn ? 0 : Infinity) : Math.abs(daysBetween(due, dueOn)),
    )
  }
  return off
}
