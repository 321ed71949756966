export { cheapestCover, SPARE_SHARE, withSpare, type Cover, type Pack, type Packs } from './cover.ts'
export {
  BARROW_LITRES,
  barrowLoads,
  bulbClumps,
  bulbSetting,
  bulbsSet,
  holeLitres,
  HOLE_WIDTHS,
  layerLitres,
  mixLitres,
  type BulbSetting,
  type MixPart,
} from './bulk.ts'
export { feedings, type Feed, type Feeding } from './feed.ts'
export { DRIP_REACHES, dripFor, type Drip, type DripLine } from './drip.ts'
export { doseTurns, soilDose, type DoseTurn, type SoilDose } from './soilDose.ts'
export { shoppingList, type Need, type Offer, type ShoppingLine, type ShoppingList } from './shopping.ts'
