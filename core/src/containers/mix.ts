import { sum } from 'd3-array'
import { mixLitres, type MixPart } from '../quantities/index.ts'
import type { Taxon } from '../plants/index.ts'
import type { FillSeason } from './fill.ts'

/** Stuff that mixes are made of. Shares are of its volume as it lies. */
export interface Component {
  name: string
  /** Air, and water, that it holds once it has drained; what is left is solid. */
  air: number
  water: number
  /** Of the water, what plants can draw. */
  available: number
  /** Dry, kilograms a litre. */
  kgPerLitre: number
  /** How much of it is gone a year, by rotting and settling. */
  lost: number
  /** What it is bought in, litres. */
  bagLitres: number
}

/**
 * Working figures, rounded from what is usual of such stuff drained to a suction of 10 cm of water (the way of EN 13041): the middle of
 * a pot 20 cm tall. In a taller pot there is more air, in a shallow one less.
 */
export const components = [
  { name: 'compost', air: 0.18, water: 0.66, available: 0.36, kgPerLitre: 0.25, lost: 0.2, bagLitres: 40 },
  {
    name: 'ericaceous compost',
    air: 0.18,
    water: 0.66,
    available: 0.36,
    kgPerLitre: 0.22,
    lost: 0.2,
    bagLitres: 40,
  },
  { name: 'loam', air: 0.08, water: 0.42, available: 0.2, kgPerLitre: 1.15, lost: 0.02, bagLitres: 25 },
  {
    name: 'composted bark',
    air: 0.36,
    water: 0.42,
    available: 0.2,
    kgPerLitre: 0.28,
    lost: 0.08,
    bagLitres: 50,
  },
  { name: 'leaf mould', air: 0.2, water: 0.6, available: 0.32, kgPerLitre: 0.3, lost: 0.25, bagLitres: 30 },
  { name: 'perlite', air: 0.5, water: 0.32, available: 0.16, kgPerLitre: 0.1, lost: 0, bagLitres: 25 },
  { name: 'grit', air: 0.38, water: 0.07, available: 0.03, kgPerLitre: 1.5, lost: 0, bagLitres: 15 },
  { name: 'sharp sand', air: 0.18, water: 0.22, available: 0.12, kgPerLitre: 1.5, lost: 0, bagLitres: 15 },
] as const satisfies readonly Component[]

export type ComponentName = (typeof components)[number]['name']
export const componentNames = components.map((c) => c.name) as [ComponentName, ...ComponentName[]]
const componentOf = new Map<string, Component>(components.map((c) => [c.name, c]))

/** A mix: parts by volume of stuff that is known. */
export interface Recipe {
  name: string
  parts: readonly (MixPart & { name: ComponentName })[]
}

const recipe = (name: string, parts: Partial<Record<ComponentName, number>>): Recipe => ({
  name,
  parts: components.flatMap((c) => (parts[c.name] ? [{ name: c.name, parts: parts[c.name]! }] : [])),
})

/** Mixes by what they are for. */
export const recipes = {
  summer: recipe('for summer: holds water', { compost: 7, loam: 2, perlite: 1 }),
  winter: recipe('for winter: drains', { compost: 4, loam: 2, 'composted bark': 3, grit: 1 }),
  lasting: recipe('for shrubs and what stays: keeps its structure', {
    compost: 3,
    loam: 4,
    'composted bark': 2,
    grit: 1,
  }),
  lean: recipe('lean and sharp: dries between waterings', {
    loam: 3,
    'leaf mould': 1,
    grit: 3,
    'sharp sand': 1,
  }),
  limeFree: recipe('without lime', { 'ericaceous compost': 6, 'composted bark': 3, perlite: 1 }),
} as const satisfies Record<string, Recipe>
export type RecipeName = keyof typeof recipes

/** What a plant asks of its mix. */
export type MixTaxon = Pick<Taxon, 'lifeForm' | 'phMax' | 'moistureMax' | 'pruning'>

/** Where the mixes that are sold lie: what does not bear that goes without lime, unless it is there for one season only. */
const USUAL_MIX_PH = 6.5
export const needsLimeFree = ({ phMax, lifeForm }: Pick<Taxon, 'phMax' | 'lifeForm'>): boolean =>
  phMax <= USUAL_MIX_PH && lifeForm !== 'annual' && lifeForm !== 'tender perennial'
export const needsLime = ({ phMin }: Pick<Taxon, 'phMin'>): boolean => phMin > USUAL_MIX_PH

/** The mix for what is to grow in a pot: what one of them must have before what most would like. */
export function recipeFor(taxa: readonly MixTaxon[], season: FillSeason): RecipeName {
  if (taxa.some(needsLimeFree)) return 'limeFree'
  const most = (is: (t: MixTaxon) => boolean) => 2 * taxa.filter(is).length > taxa.length
  if (most((t) => t.lifeForm === 'succulent' || t.moistureMax <= 2)) return 'lean'
  if (taxa.some((t) => t.pruning !== null && t.lifeForm !== 'tender perennial')) return 'lasting'
  return season
}

