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
  /** Of the water, what plants draw with ease: what it gives up from 10 to 100 cm of suction (De Boodt and Verdonck 1972). */
  available: number
  /** Dry, kilograms a litre. */
  kgPerLitre: number
  /** How much of it is gone a year, by rotting and settling. */
  lost: number
  /** What it is bought in, litres. */
  bagLitres: number
  /** What its water rests on. */
  waterFrom: MixSource
}

/** What a figure of a mix rests on: measurements that were published, or a working figure of this product's own. */
export type MixSource = 'Carsel and Parrish 1988' | 'working figure'

/** Density of the grains, kilograms a litre, of what is so far organic by weight (EN 13041: organic matter 1.55, ash 2.65). */
const grainDensity = (organic: number): number => 1 / (organic / 1.55 + (1 - organic) / 2.65)

/** A component whose solids are its weight over that of its grains: what holds no water of the rest is air. */
function component<N extends string>(
  name: N,
  {
    grains,
    ...of
  }: Omit<Component, 'name' | 'air'> & {
    /** Density of its grains with the pores that are closed in them, kilograms a litre. */
    grains: number
  },
): Component & { name: N } {
  return { name, air: 1 - of.kgPerLitre / grains - of.water, ...of }
}

/**
 * Drained to a suction of 10 cm of water (the way of EN 13041): the middle of a pot 20 cm tall. In a taller pot there is more air, in a
 * shallow one less. Water of sand and loam is of the retention curves of Carsel and Parrish (Water Resources Research 24, 1988; van
 * Genuchten's form, their means for sand and loam); that of the others, the weights, and how much rots are working figures, rounded.
 */
export const components = [
  component('compost', {
    water: 0.66,
    available: 0.36,
    kgPerLitre: 0.28,
    grains: grainDensity(0.7),
    lost: 0.2,
    bagLitres: 40,
    waterFrom: 'working figure',
  }),
  component('ericaceous compost', {
    water: 0.66,
    available: 0.36,
    kgPerLitre: 0.25,
    grains: grainDensity(0.85),
    lost: 0.2,
    bagLitres: 40,
    waterFrom: 'working figure',
  }),
  component('loam', {
    water: 0.407,
    available: 0.165,
    kgPerLitre: 1.15,
    grains: grainDensity(0.05),
    lost: 0.02,
    bagLitres: 25,
    waterFrom: 'Carsel and Parrish 1988',
  }),
  component('composted bark', {
    water: 0.44,
    available: 0.2,
    kgPerLitre: 0.32,
    grains: grainDensity(0.9),
    lost: 0.08,
    bagLitres: 50,
    waterFrom: 'working figure',
  }),
  component('leaf mould', {
    water: 0.62,
    available: 0.32,
    kgPerLitre: 0.33,
    grains: grainDensity(0.6),
    lost: 0.25,
    bagLitres: 30,
    waterFrom: 'working figure',
  }),
  component('perlite', {
    water: 0.32,
    available: 0.16,
    kgPerLitre: 0.1,
    grains: 0.55,
    lost: 0,
    bagLitres: 25,
    waterFrom: 'working figure',
  }),
  component('grit', {
    water: 0.07,
    available: 0.03,
    kgPerLitre: 1.5,
    grains: grainDensity(0),
    lost: 0,
    bagLitres: 15,
    waterFrom: 'working figure',
  }),
  component('sharp sand', {
    water: 0.214,
    available: 0.165,
    kgPerLitre: 1.5,
    grains: grainDensity(0),
    lost: 0,
    bagLitres: 15,
    waterFrom: 'Carsel and Parrish 1988',
  }),
] as const

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
const ROTS = 0.86

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

/**
 * What is usual of the mix in a pot, shares of its volume (Bilderback, Warren, Owen and Albano, HortTechnology 15, 2005): below the
 * least of its air roots drown in wet weather.
 */
export const usualOfMixes = { air: [0.1, 0.3], water: [0.45, 0.65] } as const
export const LEAST_AIR = usualOfMixes.air[0]

/** The parts of a mix whose water rests on a source. */
export const partsFrom = (source: MixSource, parts: readonly MixPart[]): string[] =>
  parts.flatMap((p) => (componentOf.get(p.name)?.waterFrom === source ? [p.name] : []))

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
