export { blendOf, blendWords, kmBetween, type BlendedClimate, type ClimateSite } from './blend.ts'
export {
  dailyFit,
  factsOf,
  fittedDay,
  fittedMonths,
  monthsOf,
  type ClimateFacts,
  type DailyFit,
} from './fit.ts'
export { patternAt } from './pattern.ts'
export { townClimates, type TownClimate } from './places.ts'
