import { weatherRegion } from '@border/demo/town'

/** The stand-in weather service knows the demo's town. */
export const demoWeather = { WEATHER_REGIONS: JSON.stringify([weatherRegion]) }

/** How a throw-away practice is served: nobody is locked out of it, and its answers are held against the contract. */
export const scratchServer = (withDemo: boolean): NodeJS.ProcessEnv => ({
  SIGN_IN_ATTEMPTS: '1000',
  CHECK_ANSWERS: '1',
  ...(withDemo && demoWeather),
})
