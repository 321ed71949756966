import type { CareRule } from '../rule.ts'
import { colours } from './colourRules.ts'
import { growth } from './growthRules.ts'
import { guarding } from './guardingRules.ts'
import { moving } from './movingRules.ts'
import { places } from './placeRules.ts'
import { propagation, settingOutRules } from './propagationRules.ts'
import { pruning } from './pruningRules.ts'
import { seasonal } from './seasonalRules.ts'
import { walls } from './wallRules.ts'
import { waters } from './waterRules.ts'

/** The shipped rules of care. */
export const careRules: readonly CareRule[] = [
  ...moving,
  ...pruning,
  ...growth,
  ...seasonal,
  ...places,
  ...colours,
  ...walls,
  ...waters,
  ...guarding,
  ...propagation,
  ...settingOutRules,
]
