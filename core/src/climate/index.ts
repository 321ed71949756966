export { simulatedForecast, type ForecastDay } from './forecast.ts'
export { leafDates } from './leaf.ts'
export { generateWeather, patternAtLatitude, type DailyWeather, type WeatherPattern } from './weather.ts'
export { soilCorrection, soilTemperatures, withSoil, type SoilCorrection, type SoilReading } from './soil.ts'
export {
  climateOf,
  quantile,
  usually,
  type Climate,
  type ClimateResult,
  type DateQuantiles,
} from './normals.ts'
export { frostIsGuessed, withKnown, zoneMiddleC, zoneOf, type KnownClimate } from './known.ts'
export { degreeDays, GROWTH_C } from './degreeDays.ts'
export { extraterrestrialRadiation, referenceEvapotranspiration } from './evapotranspiration.ts'
export {
  suitability,
  unsuitableShare,
  unsuitableUsually,
  weatherNeeds,
  type Suitability,
  type WeatherNeed,
} from './suitability.ts'
export { seasonShift, type SeasonShift } from './seasonShift.ts'
export { earlinessOf, earlinessOfSeason, type Earliness } from './earliness.ts'
