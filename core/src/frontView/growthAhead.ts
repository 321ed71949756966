import { group } from 'd3-array'
import type { IsoDate } from '../dates/index.ts'
import { SAMPLE_HOURS } from '../sun/index.ts'
import {
  lightDays,
  transmittance,
  type LightDay,
  type Scene,
  type Solid,
  type TreeRecord,
} from '../light/index.ts'
import { isWoody, type Taxon } from '../plants/index.ts'
import { isEvergreen } from '../rework/palette.ts'
import { sizeAt } from '../rework/growth.ts'
import type { StandingPlant } from './standing.ts'

/** Plants of a kind over which another has grown. */
export interface Overtopped {
  below: Taxon
  above: Taxon
  /** So many of all that there are of the kind. */
  plants: number
  of: number
}

/** Sun that what is planted takes from a kind that stands lower. */
export interface Shaded {
  taxon: Taxon
  /** Hours of direct sun a day of the growing season, without what grows there and with it. */
  without: number
  with: number
  /** Kinds that take it, the most first. */
  by: readonly Taxon[]
}

/** What has become of plants that stand together, so many years on. */
export interface GrownOver {
  years: number
  overtopped: readonly Overtopped[]
  shaded: readonly Shaded[]
}

/** A crown covers what stands within so much of its radius, and overtops what is so much lower. Working figures. */
const COVERS = 0.85
const STANDS_OVER = 1.3
/** What is lower casts a shade that does not matter. */
const CASTS_M = 1.2
/** It lets so much sun through in leaf; bare twigs and straw let most of it. Working figures for shrubs and tall herbs. */
const LETS_IN_LEAF = 0.25
const LETS_BARE = 0.7
/** A shade that matters reaches so many times as far as what casts it is taller: the sun stands at 14 degrees then. */
const REACHES = 4
/** Of a kind so many plants are looked at, spread over all of them. */
const MOST_LOOKED_AT = 4
/** No more casters are reckoned with: the tallest. */
const MOST_CASTERS = 60
/** Less sun lost is not told. */
const TOLD_HOURS = 0.5

interface Grown extends StandingPlant {
  heightM: number
  radiusM: number
}

const grownAfter = (plants: readonly StandingPlant[], years: number): Grown[] =>
  plants
    // Bulbs come up between others and are meant to stand under them.
    .filter((p) => p.taxon.lifeForm !== 'bulb')
    .map((p) => {
      const { heightM, spreadM } = sizeAt(p.taxon, p.ageYears + years)
      return { ...p, heightM, radiusM: spreadM / 2 }
    })

/** Which kinds have grown over others: by how far their crowns reach, and how much taller they are. */
export function overtopped(plants: readonly StandingPlant[], years: number): Overtopped[] {
  const grown = grownAfter(plants, years)
  const found = grown.flatMap((a) => {
    const above = grown
      .filter(
        (b) =>
          b.taxon.botanical !== a.taxon.botanical &&
          b.heightM > STANDS_OVER * a.heightM &&
          Math.hypot(b.x - a.x, b.y - a.y) < COVERS * b.radiusM,
      )
      .reduce<Grown | undefined>((best, b) => (best && best.heightM >= b.heightM ? best : b), undefined)
    return above ? [{ below: a.taxon, above: above.taxon }] : []
  })
  const of = group(grown, (g) => g.taxon.botanical)
  return [...group(found, (f) => `${f.below.botanical}|${f.above.botanical}`).values()]
    .map((pairs) => ({
      below: pairs[0]!.below,
      above: pairs[0]!.above,
      plants: pairs.length,
      of: of.get(pairs[0]!.below.botanical)!.length,
    }))
    .toSorted((a, b) => b.plants / b.of - a.plants / a.of)
}

/** What casts shade, as the light sees it. */
export const caster = (p: Grown): TreeRecord => ({
  id: p.id,
  name: p.taxon.common,
  kind: 'tree',
  x: p.x,
  y: p.y,
  trunkRadiusM: 0.02,
  clearStemM: 0,
  heightM: p.heightM,
  crownRadiusM: Math.max(0.1, p.radiusM),
  crownShape: 'ellipsoid',
  transmissionInLeaf: LETS_IN_LEAF,
  transmissionBare: isEvergreen(p.taxon) ? LETS_IN_LEAF : LETS_BARE,
  leafFrom: isEvergreen(p.taxon) ? null : '04-20',
  leafTo: isEvergreen(p.taxon) ? null : '11-01',
})

