export { demoGardens, loadDemo } from './load.ts'
export { filesOf } from './files.ts'
export { DEMO_DATE, town } from './town.ts'
export { townWeather } from './townWeather.ts'
