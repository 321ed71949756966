export { mixed } from './light.ts'
export {
  leafBends,
  ovalPath,
  pathPen,
  rectPath,
  ringPath,
  type ColourStop,
  type GroundPainter,
  type Painter,
  type PathStyle,
  type Pen,
  type Stamp,
  type TextStyle,
} from './painter.ts'
export { paintPlant, type Painted } from './paintPlant.ts'
export { paintVessel, type VesselSpot } from './paintVessel.ts'
export {
  airBefore,
  asPainted,
  framed,
  framedFrom,
  framing,
  isInFrame,
  paintGround,
  paintPlants,
  paintPot,
  SHADOW_COLOUR,
  shadowOf,
  shownOf,
  tallestM,
  type Framing,
} from './paintScene.ts'
export { paperMm, papers, type Paper } from './papers.ts'
export { svgPainter } from './svg.ts'
export {
  AS_PLANTED,
  paintPlan,
  planKey,
  planOnPaper,
  softPath,
  STONE_M,
  type DrawnScheme,
  type PlanKey,
  type PlanOnPaper,
  type PlanToPicture,
} from './paintPlan.ts'
