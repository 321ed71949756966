import { normal, type Random } from '../src/random/index.ts'
import type { Scene } from '../src/light/index.ts'
import { aimOf, clearSkyLux, sharesPast, type LightLog, type LuxSample } from '../src/readings/index.ts'
import { solarPosition } from '../src/sun/index.ts'

/** How a simulated logger's days go: chance of a clear, a broken and a dull day. */
const CLEAR_DAYS = 0.4
const BROKEN_DAYS = 0.4
const NOISE = 0.04

/**
 * What a logger at a point of a true scene would write: the clear sky, what stands in its way, weather that changes by the
 * hour and noise. Same seed, same log.
 *
 * @param fromMs first sample, UTC
 */
export function simulateLog(
  scene: Scene,
  at: Pick<LightLog, 'x' | 'y' | 'z' | 'ground'>,
  { fromMs, days, everyMin }: { fromMs: number; days: number; everyMin: number },
  random: Random,
): LuxSample[] {
  const samples: LuxSample[] = []
  const perDay = Math.round(1440 / everyMin)
  for (let day = 0; day < days; day++) {
    const kind = random()
    const dull = kind > CLEAR_DAYS + BROKEN_DAYS
    let cloud = kind < CLEAR_DAYS ? 0 : dull ? 0.85 : 0
    for (let k = 0; k < perDay; k++) {
      const instantMs = fromMs + (day * perDay + k) * everyMin * 60_000
      // Broken cloud comes and goes over half an hour or so.
      if (!dull && kind >= CLEAR_DAYS && random() < everyMin / 35)
        cloud = random() < 0.5 ? 0 : 0.5 + 0.45 * random()
      const { elevationDeg } = solarPosition(instantMs, scene.latitudeDeg, scene.longitudeDeg)
      const sky = clearSkyLux(elevationDeg)
      const aim = aimOf(scene, { instantMs, ...at }, true)
      const share = aim ? scene.obstructions.reduce((product, o) => product * sharesPast([aim], o)[0]!, 1) : 0
      const lux =
        (sky.direct * share * (1 - cloud) + sky.diffuse * (1 + 0.6 * cloud)) * (1 + NOISE * normal(random))
      samples.push({ instantMs, lux: Math.max(0, Math.round(lux)) })
    }
  }
  return samples
}
