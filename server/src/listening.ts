/** Where a server listens. */
export interface Listening {
  host: string
  port: number
}

export const LOOPBACK = '127.0.0.1'

/** A port number, 1 to 65535; undefined for any other text. */
export const portIn = (text: string): number | undefined =>
  /^\d{1,5}$/.test(text) && Number(text) >= 1 && Number(text) <= 65_535 ? Number(text) : undefined

/**
 * Where HOST and PORT of the environment say; loopback and the usual port where they say nothing.
 *
 * @throws {Error} for a PORT that is no port number
 */
export function listeningOf(env: NodeJS.ProcessEnv, usualPort: number): Listening {
  const port = env.PORT ? portIn(env.PORT) : usualPort
  if (port === undefined) throw new Error(`PORT takes a port number, 1 to 65535, not “${env.PORT}”.`)
  return { host: env.HOST || LOOPBACK, port }
}

const EVERY_ADDRESS: Readonly<Record<string, string>> = { '0.0.0.0': LOOPBACK, '::': '::1' }

/** The address that a browser on this machine finds it at; what listens on every address is found on loopback. */
export function addressOf({ host, port }: Listening): string {
  const at = EVERY_ADDRESS[host] ?? host
  return `http://${at.includes(':') ? `[${at}]` : at}:${port}`
}
