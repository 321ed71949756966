import type { Place, StandingGarden } from '../garden/index.ts'
import { areaM2 } from '../geometry/index.ts'
import type { GardenLight } from './assess.ts'

/** What a pot takes to work out, as so much of a bed: a working figure. */
const POT_M2 = 8

/**
 * A garden in parts whose light can be worked out apart, of about as much ground each. Plantings go with their place, those in none of
 * the places with the first part.
 *
 * @param most how many parts at most; the same garden is always parted alike
 */
export function lightParts<G extends Pick<StandingGarden, 'places' | 'plantings'>>(
  garden: G,
  most: number,
): G[] {
  const parts = Array.from({ length: Math.max(1, Math.min(most, garden.places.length)) }, () => ({
    m2: 0,
    ids: new Set<string>(),
  }))
  // The largest first, each to whoever has least so far.
  for (const place of [...garden.places].sort((a, b) => groundM2(b) - groundM2(a))) {
    const part = parts.reduce((least, p) => (p.m2 < least.m2 ? p : least))
    part.m2 += groundM2(place)
    part.ids.add(place.id)
  }
  const placed = new Set(garden.places.map((p) => p.id))
  return parts.map(({ ids }, k) => ({
    ...garden,
    places: garden.places.filter((p) => ids.has(p.id)),
    plantings: garden.plantings.filter((p) => ids.has(p.placeId) || (k === 0 && !placed.has(p.placeId))),
  }))
}

const groundM2 = (place: Place): number => (place.kind === 'bed' ? areaM2(place.ring) : POT_M2)

/** The light of a whole garden by that of its parts, in the garden's own order. */
export function joinLight(
  garden: Pick<StandingGarden, 'places' | 'plantings'>,
  parts: readonly GardenLight[],
): GardenLight {
  const plantings = new Map(parts.flatMap((l) => l.plantings.map((p) => [p.plantingId, p])))
  const places = new Map(parts.flatMap((l) => l.field.places.map((p) => [p.place.id, p])))
  return {
    plantings: garden.plantings.map((p) => plantings.get(p.id)!),
    field: { places: garden.places.map((p) => places.get(p.id)!) },
  }
}