/** The same of the southern half of the earth. */
const inSouth = (t: TreeRecord): TreeRecord => (t.leafFrom ? { ...t, leafFrom: '10-20', leafTo: '05-01' } : t)

/**
 * How much sun what is planted takes from what stands lower, so many years on: by the same rays as the light of a garden, at half the
 * height of what is looked at.
 *
 * @param scene the garden without what is planted
 * @param on a day of the growing season that is reckoned
 */
export function shaded(scene: Scene, plants: readonly StandingPlant[], years: number, on: IsoDate): Shaded[] {
  const grown = grownAfter(plants, years)
  const tall = grown
    .filter((p) => p.heightM >= CASTS_M)
    .toSorted((a, b) => b.heightM - a.heightM || Number(isWoody(b.taxon)) - Number(isWoody(a.taxon)))
    .slice(0, MOST_CASTERS)
  if (tall.length === 0) return []
  const south = scene.latitudeDeg < 0
  const period = { kind: 'season' as const, on }
  const days = lightDays(scene, period)
  // What shades is what lets through: of several each takes its share of what the others leave.
  const takers = [...group(tall, (t) => t.taxon.botanical).values()].map((own) => ({
    taxon: own[0]!.taxon,
    heightM: own[0]!.heightM,
    plants: own,
    days: lightDays(
      { ...scene, obstructions: own.map((p) => (south ? inSouth(caster(p)) : caster(p))) },
      period,
    ),
  }))
  return [...group(grown, (g) => g.taxon.botanical).values()]
    .flatMap((own): Shaded[] => {
      const { taxon, heightM } = own[0]!
      const over = takers.filter((t) => t.heightM > heightM && t.taxon.botanical !== taxon.botanical)
      if (over.length === 0) return []
      const step = Math.max(1, Math.floor(own.length / MOST_LOOKED_AT))
      const looked = own.filter((_, i) => i % step === 0).slice(0, MOST_LOOKED_AT)
      let [without, with_] = [0, 0]
      const alone = over.map(() => 0)
      for (const { x, y } of looked) {
        const z = heightM / 2
        const near = over.map((t) => nearOf(t, x, y, z))
        days.forEach((day, d) => {
          for (const ray of day.directions) {
            const open = transmittance(day.solids, x, y, z, ray) * day.weight * SAMPLE_HOURS
            if (open === 0) continue
            without += open
            let left = open
            near.forEach((solids, k) => {
              const passes = solids[d]!.length === 0 ? 1 : transmittance(solids[d]!, x, y, z, ray)
              left *= passes
              alone[k]! += open * (1 - passes)
            })
            with_ += left
          }
        })
      }
      const n = looked.length
      if ((without - with_) / n < TOLD_HOURS) return []
      const by = over
        .map((t, k) => ({ taxon: t.taxon, takes: alone[k]! / n }))
        .filter((t) => t.takes >= TOLD_HOURS / 2)
        .toSorted((a, b) => b.takes - a.takes)
      return [{ taxon, without: without / n, with: with_ / n, by: by.map((t) => t.taxon) }]
    })
    .toSorted((a, b) => b.without - b.with - (a.without - a.with))
}

/** Of what casts shade the solids, day by day, whose shade could reach a point. */
function nearOf(
  { plants, days }: { plants: readonly Grown[]; days: readonly LightDay[] },
  x: number,
  y: number,
  z: number,
): Solid[][] {
  const reach = new Set(
    plants
      .filter((p) => Math.hypot(p.x - x, p.y - y) < REACHES * Math.max(0, p.heightM - z) + p.radiusM)
      .map((p) => p.id),
  )
  return days.map((day) => day.solids.filter((s) => reach.has(s.id)))
}

/** What has become of plants by each of so many years. */
export const grownOver = (
  scene: Scene,
  plants: readonly StandingPlant[],
  years: readonly number[],
  on: IsoDate,
): GrownOver[] =>
  years.map((y) => ({ years: y, overtopped: overtopped(plants, y), shaded: shaded(scene, plants, y, on) }))
