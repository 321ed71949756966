import { isIsoDate, problemText, solarPosition, type FileResult } from '@border/core'
import { readFileSync } from 'node:fs'
import { parseArgs } from 'node:util'
import { BadInput, Misuse } from './say.ts'

/** Reads a text file, or says which one could not be read. */
export function readText(path: string): string {
  try {
    return readFileSync(path, 'utf8')
  } catch (error) {
    throw new BadInput([
      `${path}: ${(error as NodeJS.ErrnoException).code === 'ENOENT' ? 'there is no such file' : (error as Error).message}`,
    ])
  }
}

/** Reads a file of JSON, or says that it is none. */
export function readJson(path: string): unknown {
  const text = readText(path)
  try {
    return JSON.parse(text)
  } catch (error) {
    throw new BadInput([`${path}: is not JSON: ${(error as Error).message}`])
  }
}

/** What a file holds; its problems are bad input. */
export function accepted<T>(result: FileResult<T>): T {
  if (!result.ok) throw new BadInput(result.problems.map(problemText))
  return result.value
}

/** `--lon -105.2` as `--lon=-105.2`: a word that begins like a negative number is a value, never an option. */
const withNegatives = (args: readonly string[]): string[] =>
  args.reduce<string[]>((found, arg) => {
    const name = found.at(-1)
    if (/^-\.?\d/.test(arg) && name?.startsWith('--') && !name.includes('='))
      found[found.length - 1] = `${name}=${arg}`
    else found.push(arg)
    return found
  }, [])

/** Options of a subcommand; anything it does not know is misuse. */
export function optionsOf<T extends NonNullable<Parameters<typeof parseArgs>[0]>['options']>(
  args: string[],
  options: T,
) {
  try {
    return parseArgs({ args: withNegatives(args), options, allowPositionals: true, strict: true })
  } catch (error) {
    throw new Misuse((error as Error).message)
  }
}

export function numberOption(name: string, text: unknown): number {
  const value = typeof text === 'string' && text.trim() !== '' ? Number(text) : NaN
  if (!Number.isFinite(value)) throw new Misuse(`--${name} takes a number`)
  return value
}

/** A day that an option names. */
export function dayOption(name: string, text: string | undefined): string {
  if (!text) throw new Misuse(`--${name} takes a date like 2026-09-14`)
  if (!isIsoDate(text)) throw new BadInput([`--${name}: ${text} is not a date like 2026-09-14`])
  return text
}

/** `border sun --lat 52 --lon 1.3 --at 2026-06-21T11:00:00Z --json` */
export function sunCommand(args: string[]): string {
  const { values } = optionsOf(args, {
    lat: { type: 'string' },
    lon: { type: 'string' },
    at: { type: 'string' },
    json: { type: 'boolean' },
  })
  const lat = numberOption('lat', values.lat)
  const lon = numberOption('lon', values.lon)
  if (Math.abs(lat) > 90) throw new BadInput([`--lat: ${lat} is not between -90 and 90`])
  if (Math.abs(lon) > 180) throw new BadInput([`--lon: ${lon} is not between -180 and 180`])
  if (!values.at) throw new Misuse('--at takes an instant like 2026-06-21T11:00:00Z')
  const at = Date.parse(values.at)
  if (!/(Z|[+-]\d\d:?\d\d)$/.test(values.at) || Number.isNaN(at))
    throw new BadInput([`--at: ${values.at} is not an instant with its offset, like 2026-06-21T11:00:00Z`])
  const { azimuthDeg, elevationDeg } = solarPosition(at, lat, lon)
  return values.json
    ? JSON.stringify({ azimuthDeg, elevationDeg })
    : `azimuth ${azimuthDeg.toFixed(2)}° clockwise from true north, elevation ${elevationDeg.toFixed(2)}° (geometric)`
}
