import { addDays, type IsoDate } from '../src/dates/index.ts'
import { isSettling } from '../src/performance/index.ts'
import { library, usualState, type Taxon, type Year } from '../src/plants/index.ts'
import { normal, type Random } from '../src/random/index.ts'
import { susceptibility, type SignedPlanting } from '../src/diagnosis/index.ts'
import { isSiteCause, likelihoods, type SignCause } from '../src/diagnosis/index.ts'
import { signs, type SignId } from '../src/diagnosis/index.ts'

/** A made-up garden with one trouble in it whose cause is known. */
export interface TroubledGarden {
  plantings: SignedPlanting[]
  /** Undefined in a garden with nothing wrong. */
  truth: { cause: SignCause; centre: string; affected: string[] } | undefined
  year: Year
}

export interface Simulation {
  on: IsoDate
  /** Undefined for a garden with nothing wrong. */
  cause: SignCause | undefined
  /** Standard deviation of the log of each true share about the table's: nature has not read it. */
  disorder: number
  /** Share of signs a walk fails to note. */
  missed: number
}

/**
 * Signs follow shares drawn about those of the table, not the table itself, each true garden its own; a third of the
 * gardens have a season that marks plants everywhere; walks miss signs and note some that mean nothing.
 */
export function troubledGarden(random: Random, simulation: Simulation): TroubledGarden {
  const { on, cause, disorder, missed } = simulation
  const year: Year = { lateDays: Math.round(6 * normal(random)), south: false }
  const truly = new Map(
    likelihoods.map((r) => [
      `${r.sign} ${r.cause}`,
      Math.min(0.95, r.share * Math.exp(disorder * normal(random))),
    ]),
  )
  const rate = new Map(signs.map((s) => [s.id, Math.min(0.3, s.usual * Math.exp(disorder * normal(random)))]))
  const seasonMark: SignId | undefined =
    random() < 1 / 3
      ? (['wilting', 'spotted', 'chewed', 'mildew'] as const)[Math.floor(random() * 4)]
      : undefined
  const grown = Array.from({ length: 24 + Math.floor(random() * 20) }, (_, i) => planted(random, i, on))
  // A tree stands somewhere in every garden.
  const tree = grown[Math.floor(random() * grown.length)]!
  for (const p of grown) p.rootsNear = Math.hypot(p.x - tree.x, p.y - tree.y) < 3.5
  const centre = cause && pickCentre(random, grown, cause, on, year)
  const affected: string[] = []
  const plantings = grown.map((p): SignedPlanting => {
    const state = usualState(p.taxon, p.seenOn, year)
    const young = isSettling(p.taxon, p.inPlaceSince, p.seenOn, false)
    const close =
      centre !== undefined && Math.hypot(p.x - centre.x, p.y - centre.y) < 3 && p.placeId === centre.placeId
    const hit = cause !== undefined && (isSiteCause(cause) ? close : p === centre)
    const minds = !hit
      ? 0
      : isSiteCause(cause)
        ? susceptibility(p.taxon, cause) * Math.exp(0.5 * disorder * normal(random))
        : 1
    if (hit) affected.push(p.id)
    const chance = (id: SignId) => {
      let clear = 1 - rate.get(id)!
      if (id === seasonMark) clear *= 0.65
      const share = (of: SignCause) => truly.get(`${id} ${of}`) ?? 0
      if (hit) clear *= 1 - Math.min(0.95, share(cause) * minds)
      if (state.resting) clear *= 1 - share('its season')
      if (young) clear *= 1 - share('settling in')
      return 1 - clear
    }
    const shown = signs.filter((s) => random() < chance(s.id) * (1 - missed)).map((s) => s.id)
    const dip = (hit ? 1.7 * Math.min(1, minds) : 0) + (state.resting ? 1.3 : 0) + (young ? 0.9 : 0)
    const rating = Math.max(1, Math.min(5, Math.round(4.2 - dip + 0.6 * normal(random))))
    return { ...p, signs: shown, rating }
  })
  // Half of the changes of light are on the plan, as people draw half of what happens.
  if ((cause === 'more sun' || cause === 'less sun') && random() < 0.5)
    for (const p of plantings)
      if (affected.includes(p.id)) p.lightChangeHours = (cause === 'more sun' ? 1 : -1) * (1 + 2 * random())
  return { plantings, truth: centre && cause ? { cause, centre: centre.id, affected } : undefined, year }
}

function planted(random: Random, i: number, on: IsoDate): SignedPlanting {
  const taxon: Taxon = library[Math.floor(random() * library.length)]!
  const bed = Math.floor(random() * 4)
  return {
    id: String(i),
    taxon,
    placeId: `bed ${bed}`,
    // Beds of eight by three metres, well apart.
    x: bed * 20 + random() * 8,
    y: random() * 3,
    inPlaceSince: addDays(on, -Math.round(120 + random() * 8 * 365)),
    signs: [],
    rating: null,
    seenOn: on,
    lightChangeHours: 0,
    lightOutsideHours: 0,
    moistureSteps: 0,
    rootsNear: false,
  }
}

/** A planting the cause can show itself on: one that minds it, not at rest. */
function pickCentre(
  random: Random,
  grown: readonly SignedPlanting[],
  cause: SignCause,
  on: IsoDate,
  year: Year,
): SignedPlanting | undefined {
  const able = grown.filter((p) => {
    const resting = usualState(p.taxon, on, year).resting
    const young = isSettling(p.taxon, p.inPlaceSince, on, false)
    if (cause === 'its season') return resting
    if (cause === 'settling in') return young && !resting
    if (cause === 'root competition' && !p.rootsNear) return false
    return !resting && !young && susceptibility(p.taxon, cause) >= 0.8
  })
  return able[Math.floor(random() * able.length)]
}
