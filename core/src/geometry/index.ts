export * from './ring.ts'
export { GOLDEN_ANGLE } from './goldenAngle.ts'
export {
  asDisc,
  covers,
  footprintAreaM2,
  footprintExtent,
  footprintMiddle,
  grown,
  metresOutside,
  sharedAreaM2,
  type Disc,
  type Footprint,
  type Outline,
} from './footprint.ts'
export { carried, mirror, shift, followedBy, turn, type Affine } from './affine.ts'
export {
  carriedHandles,
  corner,
  describes,
  drawnFault,
  flattened,
  FLAT_M,
  middleOfDrawn,
  nearestOnDrawn,
  pointOf,
  readyShape,
  readyShapes,
  withHandle,
  withHandleAt,
  type Drawn,
  type Handle,
  type ReadyShape,
} from './drawn.ts'
export { snap, type DrawnBeside, type Snapped, type SnapTargets } from './snap.ts'
export { cutBetween, joinedOutlines, TOUCHING_M, type Cut, type Joined } from './cut.ts'
export { handlesOfStroke } from './stroke.ts'
