export {
  sitedGarden,
  type GroundToSite,
  type SitedGarden,
  type Station,
  type StationedPlace,
} from './stations.ts'
export {
  suits,
  suitScore,
  whereItSuits,
  whyNotIn,
  type Bound,
  type SuitedPlace,
  type Suiting,
} from './suits.ts'