/** What a mix is like, shares of its volume. */
export interface MixTraits {
  air: number
  water: number
  available: number
  kgPerLitre: number
}

/** Some of a mix: litres of it as it was filled in, and the years since. */
export interface Cohort {
  litres: number
  parts: readonly MixPart[]
  years: number
}

/**
 * Of what rots so much goes with its solids; the rest is settling, which takes air alone. Set so that a usual mix is spent in about the
 * three years that gardeners reckon.
 */
const ROTS = 0.9

/**
 * Air and water of a blend once drained: what is solid and what holds water is in it as in its parts, in the room that they take
 * together; the fine parts fill what was air between the coarse. With the years what rots loses solids, and all of it sinks together.
 */
export function traitsOfAll(cohorts: readonly Cohort[]): MixTraits {
  const litres = cohorts.flatMap((c) =>
    mixLitres(c.litres, c.parts).map((p) => ({
      of: componentOf.get(p.name)!,
      litres: p.litres,
      years: c.years,
    })),
  )
  const room = sum(cohorts, litresLeft)
  const within = (of: (c: Component) => number) =>
    sum(litres, (p) => p.litres * of(p.of) * (1 - ROTS * (1 - leftAfter(p.of, p.years)))) / room
  const solid = Math.min(
    1,
    within((c) => 1 - c.air - c.water),
  )
  const water = Math.min(
    1 - solid,
    within((c) => c.water),
  )
  return {
    air: 1 - solid - water,
    water,
    available: Math.min(
      water,
      within((c) => c.available),
    ),
    kgPerLitre: within((c) => c.kgPerLitre),
  }
}

/** Litres that are left of what was filled in. */
export const litresLeft = (c: Cohort): number => c.litres * leftOf(c.parts, c.years)

/** Air and water of a mix as it is filled in. */
export const traitsOf = (parts: readonly MixPart[]): MixTraits =>
  traitsOfAll([{ litres: 1, parts, years: 0 }])

const leftAfter = ({ lost }: Component, years: number): number => (1 - lost) ** Math.max(0, years)

/** Mixes hold air for roots from about a tenth of their volume on (a usual least for pots): below, roots drown in wet weather. */
export const LEAST_AIR = 0.1

/** With so little air left a mix is spent, and all of it must be new: below what a fresh one may have. */
export const SPENT_AIR = 0.06

/** Bags of one part for so many litres. */
export interface PartBought {
  name: string
  litres: number
  bags: number
  bagLitres: number
}

/** Litres and bags of each part for so much mix, as it is filled in. */
export const bagsFor = (litres: number, parts: readonly MixPart[]): PartBought[] =>
  mixLitres(litres, parts).map((p) => {
    const { bagLitres } = componentOf.get(p.name)!
    return { ...p, bagLitres, bags: Math.ceil(p.litres / bagLitres - 1e-9) }
  })

/** Parts of a mix some years on: what rots is less of it. The parts that are left are measured in those of the fresh mix. */
export const aged = (parts: readonly MixPart[], years: number): MixPart[] =>
  parts.map((p) => ({ ...p, parts: p.parts * leftAfter(componentOf.get(p.name)!, years) }))

/** How much of what was filled in is still there after some years, 0 to 1. */
export function leftOf(parts: readonly MixPart[], years: number): number {
  const all = (of: readonly MixPart[]) => sum(of, (p) => p.parts)
  return all(parts) > 0 ? all(aged(parts, years)) / all(parts) : 0
}

/**
 * What is put to a mix that stays, so that together they are as near to what is wanted as they can be: of each part what the whole
 * should have less what is there, and where some has too much already, the rest in proportion.
 *
 * @param stays litres of the old mix that stay, by its parts as they are now
 * @param litres of the whole
 * @returns litres of each part, in the order of what is wanted; they add up to what is missing
 */
export function madeUp(
  stays: { litres: number; parts: readonly MixPart[] },
  wanted: readonly MixPart[],
  litres: number,
): { name: string; litres: number }[] {
  const shareOf = (parts: readonly MixPart[], name: string) => {
    const all = parts.reduce((sum, p) => sum + p.parts, 0)
    return all > 0 ? (parts.find((p) => p.name === name)?.parts ?? 0) / all : 0
  }
  const missing = litres - stays.litres
  if (missing <= 1e-9) return []
  const lacks = wanted.map((p) => ({
    name: p.name,
    litres: Math.max(0, litres * shareOf(wanted, p.name) - stays.litres * shareOf(stays.parts, p.name)),
  }))
  const all = lacks.reduce((sum, p) => sum + p.litres, 0)
  return lacks.flatMap((p) => (p.litres > 1e-9 ? [{ name: p.name, litres: (missing * p.litres) / all }] : []))
}
