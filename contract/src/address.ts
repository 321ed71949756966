/** The address of an endpoint with the given parts filled in. */
export function addressOf(path: string, params: Readonly<Record<string, string>>): string {
  return path.replace(/:([A-Za-z]+)/g, (_, name: string) => {
    const value = params[name]
    if (value === undefined) throw new Error(`${path} needs its ${name}`)
    return encodeURIComponent(value)
  })
}

/** The header in which a device says what its own clock tells as it sends: an instant, UTC. */
export const DEVICE_CLOCK = 'device-clock'
