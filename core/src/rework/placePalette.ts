import { sum } from 'd3-array'
import type { Climate } from '../climate/index.ts'
import { addDays, seasonYearOf, type IsoDate } from '../dates/index.ts'
import { weeksOfShow, weekStarts } from '../performance/index.ts'
import { groundM2, standsOutInLeaf, yearAt, type Taxon } from '../plants/index.ts'
import { candidatesFor } from './candidates.ts'
import { bloomWeeks, isEvergreen, layerOf, paletteOf, type Candidate, type PaletteWishes } from './palette.ts'
import { admitted, countsOf } from './paletteProgramme.ts'
import type { SitedGarden, StationedPlace } from './stations.ts'

/** What somebody wishes of a place; what it has and when it shows something follows from the garden. */
export interface PlaceWishes extends Omit<PaletteWishes, 'areaM2' | 'stays' | 'weeks' | 'season' | 'year'> {
  /** Ground to be planted, square metres; all that what stays leaves, where nobody says. */
  areaM2?: number | undefined
}

/** A place to be planted anew. */
export interface PlaceToPlant {
  garden: Omit<SitedGarden, 'places' | 'climate'> & { climate: Climate }
  of: StationedPlace
  isSouthern: boolean
  on: IsoDate
  /** What stays in it, with its ground. */
  stays: PaletteWishes['stays']
}

/** Less ground than this is not planted, square metres. */
export const LEAST_GROUND_M2 = 0.25

/** Half a year on, what is decided today is planted. */
const DAYS_ON = 180

/** Wishes of a place as palettes are asked for; undefined where what stays leaves no ground to plant. */
export function wishesFor(
  { garden, of, isSouthern, on, stays }: PlaceToPlant,
  { areaM2, ...wishes }: PlaceWishes,
): PaletteWishes | undefined {
  const season = seasonYearOf(addDays(on, DAYS_ON), isSouthern)
  const left = areaM2 ?? Math.max(0, of.place.areaM2 - sum(stays, (s) => s.areaM2))
  if (left < LEAST_GROUND_M2) return undefined
  return {
    ...wishes,
    areaM2: left,
    stays,
    season,
    weeks: weekStarts(weeksOfShow(garden.climate, season, isSouthern)),
    year: yearAt(garden.climate),
  }
}

/** What of all that is offered could come in: what one has of a kind goes before what is bought of it. */
export function offeredFor(
  place: PlaceToPlant,
  have: readonly Omit<Candidate, 'fit'>[],
  library: readonly Taxon[],
  priceOf: (botanical: string) => number | null,
  locked: readonly string[] = [],
): Candidate[] {
  const inHand = new Set(have.map((h) => h.taxon.botanical))
  const bought = library
    .filter((t) => !inHand.has(t.botanical))
    .map((taxon) => ({ taxon, from: 'library' as const, price: priceOf(taxon.botanical) }))
  return candidatesFor(place.of, place.garden, [...have, ...bought], locked)
}

/** A candidate as it is offered beside a plan, with what it would add to what is chosen already. */
export interface TrayCandidate {
  candidate: Candidate
  /** A usual number of it there. */
  count: number
  /** Points of what the place lacks that it would make good: below nothing where it would do harm. */
  gain: number
  /** By their turn, weeks without flower that it would flower in. */
  fillsWeeks: readonly number[]
  /** What else it would bring that the place has none of. */
  brings: readonly ('evergreen' | 'front' | 'middle' | 'back' | 'fine' | 'bold' | 'leaf colour')[]
}

/** What somebody has chosen, as a palette reckons with it. */
const itemsOf = (chosen: readonly { taxon: Taxon; count: number }[]) =>
  chosen.map(({ taxon, count }) => itemOf({ taxon, from: 'library', fit: 1, price: 0 }, count))

const itemOf = (candidate: Candidate, count: number) => ({
  candidate,
  count,
  drifts: 1,
  areaM2: groundM2(count, candidate.taxon.spacingM),
})

/** By week of the wishes the kinds in flower, of what is chosen and what stays. */
export const flowersOf = (
  w: PaletteWishes,
  chosen: readonly { taxon: Taxon; count: number }[],
): readonly (readonly string[])[] => paletteOf(itemsOf(chosen), w).flowering

/** Candidates by what they would bring to a choice, the most first; those already in it, and those against a wish, are left out. */
export function trayFor(
  candidates: readonly Candidate[],
  chosen: readonly { taxon: Taxon; count: number }[],
  w: PaletteWishes,
): TrayCandidate[] {
  const items = itemsOf(chosen)
  const now = paletteOf(items, w)
  const bare = now.flowering.map((of) => of.length === 0)
  const standing = [...w.stays.map((s) => s.taxon), ...chosen.map((c) => c.taxon)]
  const inIt = new Set(chosen.map((c) => c.taxon.botanical))
  return admitted(candidates, w)
    .filter((c) => !inIt.has(c.taxon.botanical))
    .flatMap((candidate): TrayCandidate[] => {
      const counts = countsOf(candidate, w).map(([n]) => n)
      const count = counts[Math.floor(counts.length / 2)]
      if (count === undefined) return []
      const { taxon } = candidate
      const blooms = bloomWeeks(taxon, w)
      const layer = layerOf(taxon, w.tallestM)
      return [
        {
          candidate,
          count,
          gain: now.lack - paletteOf([...items, itemOf(candidate, count)], w).lack,
          fillsWeeks: blooms.flatMap((b, i) => (b === 1 && bare[i] ? [i] : [])),
          brings: [
            ...(isEvergreen(taxon) && !standing.some(isEvergreen) ? (['evergreen'] as const) : []),
            ...(standing.some((t) => layerOf(t, w.tallestM) === layer) ? [] : [layer]),
            ...(taxon.texture !== 'medium' && !standing.some((t) => t.texture === taxon.texture)
              ? [taxon.texture]
              : []),
            ...(standsOutInLeaf(taxon.foliageColour) &&
            !standing.some((t) => standsOutInLeaf(t.foliageColour))
              ? (['leaf colour'] as const)
              : []),
          ],
        },
      ]
    })
    .sort((a, b) => b.gain - a.gain || (a.candidate.taxon.botanical < b.candidate.taxon.botanical ? -1 : 1))
}
