import type { Remedy } from '../remedy.ts'
import { crowdingRemedies } from './crowding.ts'
import { crownRemedies } from './crown.ts'
import { leafRemedies } from './leaves.ts'
import { lossRemedies } from './losses.ts'
import { pestRemedies } from './pests.ts'
import { shadeRemedies } from './shade.ts'
import { shapeRemedies } from './shape.ts'
import { waterRemedies } from './water.ts'

/** Every remedy the product knows. */
export const remedies: readonly Remedy[] = [
  ...crownRemedies,
  ...crowdingRemedies,
  ...lossRemedies,
  ...shadeRemedies,
  ...shapeRemedies,
  ...waterRemedies,
  ...leafRemedies,
  ...pestRemedies,
]
