/** What the command line, the demo and the tests use of the server. */
export { composeApp } from './app.ts'
export { connect, migrate, type Db } from './database/connect.ts'
export { addMember, setStation } from './store/gardens.ts'
export { insertPerson, insertPractice } from './store/people.ts'
export { insertEvents, moveSite } from './store/plantings.ts'
export { insertStation } from './store/weather.ts'
export { setWorkingException, setWorkingWeek } from './store/workingTime.ts'
export { previewOf, readGardenFiles, saveGarden } from './work/importGarden.ts'
