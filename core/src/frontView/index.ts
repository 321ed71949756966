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
export { EYE_M, groundRise, USUAL_AWAY_M, type Standpoint } from './standpoint.ts'
export {
  frontView,
  inFullGrowth,
  isWinterAt,
  seenGround,
  type About,
  type FrontView,
  type SeenBeyond,
  type SeenGround,
  type SeenPlant,
  type SeenPot,
} from './scene.ts'
export {
  portraitOf,
  potLook,
  RIM_DEPTH,
  type Portrait,
  type PortraitPlant,
  type PotLook,
  type PottedPlant,
} from './portrait.ts'
export { beyondOf, nearBehind, supportsOn, type Beyond, type StandingPot } from './around.ts'
export { FILLERS, fillersOfScheme } from './fillers.ts'
export { plantsOfPlanting, plantsOfScheme, type LaidScheme, type StandingPlant } from './standing.ts'
export { backdropOf, type Backdrop, type SeenTree } from './backdrop.ts'
export { hiddenShare, hiddenWords, ownHiddenWords, shareWords } from './seenWords.ts'
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
