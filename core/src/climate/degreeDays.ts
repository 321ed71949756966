/** Plants of temperate gardens grow above about this, °C; the growing season of climate statistics (ETCCDI) is counted from it too. */
export const GROWTH_C = 5

/**
 * Degree days of one day above a lower threshold, by a sine wave through its lowest and highest temperature
 * (Baskerville and Emin 1969, Ecology 50, 514-517, eq. 2-5).
 *
 * @returns degree Celsius days; 0 when the day never reaches the threshold
 */
export function degreeDays(minC: number, maxC: number, lowerC: number): number {
  if (maxC <= lowerC) return 0
  const mean = (minC + maxC) / 2
  if (minC >= lowerC) return mean - lowerC
  const amplitude = (maxC - minC) / 2
  const crossing = Math.asin((lowerC - mean) / amplitude)
  return (amplitude * Math.cos(crossing) - (lowerC - mean) * (Math.PI / 2 - crossing)) / Math.PI
}
