/** The half of the year that a fill is for. */
export const fillSeasons = ['summer', 'winter'] as const
export type FillSeason = (typeof fillSeasons)[number]

/** Why a fill ended. */
export const fillEnds = [
  'went over',
  'heat',
  'frost',
  'dried out',
  'drowned',
  'eaten',
  'disease',
  'not liked',
] as const
export type FillEnd = (typeof fillEnds)[number]
