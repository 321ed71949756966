/**
 * Depletion of a root zone, or of a pot, at the end of a day, before its limits of nothing and of all there is (eq. 85). What has come in is
 * drawn on the same day; short of water a plant draws less, by its stress coefficient (eq. 84).
 *
 * FAO Irrigation and Drainage Paper 56 (Allen, Pereira, Raes and Smith 1998), chapter 8.
 *
 * @param depletion at the beginning, millimetres or litres, as all else
 * @param evapotranspiration of a plant that has what it wants
 * @returns below 0 what runs through, above the whole what was not there to be drawn
 */
export function dayOfWaterBalance(
  depletion: number,
  { total, readily }: { total: number; readily: number },
  water: number,
  evapotranspiration: number,
): number {
  const start = Math.max(0, depletion - water)
  const stress = start <= readily ? 1 : Math.max(0, (total - start) / (total - readily))
  return depletion - water + stress * evapotranspiration
}
