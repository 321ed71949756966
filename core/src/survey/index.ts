export {
  adjust,
  CRITICAL,
  tapeSdM,
  type Adjusted,
  type AdjustedPoint,
  type Measured,
  type OnSide,
  type Residual,
  type SurveyPoint,
} from './adjust.ts'
export {
  heightByAngle,
  heightByPicture,
  heightByShadow,
  northByShadow,
  sizedWords,
  type Sized,
  type SizedOr,
} from './heights.ts'
export { measuringWorth, type MeasuringWorth, type ShadingSize } from './worth.ts'
export {
  bearingInPicture,
  CLICK_SD_PX,
  clickedOutM,
  laidByTwo,
  straighten,
  straightened,
  type Homography,
  type Straightened,
  type Tie,
} from './picture.ts'
export { finestM, groundShown, lieOf, type Laying, type Lie, type Lies, type MarkTape } from './laying.ts'
export { inverseOf, warped, type Pixels } from './warp.ts'
