import type { Taxon } from '../taxon.ts'
import { bulbs } from './bulbs.ts'
import { climbersAndTrees } from './climbersAndTrees.ts'
import { grassesAndFerns } from './grassesAndFerns.ts'
import { lowPlants } from './lowPlants.ts'
import { perennials } from './perennials.ts'
import { seasonal } from './seasonal.ts'
import { shrubs } from './shrubs.ts'
import { taxonOf } from './row.ts'

/** The shipped library. */
export const library: readonly Taxon[] = [
  ...perennials,
  ...grassesAndFerns,
  ...bulbs,
  ...shrubs,
  ...climbersAndTrees,
  ...lowPlants,
  ...seasonal,
].map(taxonOf)
