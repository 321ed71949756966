import { joinLight, lightParts, usualThen, type GardenLight } from '@border/core'
import { derive } from '../derived.ts'
import type { GardenReader } from '../reader.ts'
import type { ComputePool } from './compute.ts'

/** The day that is compared with: what was asked for; today, for a day ahead; else null, and the light finds the one worth it. */
export const comparedDay = ({ today }: GardenReader, on: string, then: string | undefined): string | null =>
  then ?? (on > today ? today : null)

/** Threads that share the light of one garden, whoever else waits for one. */
const LIGHT_THREADS = 2

/**
 * The light of a garden on a day.
 *
 * @param then the day that is compared with; the one most worth it unless somebody chose it
 */
export async function lightOfGarden(
  reader: GardenReader,
  pool: ComputePool,
  on: string,
  then?: string,
): Promise<{ then: string; light: GardenLight }> {
  const compared = comparedDay(reader, on, then)
  return derive(reader, ['light', [on, compared]], async () => {
    const garden = await reader.standing(on)
    const then = compared ?? usualThen(garden.scene.obstructions, on)
    const parts = await Promise.all(
      lightParts(garden, LIGHT_THREADS).map((part) => pool.run('light', { garden: part, then, on })),
    )
    return { then, light: joinLight(garden, parts) }
  })
}
