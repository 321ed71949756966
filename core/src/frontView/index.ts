export {
  autumnColour,
  flowerForm,
  flowerForms,
  plantForm,
  plantForms,
  type FlowerForm,
  type PlantForm,
} from './form.ts'
export { appearanceOn, SEEN_OPEN, SEEN_TURNED, type Appearance } from './appearance.ts'
export { bodyOf, builds, type Band, type Body, type Build } from './body.ts'
export {
  asLookedAt,
  EYE_M,
  frontView,
  groundRise,
  inFullGrowth,
  isWinterAt,
  scaleAt,
  USUAL_AWAY_M,
  type FrontView,
  type OnPlane,
  type SeenPlant,
  type Standpoint,
  type StandingPlant,
} from './scene.ts'
export { plantsOfPlanting, plantsOfScheme, type LaidScheme } from './standing.ts'
export { backdropOf, type Backdrop, type SeenTree } from './backdrop.ts'
export { hiddenShare, hiddenWords, shareWords } from './seenWords.ts'
export { seenShares, type SeenShare } from './seen.ts'
export {
  addedBloom,
  interestOf,
  showsFlowers,
  spells,
  type AddedBloom,
  type InterestWeek,
  type KindOnGround,
  type Spell,
} from './interest.ts'
export { grownOver, overtopped, shaded, type GrownOver, type Overtopped, type Shaded } from './growthAhead.ts'
