export * from './taxon.ts'
export { library } from './library.ts'
export {
  emergenceOf,
  phases,
  seasonInPlace,
  usualBloom,
  usualState,
  usualWords,
  USUAL_YEAR,
  type Emergence,
  type Phase,
  type UsualState,
  type Year,
} from './phenology.ts'
