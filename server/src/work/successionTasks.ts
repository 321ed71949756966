import type { FeatureView, PlantingView } from '@border/contract'
import {
  capitalised,
  castsShade,
  driedBy,
  isInside,
  isOfConsequence,
  isOutside,
  lightFit,
  middleOf,
  obstructionOf,
  succession,
  summerOf,
  sunHours,
  surfaceHeightM,
  tenths,
  suspectedMoisture,
  surroundingsOn,
  whyNotThere,
  winterHere,
  withSuppositions,
  type Condition,
  type KnownKinds,
  type Place,
  type Point,
  type Succession,
} from '@border/core'
import type { ComputeTasks } from './computeTasks.ts'

/** A failing planting, or a tree of the plan, and what could follow it. */
export interface Failing {
  /** One of these two. */
  plantingId: string | null
  featureId: string | null
  name: string
  placeId: string | null
  succession: Succession
}

/** Falls by so much a season, of 5, where it is no longer well. */
const FALLING = 0.3

/** Trees and shrubs of consequence that fail, with what could be planted now to stand when they go. */
export function failingOnes({
  garden,
  features,
  conditions,
  library,
  climate,
  on,
  regions,
  suspected,
  record,
}: ComputeTasks['successions']): Failing[] {
  const { scene, places } = garden
  const placeById = new Map(places.map((p) => [p.id, p]))
  const surroundings = surroundingsOn(scene, on)
  const moistures = suspectedMoisture(suspected)
  const again = new Map(record.map((r) => [r.taxon, r.again]))
  const knownAt = (place: Place | undefined): KnownKinds => ({
    // It is to stand for decades: what is at risk in a hard winter is not planted for that.
    whyNot: (t) =>
      winterHere(t, climate, 'bed') === 'hardy'
        ? whyNotThere(t, { ph: place?.ph, climate, regions })
        : 'it does not stand every winter here',
    again,
    poorThere: new Set(record.filter((r) => place && r.outliers.includes(place.id)).map((r) => r.taxon)),
  })
  const spotOf = (place: Place | undefined, x: number, y: number) => ({
    moisture: place?.moisture ?? null,
    wind: place?.wind,
    summer: summerOf(climate),
    suspected: place && moistures.get(place.id),
    ...driedBy(surroundings, x, y),
  })
  const hoursAt = (x: number, y: number, without?: string) => {
    const place = places.find((p) => p.kind === 'bed' && isInside(p.ring, x, y))
    const lit = without ? withSuppositions(scene, [{ obstructionId: without, gone: true }], on) : scene
    const point = { x, y, z: surfaceHeightM(place) }
    return { place, hours: sunHours(lit, [point], { kind: 'season', on }, place?.ground ?? undefined)[0]! }
  }
  const plants = garden.plantings.flatMap((p): Failing[] => {
    const why = isOfConsequence(p.taxon) && failingWords(p, conditions[p.id])
    const at = placeById.get(p.placeId)
    if (!why || at?.kind !== 'bed') return []
    const { hours } = hoursAt(p.x, p.y)
    // What its light explains is answered by a move, not by another of its size in the same light.
    if (isOutside(lightFit(p.taxon, hours, summerOf(climate)))) return []
    const ailing = {
      taxon: p.taxon,
      heightM: p.taxon.heightM,
      says: why,
      now: hours,
      then: hours,
      spot: spotOf(at, p.x, p.y),
    }
    const found = succession(ailing, library, knownAt(at))
    if (!found) return []
    const name = `${p.tag} ${p.taxon.botanical}`
    return [{ plantingId: p.id, featureId: null, name, placeId: at.id, succession: found }]
  })
  const trees = features.filter(isAilingTree).flatMap((f): Failing[] => {
    // Beside the old one, on the side where it gets most light as long as that stands.
    const beside = about(middleOf(f.geometry), Math.max(LEAST_OFF_M, OFF_SHARE * crownOf(f)))
    const spots = beside.map((at) => ({ at, ...hoursAt(...at) }))
    const { at, hours: now, place } = spots.reduce((a, b) => (b.hours.total > a.hours.total ? b : a))
    const { hours: then } = hoursAt(...at, f.id)
    const ailing = {
      heightM: heightOf(f),
      says: `${capitalised(f.name)} is in ${f.properties.health === 'failing' ? 'failing' : 'poor'} health.`,
      now,
      then,
      // Its own roots go with it.
      spot: { ...spotOf(place, ...at), rootsOf: undefined },
    }
    const found = succession(ailing, library, knownAt(place))
    if (!found) return []
    return [
      { plantingId: null, featureId: f.id, name: f.name, placeId: place?.id ?? null, succession: found },
    ]
  })
  return [...trees, ...plants]
}

const isAilingTree = (f: FeatureView): boolean =>
  f.kind === 'tree' && castsShade(f) && (f.properties.health === 'poor' || f.properties.health === 'failing')

const LEAST_OFF_M = 1.5
/** So far out of its crown's radius a successor is set. */
const OFF_SHARE = 0.8

/** Eight points about another. */
const about = ([x, y]: Point, radius: number): Point[] =>
  Array.from({ length: 8 }, (_, k): Point => {
    const turn = (k * Math.PI) / 4
    return [x + radius * Math.cos(turn), y + radius * Math.sin(turn)]
  })

function crownOf(f: FeatureView): number {
  const tree = obstructionOf(f)
  return tree && 'crownRadiusM' in tree ? Number(tree.crownRadiusM) : 2
}

const heightOf = (f: FeatureView): number => obstructionOf(f)?.heightM ?? 6

function failingWords(p: PlantingView, e: Condition | undefined): string | undefined {
  if (!e) return undefined
  const poor = e.rating !== null && e.rating <= 2
  if (e.decline && (poor || e.decline.perSeason >= FALLING))
    return `${p.taxon.botanical} has fallen by ${tenths(e.decline.perSeason)} a season since ${e.decline.from}.`
  if (poor && e.signs.some((s) => s === 'dieback' || s === 'crown-rot' || s === 'dead-below'))
    return `${p.taxon.botanical} is rated ${e.rating} of 5 and dies back.`
  return undefined
}
