import { climateEndpoints } from './climate.ts'
import { containerEndpoints } from './containers.ts'
import { crewEndpoints } from './crews.ts'
import { gardenEndpoints } from './gardens.ts'
import { lightEndpoints } from './light.ts'
import { photoEndpoints } from './photos.ts'
import { pictureEndpoints } from './pictures.ts'
import { planEndpoints } from './plan.ts'
import { benchEndpoints, plantingEndpoints } from './plantings.ts'
import { recordEndpoints } from './record.ts'
import { priceEndpoints, reworkEndpoints } from './reworks.ts'
import { ruleEndpoints } from './rules.ts'
import { seasonEndpoints, wateringEndpoints } from './season.ts'
import { sessionEndpoints } from './session.ts'
import { taxonEndpoints } from './taxa.ts'
import { verdictEndpoints } from './verdicts.ts'
import { walkEndpoints } from './walk.ts'

/** What crosses the wire: everything that can be asked of the server, by area. */
export const endpoints = {
  sessions: sessionEndpoints,
  gardens: gardenEndpoints,
  plan: planEndpoints,
  pictures: pictureEndpoints,
  climates: climateEndpoints,
  plantings: plantingEndpoints,
  bench: benchEndpoints,
  containers: containerEndpoints,
  taxa: taxonEndpoints,
  light: lightEndpoints,
  verdicts: verdictEndpoints,
  seasons: seasonEndpoints,
  watering: wateringEndpoints,
  reworks: reworkEndpoints,
  prices: priceEndpoints,
  rules: ruleEndpoints,
  crews: crewEndpoints,
  walks: walkEndpoints,
  photos: photoEndpoints,
  records: recordEndpoints,
}

export {
  type Access,
  type AnswerOf,
  type BodyOf,
  type Endpoint,
  type ParamsOf,
  type QueryOf,
  type SeenOf,
} from './endpoint.ts'
export { isoDay, type ErrorAnswer, type Meanwhile } from './basics.ts'
export * from './preferences.ts'
export * from './schemaless.ts'
export * from './session.ts'
export * from './gardens.ts'
export * from './plan.ts'
export * from './pictures.ts'
export * from './climate.ts'
export * from './plantings.ts'
export * from './containers.ts'
export * from './taxa.ts'
export * from './light.ts'
export * from './verdicts.ts'
export * from './season.ts'
export * from './reworks.ts'
export * from './rules.ts'
export * from './crews.ts'
export * from './walk.ts'
export * from './photos.ts'
export * from './record.ts'
