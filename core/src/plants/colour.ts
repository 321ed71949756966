import { isNamed } from './byName.ts'
import type { Taxon } from './taxon.ts'

/** Colours that a gardener may wish of flowers whose colour follows the soil. */
export const colourWishes = ['blue', 'pink'] as const
export type ColourWish = (typeof colourWishes)[number]

/** Their flowers take up aluminium, which acid soil sets free: blue with it, pink without. */
const followingSoil = ['Hydrangea macrophylla', 'Hydrangea serrata']

/** Whether the flowers of a kind are blue or pink by the soil they stand in. */
export const colourFollowsSoil = (taxon: Pick<Taxon, 'botanical'>): boolean => isNamed(followingSoil, taxon)
