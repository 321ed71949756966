export { demoGardens, loadDemo } from './load.ts'
export { filesOf } from './files.ts'
export { DEMO_DATE, town, townWeather } from './town.ts'
export { weatherRegion } from './town.ts'
