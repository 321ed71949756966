/**
 * Reference evapotranspiration after FAO Irrigation and Drainage Paper 56 (Allen, Pereira, Raes and Smith 1998):
 * numbers of equations are of that paper.
 */

const SOLAR_CONSTANT_MJ_PER_M2_MIN = 0.082
const MINUTES_PER_DAY = 1440
/** Latent heat of vaporisation at about 20 °C (FAO-56, annex 3). */
const LATENT_HEAT_MJ_PER_KG = 2.45

/**
 * Radiation at the top of the air over a day, eq. 21 with eq. 23 to 25.
 *
 * @param dayOfYear 1 to 366
 * @returns MJ per square metre and day; 0 in the polar night
 */
export function extraterrestrialRadiation(latitudeDeg: number, dayOfYear: number): number {
  const latitude = (latitudeDeg * Math.PI) / 180
  const turn = (2 * Math.PI * dayOfYear) / 365
  const inverseDistance = 1 + 0.033 * Math.cos(turn)
  const declination = 0.409 * Math.sin(turn - 1.39)
  const cosSunset = -Math.tan(latitude) * Math.tan(declination)
  const sunset = Math.acos(Math.min(1, Math.max(-1, cosSunset)))
  return (
    (MINUTES_PER_DAY / Math.PI) *
    SOLAR_CONSTANT_MJ_PER_M2_MIN *
    inverseDistance *
    (sunset * Math.sin(latitude) * Math.sin(declination) +
      Math.cos(latitude) * Math.cos(declination) * Math.sin(sunset))
  )
}

/**
 * Reference evapotranspiration from temperature alone, eq. 52 (Hargreaves and Samani 1985).
 *
 * @returns millimetres a day, never below 0
 */
export function referenceEvapotranspiration(
  day: { minC: number; maxC: number },
  latitudeDeg: number,
  dayOfYear: number,
): number {
  const radiationMm = extraterrestrialRadiation(latitudeDeg, dayOfYear) / LATENT_HEAT_MJ_PER_KG
  const mean = (day.minC + day.maxC) / 2
  return Math.max(0, 0.0023 * (mean + 17.8) * Math.sqrt(day.maxC - day.minC) * radiationMm)
}
