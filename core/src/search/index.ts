export {
  ruinAndRecreate,
  type Annealing,
  type Progress,
  type Rebuilt,
  type SearchOptions,
} from './ruinAndRecreate.ts'
