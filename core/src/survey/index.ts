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
  laidByTwo,
  onPlan,
  straighten,
  straightened,
  type Homography,
  type Laid,
  type Straightened,
  type Tie,
} from './picture.ts'
