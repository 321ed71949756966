import type { WeatherPattern } from '../weather.ts'
import { blendOf, type ClimateSite } from './blend.ts'

/** Gardens within this of each other have one weather, degrees. */
const GRID_DEG = 0.1

/** What the weather of a place is drawn from where nobody measured it: the blend of the usual years of the towns about it. */
export function patternAt(site: ClimateSite): WeatherPattern {
  const [latitude, longitude] = [onGrid(site.latitude), onGrid(site.longitude)]
  const seed = Math.round((latitude + 90) / GRID_DEG) * 3601 + Math.round((longitude + 180) / GRID_DEG)
  return { months: blendOf({ ...site, latitude, longitude }), seed }
}

const onGrid = (degrees: number) => Math.round(degrees / GRID_DEG) * GRID_DEG
