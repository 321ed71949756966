import { describe, expect, it } from 'vitest'
import type { Planting, StandingGarden } from '../garden/index.ts'
import { madeBed, madePlanting, rectangle } from '../garden/test/made.ts'
import { seededRandom } from '../random/index.ts'
import {
  sunHours,
  withSuppositions,
  type Obstruction,
  type Scene,
  type SunHours,
  type TreeRecord,
} from '../light/index.ts'
import type { Opening } from '../remedies/index.ts'
import { isOutside, lightFit, openings } from './index.ts'

const NOW = '2026-06-15'
const season = { kind: 'season', on: NOW } as const

const at = (scene: Scene, { x, y }: { x: number; y: number }): SunHours =>
  sunHours(scene, [{ x, y, z: 0 }], season)[0]!

/** The scene with the cut made, by the door that a what-if on the Light screen goes through. */
const cut = (scene: Scene, { obstructionId, clearStemM, thinnedBy }: Partial<Opening>): Scene =>
  withSuppositions(
    scene,
    [
      {
        obstructionId: obstructionId!,
        clearStemM: clearStemM ?? undefined,
        thinnedBy: thinnedBy ?? undefined,
      },
    ],
    NOW,
  )

const lightAt = (scene: Scene, plantings: readonly Planting[]) => ({
  plantings: plantings.map((p) => {
    const now = at(scene, p)
    return { plantingId: p.id, before: now, now, causes: [] }
  }),
})

const treeAt = (id: string, x: number, y: number, more: Partial<TreeRecord> = {}): TreeRecord => ({
  id,
  name: `tree ${id}`,
  kind: 'tree',
  x,
  y,
  heightM: 9,
  trunkRadiusM: 0.1,
  clearStemM: 0.5,
  crownRadiusM: 3,
  crownShape: 'column',
  transmissionInLeaf: 0.05,
  transmissionBare: 0.5,
  ...more,
})
/** From north to south, and too high for the sun of morning or evening. */
const wallAt = (id: string, x: number): Obstruction => ({
  id,
  name: id,
  kind: 'wall',
  line: [
    [x, -20],
    [x, 20],
  ],
  heightM: 7,
  thicknessM: 0.2,
  transmission: 0,
})
const sceneWith = (...obstructions: Obstruction[]): Scene => ({
  latitudeDeg: 48,
  longitudeDeg: 2,
  northDeg: 0,
  obstructions,
})

describe('what would let the light in', () => {
  it('does: the same cut supposed on the Light screen brings the planting into its range, and a lesser one does not', () => {
    const random = seededRandom(5)
    const between = (low: number, high: number) => low + (high - low) * random()
    const seen = { raised: 0, thinned: 0, both: 0 }
    for (let k = 0; k < 60; k++) {
      const trees = ['a', 'b'].map((id) =>
        treeAt(id, between(-4, 4), between(-2, 5), {
          heightM: between(6, 16),
          clearStemM: between(1, 4.5),
          crownRadiusM: between(2, 6),
          transmissionInLeaf: between(0.05, 0.6),
        }),
      )
      const scene = sceneWith(...trees, wallAt('east', 6), wallAt('west', -6))
      const garden: StandingGarden = {
        scene,
        places: [madeBed('bed', rectangle(-3, -1, 3, 4))],
        plantings: ['Helenium autumnale', 'Salvia nemorosa', 'Astrantia major'].map((kind, i) =>
          madePlanting(`p${i}`, kind, { x: 2 * i - 2, y: 1.5 }),
        ),
      }
      const light = lightAt(scene, garden.plantings)
      const offered = openings(garden, light, NOW)
      for (const [i, p] of garden.plantings.entries()) {
        const { now } = light.plantings[i]!
        const fit = lightFit(p.taxon, now)
        const o = offered[p.id]
        if (!o) continue
        seen[o.clearStemM === null ? 'thinned' : o.thinnedBy === null ? 'raised' : 'both']++
        expect(isOutside(fit) && fit.hoursOutside < 0).toBe(true)
        const tree = trees.find((t) => t.id === o.obstructionId)!
        expect(o.clearStemM ?? 0).toBeLessThanOrEqual(tree.heightM / 3)
        expect(o.thinnedBy ?? 0).toBeLessThanOrEqual(0.25)
        const gain = at(cut(scene, o), p).total - at(scene, p).total
        expect(o.gainHours).toBeCloseTo(gain, 3)
        expect(o.hours).toBeCloseTo(now.total + gain, 3)
        expect(o.hours).toBeGreaterThanOrEqual(p.taxon.lightMinHours - 0.5)
        if (o.clearStemM === null || o.thinnedBy === null) continue
        for (const lesser of [
          { ...o, clearStemM: null },
          { ...o, thinnedBy: null },
        ])
          expect(now.total + at(cut(scene, lesser), p).total - at(scene, p).total).toBeLessThan(
            p.taxon.lightMinHours - 0.5,
          )
      }
    }
    expect(
      Object.values(seen).every((times) => times > 0),
      JSON.stringify(seen),
    ).toBe(true)
  })

  it('is one tree and no more than it bears; one that stands clear already is not raised again', () => {
    const bed = madeBed('bed', rectangle(-2, 3, 2, 6))
    const stands = madePlanting('p', 'Helenium autumnale', { x: 0, y: 4 })
    const opened = (tree: TreeRecord) => {
      const garden = { scene: sceneWith(tree), places: [bed], plantings: [stands] }
      return openings(garden, lightAt(garden.scene, garden.plantings), NOW)['p']
    }
    const dense = { heightM: 12, crownRadiusM: 5 }
    expect(opened(treeAt('a', 0, 1, dense))).toMatchObject({ tree: 'tree a', clearStemM: 4 })
    expect(opened(treeAt('a', 0, 1, { ...dense, clearStemM: 3.8 }))?.clearStemM ?? null).toBeNull()
    // Out of the way of the sun it shades nothing.
    expect(opened(treeAt('a', 0, 30, dense))).toBeUndefined()
  })

  it('tells what else comes right beneath, and what would get too much', () => {
    const kinds = ['Helenium autumnale', 'Helenium autumnale', 'Matteuccia struthiopteris']
    const plantings = kinds.map((kind, i) => madePlanting(`p${i}`, kind, { x: i - 1, y: 4 }))
    const scene = sceneWith(treeAt('a', 0, 1, { heightM: 12, crownRadiusM: 5 }))
    const garden = { scene, places: [madeBed('bed', rectangle(-2, 3, 2, 6))], plantings }
    const light = lightAt(scene, plantings)
    const found = openings(garden, light, NOW)['p0']!
    const after = plantings.map((p, i) => {
      const gain = at(cut(scene, found), p).total - at(scene, p).total
      return lightFit(p.taxon, {
        ...light.plantings[i]!.now,
        morning: 0,
        total: light.plantings[i]!.now.total + gain,
      })
    })
    expect(isOutside(after[1]!)).toBe(false)
    expect(found.alsoRight).toBe(1)
    expect(isOutside(after[2]!)).toBe(true)
    expect(found.spoilt).toBe(1)
  })
})
