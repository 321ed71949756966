export * from './taxon.ts'
export { library } from './library/index.ts'
export { harmed, mayRunWild, poisonousTo, regionsAt, runsWildIn, type Harmed, type Region } from './harm.ts'
export {
  emergenceOf,
  firstFlushEnd,
  phases,
  seasonDates,
  seasonInPlace,
  usualBloom,
  usualYearAt,
  usualState,
  usualWords,
  USUAL_YEAR,
  yearAt,
  type Emergence,
  type SeasonDates,
  type Phase,
  type UsualState,
  type Year,
} from './phenology.ts'
export { contradictions, type Contradiction } from './sense.ts'
export { readArmful, readArmfuls, type ArmfulLine } from './armful.ts'
export { otherNames, taxonSearch, type TaxonSearch } from './search.ts'
export { colourFollowsSoil, colourWishes, type ColourWish } from './colour.ts'
export { takenFor, type Likeness } from './likeness.ts'
export { opinionsOn } from './opinions.ts'
export { bulbSize, type BulbSize } from './bulbs.ts'
export { rootKind, rootKinds, rootWords, type RootKind } from './roots.ts'
export { likesCoolSummers } from './coolSummers.ts'
export { byName, isNamed } from './byName.ts'
export {
  called,
  nameFor,
  namesOf,
  namings,
  USUAL_NAMING,
  type Names,
  type Naming,
  type WrittenName,
} from './naming.ts'
export { isUnknown, UNKNOWN } from './unknown.ts'
export {
  accords,
  colourSchemes,
  hueApart,
  oklchOf,
  standsOutInLeaf,
  type ColourScheme,
  type Oklch,
} from './oklch.ts'
export { browsers, leftAloneBy, type Browser } from './browsing.ts'
