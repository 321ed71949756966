import type { Remedy } from '../remedy.ts'
import { crownRemedies } from './crown.ts'
import { leafRemedies } from './leaves.ts'
import { shapeRemedies } from './shape.ts'

/** Every remedy the product knows. */
export const remedies: readonly Remedy[] = [...crownRemedies, ...shapeRemedies, ...leafRemedies]
