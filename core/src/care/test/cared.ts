import { madeBed, madePlanting, madePot, rectangle } from '../../garden/test/made.ts'
import { NO_EDITS, rulesWith, type CaredPlanting, type CareGarden } from '../index.ts'

/** Three plants of some years, with no sign of anything. */
export const caredPlanting = (
  id: string,
  botanical: string,
  more: Partial<CaredPlanting> = {},
): CaredPlanting => ({
  ...madePlanting(id, botanical, { livingCount: 3, plantedCount: 3, plantedOn: '2019-04-01' }),
  signs: [],
  ...more,
})

/** A bed and a pot under the rules as they are shipped. */
export const careGarden = (
  climate: CareGarden['climate'],
  plantings: readonly CaredPlanting[],
  more: Partial<CareGarden> = {},
): CareGarden => ({
  plantings,
  places: [madeBed('bed', rectangle(0, 0, 6, 2)), madePot('pot', 9, 1)],
  climate,
  lateDays: 0,
  schools: {},
  rules: rulesWith(NO_EDITS),
  measured: {},
  done: new Set(),
  ...more,
})
