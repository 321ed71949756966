export {
  castsShade,
  shelters,
  featureDefaults,
  featureKinds,
  isPlace,
  middleOf,
  movers,
  neededGeometry,
  potShapes,
  ringOf,
  stands,
  withoutId,
  type Feature,
  type Shelter,
  type FeatureKind,
  type FeatureProperties,
  type Geometry,
  type PlanFeature,
  type PotShape,
  type StandsOn,
} from './feature.ts'
export {
  eventFault,
  featureGeometry,
  featureProperties,
  monthDay,
  type RecordedEvent,
} from './featureSchema.ts'
export { asDrawnOn, featuresOn, type EarlierOutline } from './drawnOn.ts'
export {
  carriedFeature,
  changedFrom,
  drawAs,
  drawnOf,
  nearestInside,
  strayedFrom,
  type Strayed,
} from './drawing.ts'
export {
  datings,
  plantedWords,
  readPlanted,
  reckoned,
  writtenPlanted,
  type Dating,
  type Planted,
} from './dating.ts'
export { depths, roughSpot, sides, type Depth, type SideOf } from './roughly.ts'
export { soilTextures, type SoilTexture } from './soil.ts'
export { obstructionOf, sceneOf, seenAlone } from './obstructions.ts'
export { metresTo, placeOf, placesOn, surfaceHeightM, type Bed, type Container, type Place } from './place.ts'
export { waterPoint, type WaterPoint } from './waterPoint.ts'
export { windExposures, type WindExposure } from './wind.ts'
export { rootsAt, rootZones, type RootZone } from './roots.ts'
export { eavesOver, underEavesOf, eavesZones, type EavesZone } from './eaves.ts'
export { driedBy, surroundingsOn, type Surroundings } from './surroundings.ts'
export { isOnWall, metresToWall, TRAINED_WITHIN_M, wallLines, type WallLine } from './walls.ts'
export {
  groundOf,
  groundRadiusM,
  groundTakenBy,
  plantingM2,
  plantingSources,
  type Planting,
  type PlantingSource,
  type PlantingSite,
  type Grounded,
  type TakenGround,
} from './planting.ts'
export { standingGarden, type StandingGarden } from './garden.ts'
export { materialOf, materials, reckonedAs, type PotMaterial } from './material.ts'
export { hasCorners, isRounded, openingOf, vesselOf, type PotOpening, type Vessel } from './vessel.ts'
export {
  acrossAt,
  areaAcross,
  brimfulLitres,
  litresTo,
  mixLitresOf,
  mixSurfaceM2,
  sectionM2,
  topLitres,
  wallM2,
} from './volume.ts'
