import { loadDemo, weatherRegion } from '@border/demo'
import { connect, migrate } from '@border/server'
import { say } from './say.ts'

/** The stand-in weather service knows the demo's town. */
export const demoWeather = { WEATHER_REGIONS: JSON.stringify([weatherRegion]) }

/**
 * Makes a database ready to be served.
 *
 * @returns the names of the demo’s people, where it is one
 */
export async function prepare(url: string, withDemo: boolean): Promise<string[]> {
  const db = connect(url, 4)
  try {
    await migrate(db)
    return withDemo ? await loadDemo(db, say) : []
  } finally {
    await db.destroy()
  }
}

/** How a throw-away practice is served: nobody is locked out of it, and its answers are held against the contract. */
export const scratchServer = (withDemo: boolean): NodeJS.ProcessEnv => ({
  SIGN_IN_ATTEMPTS: '1000',
  CHECK_ANSWERS: '1',
  ...(withDemo && demoWeather),
})
