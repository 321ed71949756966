import { summerOf } from '../climate/index.ts'
import type { IsoDate } from '../dates/index.ts'
import { surfaceHeightM, type Place, type Planting, type StandingGarden } from '../garden/index.ts'
import {
  hoursGainedBy,
  LEVEL,
  supposed,
  type Ground,
  type Obstruction,
  type Scene,
  type SunHours,
  type TreeRecord,
} from '../light/index.ts'
import { onceFor } from '../once/index.ts'
import type { Opening } from '../remedies/index.ts'
import type { GardenLight } from './assess.ts'
import { isOutside, lightFit } from './fit.ts'

/** What can be done to a tree for what it shades, by the planting that it would set right. */
export type Openings = Readonly<Record<string, Opening>>

/** A tree keeps two thirds of its height in crown, and no more than a quarter of its leaves is taken in a year: usual of arboriculture. */
const MOST_CLEAR = 1 / 3
const THINNED_BY = 0.25
/** A cut that raises the crown by less is not worth climbing for, metres. */
const LEAST_RAISED_M = 0.4
/** The shade of a tree further off than so many times its height falls hardly ever, in the growing season. */
const REACH = 3
/** Of the trees about a planting the nearest few are asked. */
const MOST_TREES = 4

/** Ways of opening a tree, the least first. */
const ways = ['raised', 'thinned', 'both'] as const
type Way = (typeof ways)[number]

/** One of them, with the tree as it would stand. */
interface Cut {
  clearStemM: number | null
  thinnedBy: number | null
  opened: Obstruction
}

/** A tree with the cuts that it bears. */
interface CutTree {
  tree: TreeRecord
  cuts: Partial<Record<Way, Cut>>
}

/**
 * For each planting of a bed that has too little sun the least cut to one tree that would give it what it likes: limbed up, thinned, or
 * both. What else stands in that tree's shade is worked out with it: what comes right too, and what would get too much.
 *
 * @param light of the same plantings, in the same order
 */
export function openings(
  { scene, places, plantings, climate }: StandingGarden,
  light: Pick<GardenLight, 'plantings'>,
  now: IsoDate,
): Openings {
  const summer = summerOf(climate)
  const placeOf = new Map(places.map((p) => [p.id, p]))
  const trees = scene.obstructions.flatMap((o): CutTree[] =>
    o.kind === 'tree' ? [{ tree: o, cuts: cutsOf(o, now) }] : [],
  )
  if (trees.length === 0) return {}
  const lit = plantings.map((planting, i) => ({ planting, hours: light.plantings[i]!.now }))
  const gainsAt = gainsIn(scene, trees, now)
  const fitWith = (p: Planting, hours: SunHours, gain: SunHours) =>
    lightFit(p.taxon, sumOf(hours, gain), summer)
  const found = lit.flatMap(({ planting, hours }) => {
    const place = placeOf.get(planting.placeId)
    const fit = lightFit(planting.taxon, hours, summer)
    if (place?.kind !== 'bed' || !isOutside(fit) || fit.hoursOutside >= 0) return []
    const about = trees
      .filter(({ tree, cuts }) => cuts.thinned && isWithinReach(tree, planting))
      .sort((a, b) => awayM(a.tree, planting) - awayM(b.tree, planting))
      .slice(0, MOST_TREES)
    const gains = gainsAt(place, planting, about)
    // The lesser cut of every tree before the greater of any.
    for (const way of ways) {
      const best = about
        .flatMap((t) => {
          const gain = gains.get(t)?.[way]
          return gain ? [{ of: t, way, gain }] : []
        })
        .filter(({ gain }) => !isOutside(fitWith(planting, hours, gain)))
        .sort((a, b) => b.gain.total - a.gain.total)[0]
      if (best) return [{ planting, hours, ...best }]
    }
    return []
  })
  const beneath = new Map<Cut, { right: Set<string>; spoilt: Set<string> }>()
  for (const { of, way } of found) {
    const cut = of.cuts[way]!
    if (!beneath.has(cut)) beneath.set(cut, othersUnder(of, way))
  }
  return Object.fromEntries(
    found.map(({ planting, hours, of: { tree, cuts }, way, gain }): [string, Opening] => {
      const { clearStemM, thinnedBy } = cuts[way]!
      const { right, spoilt } = beneath.get(cuts[way]!)!
      return [
        planting.id,
        {
          obstructionId: tree.id,
          tree: tree.name,
          clearStemM,
          thinnedBy,
          hours: hours.total + gain.total,
          gainHours: gain.total,
          alsoRight: [...right].filter((id) => id !== planting.id).length,
          spoilt: spoilt.size,
        },
      ]
    }),
  )

  /** What else stands in the shade of a tree: what the cut sets right, and what it would spoil. */
  function othersUnder(of: CutTree, way: Way) {
    const right = new Set<string>()
    const spoilt = new Set<string>()
    for (const { planting, hours } of lit) {
      if (!isWithinReach(of.tree, planting)) continue
      const gain = gainsAt(placeOf.get(planting.placeId), planting, [of]).get(of)![way]!
      if (gain.total === 0) continue
      const was = lightFit(planting.taxon, hours, summer)
      const is = fitWith(planting, hours, gain)
      if (isOutside(was) && !isOutside(is)) right.add(planting.id)
      if (isOutside(is) && is.misfitHours > was.misfitHours) spoilt.add(planting.id)
    }
    return { right, spoilt }
  }
}

