/** What can become of a planting, in the trade's words, from the least to the most. */
export const actions = [
  'keep',
  'give it time',
  'watch',
  'check water',
  'check drainage',
  'test the soil',
  'feed',
  'support',
  'firm in',
  'uncover',
  'clean up',
  'protect',
  'cut out',
  'limb up',
  'thin',
  'restrict',
  'cut back',
  'renew',
  'divide',
  'lift and replant',
  'pot on',
  'move the pot',
  'move',
  'replace',
  'remove',
] as const
export type Action = (typeof actions)[number]

/** Weighed for every planting; all others only where something that was seen asks for them. */
export const alwaysWeighed = [
  'keep',
  'watch',
  'cut back',
  'divide',
  'move',
  'replace',
  'remove',
] as const satisfies readonly Action[]

/** Whether an action is weighed for every planting. */
export const isAlwaysWeighed = (action: Action): boolean =>
  (alwaysWeighed as readonly Action[]).includes(action)

/** Leaving it as it stands: no work follows. */
export const isLeftAlone = (action: Action): boolean =>
  action === 'keep' || action === 'give it time' || action === 'watch'
