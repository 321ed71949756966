import type { Random } from '../src/random/index.ts'
import {
  lightField,
  rasterOver,
  standing,
  withSuppositions,
  type Obstruction,
  type Scene,
  type Supposition,
} from '../src/light/index.ts'
import type { Ring } from '../src/geometry/index.ts'
import {
  aimOf,
  blockAsBuilding,
  brightnesses,
  DAPPLED_FROM,
  DAPPLED_TO,
  SHADE_TO,
  sharesPast,
  SUN_FROM,
  type Brightness,
  type Look,
} from '../src/readings/index.ts'

/** What somebody says who looks at a true scene: where the light is between two words either may be said. */
export function lookAt(scene: Scene, look: Look, random: Random, errorRate: number): Brightness | undefined {
  const stood = { ...look, x: look.x + 0.4 * (random() - 0.5), y: look.y + 0.4 * (random() - 0.5) }
  const aim = aimOf(scene, stood)
  if (!aim) return undefined
  const share = scene.obstructions.reduce((product, o) => product * sharesPast([aim], o)[0]!, 1)
  const right: Brightness =
    share < SHADE_TO + (DAPPLED_FROM - SHADE_TO) * random()
      ? 'shade'
      : share > DAPPLED_TO + (SUN_FROM - DAPPLED_TO) * random()
        ? 'sun'
        : 'dappled'
  if (random() >= errorRate) return right
  const wrong = brightnesses.filter((b) => b !== right)
  return wrong[Math.floor(random() * wrong.length)]
}

/** Hours that the tenth of the cells which moved most moved by at least. */
function felt(a: Float32Array, b: Float32Array): number {
  const moved = a.map((h, i) => Math.abs(h - b[i]!)).sort()
  return moved[Math.floor(moved.length * 0.9)]!
}

export type SimulatedChange = 'felled' | 'lowered' | 'grown' | 'new building'

export interface HiddenScene {
  what: SimulatedChange
  /** What changed; undefined for the new building. */
  obstructionId?: string
  /** Bearing of the new building from the middle of the beds, degrees. */
  bearingDeg?: number
  scene: Scene
}

/** A tenth of the ground changes by at least this, mean hours a day of the growing season: a plant would notice. */
const FELT_HOURS = 0.75

/**
 * A scene in which one thing is other than drawn, and to be felt in the beds.
 *
 * @returns undefined when fifty tries found none
 */
export function hideChange(
  drawn: Scene,
  beds: readonly Ring[],
  what: SimulatedChange,
  random: Random,
  on: string,
): HiddenScene | undefined {
  const raster = rasterOver(beds, 1)
  const season = { kind: 'season', on } as const
  const before = lightField(drawn, raster, season).total
  for (let attempt = 0; attempt < 50; attempt++) {
    const hidden = what === 'new building' ? withBuilding() : withTrial()
    if (!hidden) continue
    const after = lightField(hidden.scene, raster, season).total
    if (felt(before, after) < FELT_HOURS) continue
    // Lowered so far that nothing of it shades the beds any more is as good as gone.
    const gone = {
      ...hidden.scene,
      obstructions: drawn.obstructions.filter((o) => o.id !== hidden.obstructionId),
    }
    if (what !== 'lowered' || felt(after, lightField(gone, raster, season).total) >= FELT_HOURS / 3)
      return hidden
  }
  return undefined

  function withTrial(): HiddenScene | undefined {
    const o = drawn.obstructions[Math.floor(random() * drawn.obstructions.length)]!
    const supposition = trialFor(o)
    return supposition && { what, obstructionId: o.id, scene: withSuppositions(drawn, [supposition], on) }
  }

  function trialFor(o: Obstruction): Supposition | undefined {
    const id = { obstructionId: o.id }
    const solid = standing(o, on)
    if (!solid || (what === 'grown' && o.kind !== 'tree' && o.kind !== 'hedge')) return undefined
    if (what === 'felled') return { ...id, gone: true }
    if (what === 'lowered') return { ...id, heightM: solid.heightM * (0.25 + 0.4 * random()) }
    const factor = 1.4 + 0.8 * random()
    return {
      ...id,
      heightM: solid.heightM * factor,
      ...(solid.shape === 'crown' ? { crownRadiusM: solid.radiusM * (1 + 0.6 * (factor - 1)) } : {}),
    }
  }

  function withBuilding(): HiddenScene | undefined {
    const xs = beds.flatMap((b) => b.map((p) => p[0]))
    const ys = beds.flatMap((b) => b.map((p) => p[1]))
    const middle = [(Math.min(...xs) + Math.max(...xs)) / 2, (Math.min(...ys) + Math.max(...ys)) / 2] as const
    const bearingDeg = 360 * random()
    const outside = Math.hypot(Math.max(...xs) - middle[0], Math.max(...ys) - middle[1])
    const building = blockAsBuilding(
      { bearingDeg, distanceM: outside + 8 * random(), widthM: 5 + 8 * random(), heightM: 4 + 7 * random() },
      middle,
      drawn.northDeg,
    )
    return { what, bearingDeg, scene: { ...drawn, obstructions: [...drawn.obstructions, building] } }
  }
}
