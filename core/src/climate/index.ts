export { simulatedForecast, type ForecastDay } from './forecast.ts'
export { leafDates } from './leaf.ts'
export { summerOf, summers, type Summer } from './summer.ts'
export { generateWeather, type DailyWeather, type WeatherPattern, type YearlyWave } from './weather.ts'
export { type MonthlyClimate } from './monthly.ts'
export {
  blendOf,
  blendWords,
  dailyFit,
  factsOf,
  fittedDay,
  fittedMonths,
  kmBetween,
  monthsOf,
  patternAt,
  townClimates,
  type BlendedClimate,
  type ClimateFacts,
  type DailyFit,
  type TownClimate,
  type ClimateSite,
} from './towns/index.ts'
export { soilCorrection, soilTemperatures, withSoil, type SoilCorrection, type SoilReading } from './soil.ts'
export {
  climateOf,
  quantile,
  usually,
  type Climate,
  type ClimateResult,
  type DateQuantiles,
} from './normals.ts'
export {
  fitsDays,
  frostIsGuessed,
  knownLimits,
  withKnown,
  zoneMiddleC,
  zoneOf,
  hardyWords,
  type KnownClimate,
} from './known.ts'
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
export { dayOfWaterBalance } from './waterBalance.ts'
