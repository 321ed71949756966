/**
 * The daily sheet of FAO Irrigation and Drainage Paper 56 (Allen, Pereira, Raes and Smith 1998), as its examples 35 and 36 fill it
 * in: a line a day, each quantity in its column. Written apart from the engine, with the sky's radiation summed minute by minute
 * over the day where the paper has its integral.
 */
export interface SheetDay {
  day: string
  minC: number
  maxC: number
  rainMm: number
  irrigationMm: number
}

export interface SheetInput {
  latitudeDeg: number
  cropCoefficient: number
  /** Rain of less than this share of the day's reference evapotranspiration counts as none. */
  lightRainShare: number
  /** Total and readily available water of the root zone on a day, mm. */
  zone: (day: string) => { totalMm: number; readilyMm: number }
}

export interface SheetLine {
  day: string
  depletionAtFirstMm: number
  readilyMm: number
  /** 1 while the plant has what it wants. */
  stress: number
  percolationMm: number
  depletionMm: number
}

export function waterSheet(days: readonly SheetDay[], input: SheetInput): SheetLine[] {
  let depletionAtFirstMm = 0
  return days.map(({ day, minC, maxC, rainMm, irrigationMm }) => {
    const { totalMm, readilyMm } = input.zone(day)
    const reference = hargreaves(day, minC, maxC, input.latitudeDeg)
    const water = (rainMm < input.lightRainShare * reference ? 0 : rainMm) + irrigationMm
    const afterWater = depletionAtFirstMm - water
    const short = Math.max(0, afterWater)
    const stress = short <= readilyMm ? 1 : Math.max(0, (totalMm - short) / (totalMm - readilyMm))
    const adjusted = stress * input.cropCoefficient * reference
    const percolationMm = Math.max(0, water - adjusted - depletionAtFirstMm)
    const depletionMm = Math.min(totalMm, afterWater + adjusted + percolationMm)
    const line = { day, depletionAtFirstMm, readilyMm, stress, percolationMm, depletionMm }
    depletionAtFirstMm = depletionMm
    return line
  })
}

/** Reference evapotranspiration of a day, mm: eq. 52, with the radiation as the water that it would turn to vapour. */
export function hargreaves(day: string, minC: number, maxC: number, latitudeDeg: number): number {
  const depthMm = skyRadiation(day, latitudeDeg) / 2.45
  return Math.max(0, 0.0023 * ((minC + maxC) / 2 + 17.8) * (maxC - minC) ** 0.5 * depthMm)
}

/** Radiation on level ground at the top of the air, MJ a square metre and day: the sun's height of every minute summed. */
export function skyRadiation(day: string, latitudeDeg: number): number {
  const first = Date.UTC(Number(day.slice(0, 4)), 0, 1)
  const number = (Date.parse(`${day}T00:00Z`) - first) / 86_400_000 + 1
  const year = (2 * Math.PI * number) / 365
  const [declination, latitude] = [0.409 * Math.sin(year - 1.39), (latitudeDeg * Math.PI) / 180]
  let sum = 0
  for (let minute = 0.5; minute < 1440; minute++) {
    const hourAngle = ((minute - 720) / 720) * Math.PI
    const height =
      Math.sin(latitude) * Math.sin(declination) +
      Math.cos(latitude) * Math.cos(declination) * Math.cos(hourAngle)
    sum += Math.max(0, height)
  }
  return 0.082 * (1 + 0.033 * Math.cos(year)) * sum
}
