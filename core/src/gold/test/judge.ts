import { climateOf, generateWeather, patternAt, type Climate } from '../../climate/index.ts'
import { madeBed, madePlanting, madePot, rectangle, taxonNamed } from '../../garden/test/made.ts'
import type { SunHours } from '../../light/index.ts'
import { yearAt } from '../../plants/index.ts'
import { fitOf, judgeGarden, type SpotOption, type Verdict } from '../../verdict/index.ts'
import type { GoldCase } from '../goldCase.ts'

/** How an answer compares: `harm` where it would hurt the plant or the garden. */
export type Grade = 'right' | 'partly' | 'wrong' | 'harm'

/** The verdict on a case, through the door that a real garden's plantings go through once their light is known. */
export function verdictOn(c: GoldCase): Verdict {
  const taxon = taxonNamed(c.plant)
  const climate = climateAt(c.latitude)
  const year = yearAt(climate)
  const placeId = c.place === 'container' ? 'pot' : 'bed'
  const planted = c.planted ?? 1
  const planting = madePlanting('p', c.plant, {
    placeId,
    plantedOn: c.since,
    plantedCount: planted,
    livingCount: Math.max(1, Math.round(planted * (c.living ?? 1))),
  })
  const liked = sun((taxon.lightMinHours + Math.min(taxon.lightMaxHours, 9)) / 2)
  const hours = {
    right: liked,
    shade: sun(Math.max(0, taxon.lightMinHours - 3.5)),
    sun: sun(taxon.lightMaxHours + 3.5),
    'a little over': sun(taxon.lightMaxHours + 0.75),
  }[c.light ?? 'right']
  const elsewhere: SpotOption = {
    placeId: 'other',
    placeName: 'another bed',
    x: 9,
    y: 9,
    hours: liked,
    fit: fitOf(taxon, { hours: liked }),
  }
  const asks = c.light === 'shade' || c.light === 'sun' || c.moisture !== undefined
  const garden = {
    scene: { latitudeDeg: c.latitude, longitudeDeg: 0, northDeg: 0, obstructions: [] },
    places: [
      madeBed('bed', rectangle(-2, -2, 2, 2), { moisture: c.moisture ?? null }),
      madePot('pot', 0, 0, { moisture: null }),
    ],
    plantings: [planting],
    reserved: [],
    year,
    climate,
    conditions: {
      p: {
        signs: c.signs,
        signsOn: Object.fromEntries(c.signs.map((sign) => [sign, c.seenOn ?? c.on])),
        rating: c.rating ?? null,
        decline: null,
        living: c.living ?? 1,
        dividedOn: c.dividedOn ?? c.since,
        role: null,
        again: c.again ?? null,
      },
    },
  }
  const light = { plantings: [{ plantingId: 'p', before: hours, now: hours, causes: [] }] }
  return judgeGarden(garden, light, asks ? { p: [elsewhere] } : {}, {}, c.on)[0]!.verdict
}

/** An answer against what is expected. */
export function gradeOf(c: GoldCase, { action, runnerUp, terms, remedies }: Verdict): Grade {
  if (c.never?.includes(action)) return 'harm'
  const own = [
    ...terms.filter((t) => t.action === action).map((t) => t.says),
    ...remedies.filter((r) => r.action === action).flatMap((r) => [r.does, r.says]),
  ].join(' ')
  const begins = remedies.find((r) => r.action === action)?.window?.bestFrom
  const inTime = !c.done || (begins !== undefined && begins >= c.done[0] && begins <= c.done[1])
  if (c.right.includes(action)) return c.reason.test(own) && inTime ? 'right' : 'partly'
  if (
    c.fine?.includes(action) ||
    c.right.includes(runnerUp) ||
    remedies.some((r) => c.right.includes(r.action))
  )
    return 'partly'
  return 'wrong'
}

const sun = (total: number): SunHours => ({
  total,
  heat: 0,
  morning: total / 2,
  midday: total / 2,
  afternoon: 0,
})

/** A place for each latitude of the situations, in the climate that is meant by it. */
const longitudes: Record<GoldCase['latitude'], number> = { 52: 0.1, 42: -91, 33: -84, '-34': 138.6, 64: 20 }
const climates = new Map<number, Climate>()
function climateAt(latitude: GoldCase['latitude']): Climate {
  const known = climates.get(latitude)
  if (known) return known
  const site = { latitude, longitude: longitudes[latitude] }
  const found = climateOf(generateWeather(patternAt(site), 2008, 2025), latitude)
  if (!found.ok) throw new Error(found.reason)
  climates.set(latitude, found.climate)
  return found.climate
}
