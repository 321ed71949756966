/** Where good gardeners differ: each garden follows one choice, and every job says which and what the other would do. */
export interface School {
  id: SchoolId
  question: string
  choices: readonly { id: string; does: string }[]
  /** The choice where nobody has said. */
  usual: string
}

/** Questions on which good gardeners differ. */
export const schoolIds = [
  'cutting-back',
  'smooth-hydrangea',
  'planting-hole',
  'pot-roots',
  'mulch-order',
  'pot-mix',
  'drifts',
  'pushing',
  'faded-annuals',
  'feeds',
] as const
export type SchoolId = (typeof schoolIds)[number]
/** A garden's choices; a school that is absent follows its usual one. */
export type Schools = Partial<Record<SchoolId, string>>

/** Each question with its answers, of which a garden follows one. */
export const schools: readonly School[] = [
  {
    id: 'cutting-back',
    question: 'When is herbaceous growth cut back?',
    choices: [
      { id: 'late-winter', does: 'left standing until late winter, for birds, insects and the crowns' },
      { id: 'autumn', does: 'cut in autumn once it has gone over, for tidiness' },
    ],
    usual: 'late-winter',
  },
  {
    id: 'smooth-hydrangea',
    question: 'How are smooth hydrangeas cut?',
    choices: [
      { id: 'frame', does: 'to 30 to 45 cm, a frame that holds smaller heads up' },
      { id: 'ground', does: 'to the ground, for huge heads' },
    ],
    usual: 'frame',
  },
  {
    id: 'planting-hole',
    question: 'What goes into the ground at planting?',
    choices: [
      { id: 'amend', does: 'the whole bed is amended with compost' },
      { id: 'native', does: 'plants go into the native soil and are mulched' },
      { id: 'starter-feed', does: 'a starter feed goes into the hole' },
    ],
    usual: 'amend',
  },
  {
    id: 'pot-roots',
    question: 'What is done with the root balls of annuals for a pot?',
    choices: [
      { id: 'whole', does: 'left whole' },
      { id: 'loosened', does: 'loosened before planting' },
    ],
    usual: 'whole',
  },
  {
    id: 'mulch-order',
    question: 'Is the mulch laid before planting or after?',
    choices: [
      { id: 'after', does: 'planted first, mulched after' },
      { id: 'before', does: 'mulched first and planted through' },
    ],
    usual: 'after',
  },
  {
    id: 'pot-mix',
    question: 'How is the mix in pots renewed?',
    choices: [
      { id: 'part', does: 'a third is replaced each season' },
      { id: 'whole', does: 'all is replaced at three years' },
    ],
    usual: 'part',
  },
  {
    id: 'drifts',
    question: 'How are plants grouped?',
    choices: [
      { id: 'odd', does: 'in drifts of odd numbers' },
      { id: 'blocks', does: 'in large single blocks' },
      { id: 'matrix', does: 'intermingled in a matrix' },
    ],
    usual: 'odd',
  },
  {
    id: 'pushing',
    question: 'Are display plants pushed?',
    choices: [
      { id: 'lean', does: 'fed every other week, for sturdiness' },
      { id: 'push', does: 'fed every week, for display' },
    ],
    usual: 'lean',
  },
  {
    id: 'faded-annuals',
    question: 'What happens to fading seasonal plants at the swap?',
    choices: [
      { id: 'remove', does: 'taken out' },
      { id: 'cut-back', does: 'cut back and left to return' },
    ],
    usual: 'remove',
  },
  {
    id: 'feeds',
    question: 'What feeds and what tolerance of pests?',
    choices: [
      { id: 'organic', does: 'organic feeds, damage tolerated while a plant is vigorous' },
      { id: 'mineral', does: 'mineral feeds, troubles treated early' },
    ],
    usual: 'organic',
  },
]

const byId = new Map(schools.map((s) => [s.id, s]))

/** A question with its answers. */
export const schoolOf = (id: SchoolId): School => byId.get(id)!

/** A choice in a sentence, with what the other would do. */
export function schoolNote(id: SchoolId, choice: string): string {
  const { choices } = schoolOf(id)
  const others = choices.filter((c) => c.id !== choice).map((c) => c.does)
  return `By this garden’s school: ${choices.find((c) => c.id === choice)!.does}; the other school: ${others.join('; or ')}.`
}

/** The choice a garden follows. */
export const followed = (chosen: Schools, id: SchoolId): string => chosen[id] ?? schoolOf(id).usual