/** The cuts that a tree bears. */
function cutsOf(tree: TreeRecord, now: IsoDate): Partial<Record<Way, Cut>> {
  const as = { obstructionId: tree.id }
  const stands = supposed(tree, as, now)
  if (stands?.kind !== 'tree') return {}
  const clearStemM = Math.floor(10 * MOST_CLEAR * stands.heightM) / 10
  const cut = (of: { clearStemM?: number; thinnedBy?: number }): Cut => ({
    clearStemM: of.clearStemM ?? null,
    thinnedBy: of.thinnedBy ?? null,
    opened: supposed(tree, { ...as, ...of }, now)!,
  })
  const thinned = cut({ thinnedBy: THINNED_BY })
  return clearStemM - stands.clearStemM < LEAST_RAISED_M
    ? { thinned }
    : { raised: cut({ clearStemM }), thinned, both: cut({ clearStemM, thinnedBy: THINNED_BY }) }
}

/** What each cut alone would give to the middle of a planting: prepared once for each ground. */
function gainsIn(scene: Scene, trees: readonly CutTree[], now: IsoDate) {
  const alternatives = trees.map(({ tree, cuts }) => ({
    obstructionId: tree.id,
    states: ways.flatMap((way) => cuts[way]?.opened ?? []),
  }))
  const gainedBy = onceFor((ground: Ground) =>
    hoursGainedBy(scene, { kind: 'season', on: now, standing: now }, alternatives, ground),
  )
  return (
    place: Place | undefined,
    { x, y }: Planting,
    about: readonly CutTree[],
  ): Map<CutTree, Partial<Record<Way, SunHours>>> => {
    const gained = gainedBy(place?.ground ?? LEVEL)(
      { x, y, z: surfaceHeightM(place) },
      about.map((t) => t.tree.id),
    )
    return new Map(
      about.map((t) => {
        const own = ways.filter((way) => t.cuts[way])
        return [t, Object.fromEntries(own.map((way, k) => [way, gained.get(t.tree.id)![k]!]))]
      }),
    )
  }
}

const sumOf = (a: SunHours, b: SunHours): SunHours => ({
  total: a.total + b.total,
  morning: a.morning + b.morning,
  midday: a.midday + b.midday,
  afternoon: a.afternoon + b.afternoon,
  heat: a.heat + b.heat,
})

const awayM = (tree: TreeRecord, p: Planting): number => Math.hypot(tree.x - p.x, tree.y - p.y)
const isWithinReach = (tree: TreeRecord, p: Planting): boolean =>
  awayM(tree, p) <= REACH * tree.heightM + tree.crownRadiusM
