export { solarPosition, sunAtSolarTime, trueSolarMs, type SolarPosition } from './position.ts'
export { dayPart, solarDay, SAMPLE_HOURS, type SunSample, type DayPart } from './solarDay.ts'
