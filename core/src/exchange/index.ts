export * from './problems.ts'
export {
  checkFeature,
  featureKinds,
  isTimeZone,
  obstructionKinds,
  obstructionOf,
  placeKinds,
  readPlan,
  ringOf,
  type FeatureKind,
  type GardenHead,
  type Geometry,
  type Plan,
  type PlanFeature,
} from './plan.ts'
export {
  plantingRow,
  plantingSources,
  readPlantings,
  readPoints,
  readWeather,
  type Located,
  type PlantingRow,
  type PlantingSource,
} from './tables.ts'
