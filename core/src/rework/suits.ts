import type { Place } from '../garden/index.ts'
import { isWoody, type Taxon } from '../plants/index.ts'
import { fitOf, fitScore, whyNotThere, type Fit } from '../verdict/index.ts'
import { centimetres } from '../words/index.ts'
import type { SitedGarden, Station, StationedPlace } from './stations.ts'

/** What can keep a kind from a spot, beside what its fit goes by. */
const bounds = ['place', 'edge', 'wall', 'eaves', 'window', 'buried'] as const
export type Bound = (typeof bounds)[number]

/** How a kind would do at a station: 0 to 1, by the worst of all that bears on it, and what that is. */
export interface Suiting {
  score: number
  limiting: Fit['limiting'] | Bound
  reason: string
}

/** What a kind is grown to beside its edge: half its spread where it is woody, for it cannot give way; else half its spacing. */
export const wantsM = (taxon: Taxon): number => (isWoody(taxon) ? taxon.spreadM : taxon.spacingM) / 2

/** A climber further than this from anything upright has nothing to climb: a judgement. */
const CLIMBS_WITHIN_M = 1
/** Below eaves a hand is left for air. */
const UNDER_EAVES_M = 0.2
/** Round a hole of its root ball the ground is moved so far out: what is woody is dug wider. Working figures. */
const DUG_M = { woody: 0.5, rest: 0.25 }
/** What rises more than 25 degrees before a window takes daylight from it: the usual rule of daylight in buildings. */
const DAYLIGHT_RISE = Math.tan((25 * Math.PI) / 180)
/** What would darken a window can be cut; a thing to be asked about rather than forbidden. */
const AT_WINDOW = 0.3
const UNSUPPORTED = 0.3

/** The window that a kind would darken from there; a climber is kept from it. */
const darkened = ({ lifeForm, heightM, spreadM }: Taxon, { windows = [] }: Station) =>
  lifeForm === 'climber'
    ? undefined
    : windows.find((w) => heightM - w.sillM > DAYLIGHT_RISE * Math.max(0, w.awayM - spreadM / 2))

/** Every bound as a share of what it asks for, 0 to 1. */
const scoreBy: Record<Exclude<Bound, 'place'>, (taxon: Taxon, s: Station) => number> = {
  edge: (taxon, { edgeM }) => Math.min(1, edgeM / wantsM(taxon)),
  wall: (taxon, { wallM = Infinity }) => {
    if (taxon.lifeForm === 'climber') return wallM <= CLIMBS_WITHIN_M ? 1 : UNSUPPORTED
    return isWoody(taxon) ? Math.min(1, wallM / (taxon.spreadM / 2)) : 1
  },
  eaves: (taxon, { eaves }) => (eaves && taxon.heightM > eaves.heightM - UNDER_EAVES_M ? 0 : 1),
  window: (taxon, s) => (darkened(taxon, s) ? AT_WINDOW : 1),
  buried: (taxon, { buried }) => (buried && buried.awayM < DUG_M[isWoody(taxon) ? 'woody' : 'rest'] ? 0 : 1),
}

const edged = Object.keys(scoreBy) as Exclude<Bound, 'place'>[]

const reasonOf: Record<Exclude<Bound, 'place'>, (taxon: Taxon, s: Station) => string> = {
  edge: (taxon, { edgeM }) =>
    `${centimetres(edgeM)} from the edge, and it wants ${centimetres(wantsM(taxon))}: half its ${isWoody(taxon) ? 'spread' : 'spacing'}`,
  wall: (taxon, { wallM = 0 }) =>
    taxon.lifeForm === 'climber'
      ? 'nothing to climb on'
      : `${centimetres(wallM)} from the wall, and it wants half its spread, ${centimetres(taxon.spreadM / 2)}, for air`,
  eaves: (taxon, { eaves }) =>
    `the eaves of ${eaves!.name} are at ${metres(eaves!.heightM)}, and it grows to ${metres(taxon.heightM)}`,
  window: (taxon, s) => {
    const { of, sillM } = darkened(taxon, s)!
    return `it would stand before the windows of ${of}, which begin at ${metres(sillM)}`
  },
  buried: (_, { buried }) => `${buried!.name} lies in the ground there: nothing is dug so near it`,
}

const metres = (m: number) => `${Math.round(10 * m) / 10} m`

/** How a kind would do at a station of a place that it can stand in at all. */
export const suitScore = (taxon: Taxon, station: Station): number =>
  edged.reduce((least, b) => Math.min(least, scoreBy[b](taxon, station)), fitScore(taxon, station))

/** How a kind would do at a station, and what limits it there. */
export function suits(
  taxon: Taxon,
  place: Place,
  station: Station,
  garden: Omit<SitedGarden, 'places'>,
): Suiting {
  const never = whyNotIn(taxon, place, garden)
  if (never) return { score: 0, limiting: 'place', reason: never }
  const fit = fitOf(taxon, station)
  const worst = edged.reduce((a, b) => (scoreBy[b](taxon, station) < scoreBy[a](taxon, station) ? b : a))
  const score = scoreBy[worst](taxon, station)
  return score < fit.score ? { score, limiting: worst, reason: reasonOf[worst](taxon, station) } : fit
}

/** Why a kind would not stand anywhere in a place; undefined where it would, as far as is known. */
export const whyNotIn = (
  taxon: Taxon,
  place: Place,
  { climate, regions }: Omit<SitedGarden, 'places'>,
): string | undefined =>
  whyNotThere(taxon, { ph: place.ph, kind: place.kind, areaM2: place.areaM2, climate, regions })

/** How a kind would do at any station of a place, 0 to 1; whether it stands there at all is asked once. */
export function scoreIn(
  taxon: Taxon,
  place: Place,
  garden: Omit<SitedGarden, 'places'>,
): (station: Station) => number {
  return whyNotIn(taxon, place, garden) === undefined ? (s) => suitScore(taxon, s) : () => 0
}

/** How a kind would do all over a place. */
export interface SuitedPlace {
  place: Place
  /** By station, 0 to 1; all 0 where it would not stand there at all. */
  scores: Float64Array
  /** The station it would do best at, and how. */
  best: { x: number; y: number; suiting: Suiting }
}

/** Where a kind would do well, all over a garden: the plan's answer to a plant in the hand. The best place first. */
export function whereItSuits(taxon: Taxon, garden: SitedGarden): SuitedPlace[] {
  return garden.places
    .map(({ place, stations }) => {
      const scores = Float64Array.from(stations, scoreIn(taxon, place, garden))
      const at = bestStation(taxon, stations, scores)
      const { x, y } = stations[at]!
      return { place, scores, best: { x, y, suiting: suits(taxon, place, stations[at]!, garden) } }
    })
    .sort((a, b) => b.best.suiting.score - a.best.suiting.score)
}

/** The station with the best score; of those alike the one nearest to the middle of the sun that the kind likes. */
function bestStation(taxon: Taxon, stations: StationedPlace['stations'], scores: Float64Array): number {
  const middle = (taxon.lightMinHours + Math.min(taxon.lightMaxHours, DAY_HOURS)) / 2
  const off = (i: number) => Math.abs(stations[i]!.hours.total - middle)
  let best = 0
  for (let i = 1; i < stations.length; i++)
    if (scores[i]! > scores[best]! || (scores[i] === scores[best] && off(i) < off(best))) best = i
  return best
}
/** The hours of sun of a long open day: most kinds of full sun bear more than there is. */
const DAY_HOURS = 12
