/** The half of the year that a fill is for. */
export const fillSeasons = ['summer', 'winter'] as const
export type FillSeason = (typeof fillSeasons)[number]

/** What a season is filled with, as it is said: where winters are hard what likes it cool is set out in spring. */
export const likesWords: Readonly<Record<FillSeason, string>> = {
  summer: 'What likes it warm',
  winter: 'What likes it cool',
}

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
