export * from './ring.ts'
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
