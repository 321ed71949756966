/** What the command line, the demo and the tests use of the server. */
export { composeApp } from './app.ts'
export { connect, migrate, migrationSource, type Db } from './database/connect.ts'
export { giveToCrew, insertAbsence, insertCrew, insertCrewPerson, setTravel } from './store/crews.ts'
export { addMember, setStandInChanges, setStation } from './store/gardens.ts'
export { insertLog, insertReading } from './store/light.ts'
export { insertPerson, insertPractice } from './store/people.ts'
export { insertObservations, insertPlaceLook } from './store/observations.ts'
export { insertPhoto, insertStandpoint } from './store/photos.ts'
export { insertPicture, updatePicture } from './store/pictures.ts'
export {
  insertEvents,
  insertTreatment,
  insertTrialOutcome,
  listPlantings,
  moveSite,
} from './store/plantings.ts'
export { sayOffer } from './store/offers.ts'
export { insertRework, insertScheme } from './store/reworks.ts'
export { insertStation } from './store/weather.ts'
export { climateFor, climateWords, previewOf, readGardenFiles, saveGarden } from './work/importGarden.ts'
export { workOut, type Workshop } from './work/runs.ts'
export { queueRun } from './store/runs.ts'
export { sentFile } from './body.ts'
export { makePhoto, makePlanPicture } from './work/photos.ts'
export { putOnBench } from './store/bench.ts'
export { findTaxon } from './store/taxa.ts'
export { acceptSteps } from './work/carryOut.ts'
export { plantedAlready } from './work/planted.ts'
export { fillContainer } from './work/containers.ts'
export { recordDone } from './work/recordDone.ts'
export { adviceOf, keepSeenFiles, type Advice } from './work/advice.ts'
