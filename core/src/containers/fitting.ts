import { hardyWords } from '../climate/index.ts'
import { mixSurfaceM2, type Vessel } from '../garden/index.ts'
import { isWoody, type Taxon } from '../plants/index.ts'
import { capitalised, celsius, centimetres, counted, listed } from '../words/index.ts'
import type { FillSeason } from './fill.ts'
import { heightInPot } from './inPot.ts'
import { needsLime, needsLimeFree } from './mix.ts'

/** Where a plant of a pot has its place: tall in its middle, about that, over its edge. */
export const potRoles = ['focal', 'filler', 'trailer'] as const
export type PotRole = (typeof potRoles)[number]

/** The role of a planting by what is said of it: what is said otherwise, or not at all, fills. */
export const potRoleOf = (said: string | null): PotRole => potRoles.find((r) => r === said) ?? 'filler'

/** A kind in a pot. */
export interface Potted {
  taxon: Taxon
  count: number
  role: PotRole
}

/** Something to say of the plants of a pot together: what, of whom, and whether it rules it out. */
export interface PotRemark {
  kind: 'light' | 'water' | 'vigour' | 'hardiness' | 'leaned on' | 'proportion' | 'crowded' | 'open' | 'lime'
  botanicals: readonly string[]
  isGrave: boolean
  says: string
}

/** Two zones of hardiness, degrees: what a woody plant must bear beyond the garden's winter where its roots freeze through in a pot. */
const TWO_ZONES_C = 100 / 9

/**
 * The lowest temperature that a kind bears in a pot out of doors: its roots have none of the warmth of the ground. Woody plants want two
 * zones in hand, what dies back half as much.
 */
export const shelteredBelowC = (t: Pick<Taxon, 'lifeForm' | 'hardyToC'>): number =>
  t.hardyToC + (isWoody(t) ? TWO_ZONES_C : TWO_ZONES_C / 2)

/** What a pot is judged by. */
export interface PotSite {
  /** Hours of direct sun of a clear day in the growing season at its rim; undefined where not worked out. */
  sunHours: number | undefined
  /** Mean of the years' lowest temperatures, degrees Celsius. */
  coldestC: number
  /** The half of the year it is looked at for. */
  season: FillSeason
  /** Whether what is in it stays out through winter. */
  overWinter: boolean
}

const shortOf = (t: Taxon): string => t.common

/** What does not go together in a pot, or not with the pot, each with its reason; what is grave first. */
export function remarksOn(potted: readonly Potted[], vessel: Vessel, site: PotSite): PotRemark[] {
  const pairs = potted.flatMap((a, i) => potted.slice(i + 1).map((b) => [a.taxon, b.taxon] as const))
  const found = [
    ...pairs.flatMap(([a, b]) => [...pairRemarks(a, b)]),
    ...potted.flatMap(({ taxon }) => [...ownRemarks(taxon, site)]),
    ...togetherRemarks(potted, vessel),
  ]
  return found
    .map((r) => ({ ...r, says: capitalised(r.says) }))
    .sort((a, b) => Number(b.isGrave) - Number(a.isGrave))
}

/** Hours by which two ranges of light may miss each other before it tells. */
const NEAR_HOURS = 0.5
/** Conifers and their like brown for good where a neighbour lies on them. */
const brownsLeanedOn = (t: Taxon): boolean => t.lifeForm === 'evergreen shrub' && t.bearsHardCut === false

const vigours = ['slow', 'steady', 'strong', 'thug'] as const
const vigourOf = (t: Taxon) => vigours.indexOf(t.vigour)

/** What does not go together in one pot. */
export function* pairRemarks(a: Taxon, b: Taxon): Generator<PotRemark> {
  const botanicals = [a.botanical, b.botanical]
  const [shade, sun] = a.lightMaxHours < b.lightMaxHours ? [a, b] : [b, a]
  const gap = sun.lightMinHours - shade.lightMaxHours
  if (gap > NEAR_HOURS)
    yield {
      kind: 'light',
      botanicals,
      isGrave: gap > 2,
      says: `${shortOf(sun)} wants at least ${sun.lightMinHours} h of sun, ${shortOf(shade)} bears no more than ${shade.lightMaxHours}.`,
    }
  const [dry, wet] = a.moistureMax < b.moistureMax ? [a, b] : [b, a]
  if (wet.moistureMin > dry.moistureMax)
    yield {
      kind: 'water',
      botanicals,
      isGrave: wet.moistureMin > dry.moistureMax + 1,
      says: `${shortOf(wet)} is to be kept moist, ${shortOf(dry)} wants to dry out between waterings.`,
    }
  const [weak, strong] = vigourOf(a) < vigourOf(b) ? [a, b] : [b, a]
  if (vigourOf(strong) - vigourOf(weak) >= 2)
    yield {
      kind: 'vigour',
      botanicals,
      isGrave: strong.vigour === 'thug',
      says: `${shortOf(strong)} soon smothers ${shortOf(weak)} in one pot: cut it back often, or keep them apart.`,
    }
  for (const [evergreen, other] of [
    [a, b],
    [b, a],
  ] as const)
    if (brownsLeanedOn(evergreen) && other.heightM >= 0.5 * evergreen.heightM && vigourOf(other) >= 2)
      yield {
        kind: 'leaned on',
        botanicals,
        isGrave: false,
        says: `Where ${shortOf(other)} leans on ${shortOf(evergreen)} it browns, and does not green again: keep a hand’s width between them.`,
      }
}

/** What of a kind does not suit where the pot stands. */
export function* ownRemarks(
  taxon: Taxon,
  { sunHours, coldestC, season, overWinter }: PotSite,
): Generator<PotRemark> {
  const botanicals = [taxon.botanical]
  if (sunHours !== undefined) {
    const lacks = taxon.lightMinHours - sunHours
    // The low sun of winter scorches nothing that is there for winter alone.
    const over = season === 'winter' && taxon.annualSeason === 'cool' ? 0 : sunHours - taxon.lightMaxHours
    if (lacks > NEAR_HOURS || over > NEAR_HOURS)
      yield {
        kind: 'light',
        botanicals,
        isGrave: Math.max(lacks, over) > 2,
        says:
          lacks > 0
            ? `${shortOf(taxon)} wants at least ${taxon.lightMinHours} h of sun; this spot has ${sunHours.toFixed(1)}.`
            : `${shortOf(taxon)} bears no more than ${taxon.lightMaxHours} h of sun; this spot has ${sunHours.toFixed(1)}.`,
      }
  }
  const lasts = isWoody(taxon) || (taxon.lifeForm !== 'annual' && taxon.lifeForm !== 'tender perennial')
  if (overWinter && lasts && coldestC < shelteredBelowC(taxon))
    yield {
      kind: 'hardiness',
      botanicals,
      isGrave: taxon.hardyToC > coldestC,
      says:
        taxon.hardyToC > coldestC
          ? `${shortOf(taxon)} is hardy to about ${hardyWords(taxon.hardyToC)}; winters here reach ${celsius(Math.round(coldestC))}: bring it in.`
          : `Roots freeze through in a pot: ${shortOf(taxon)}, hardy to about ${hardyWords(taxon.hardyToC)}, wants shelter where winters reach ${celsius(Math.round(coldestC))}.`,
    }
}

/** The tallest of a pot is one to two times as tall as the pot itself, or as it is wide where it is a bowl: what florists and gardeners reckon. */
const LEAST_TALL = 0.6
const MOST_TALL = 2.5
/** Plants of a pot stand at so much of the distance of a bed: they are to fill it within weeks, and are fed. */
const IN_POT = 0.65
/** As in a triangular grid. */
const GRID = 0.866

/** Under the crown of a woody plant others grow: it takes no more than so much of the mix. */
const OF_WOODY = 0.6

/** Ground of the mix that one plant takes: of a woody one by how much smaller its pot keeps it, and never all of it. */
export function takesM2(
  taxon: Pick<Taxon, 'spacingM' | 'lifeForm' | 'heightM' | 'spreadM'>,
  vessel: Vessel,
): number {
  const kept = heightInPot(taxon, vessel) / taxon.heightM
  const own = GRID * (Math.min(IN_POT, kept) * taxon.spacingM) ** 2
  return isWoody(taxon) ? Math.min(own, OF_WOODY * mixSurfaceM2(vessel)) : own
}

/** How many of a kind fill a share of a pot; at least one. */
export const fills = (taxon: Parameters<typeof takesM2>[0], vessel: Vessel, share: number): number =>
  Math.max(1, Math.round((share * mixSurfaceM2(vessel)) / takesM2(taxon, vessel)))

function* togetherRemarks(potted: readonly Potted[], vessel: Vessel): Generator<PotRemark> {
  if (potted.length === 0) return
  const tallest = potted.reduce((a, b) =>
    heightInPot(b.taxon, vessel) > heightInPot(a.taxon, vessel) ? b : a,
  ).taxon
  const pot = Math.max(
    vessel.depthM,
    vessel.shape === 'bowl' || vessel.shape === 'trough' ? vessel.widthM : 0,
  )
  const heightM = heightInPot(tallest, vessel)
  const times = heightM / pot
  if (vessel.shape !== 'hanging' && (times > MOST_TALL || times < LEAST_TALL))
    yield {
      kind: 'proportion',
      botanicals: [tallest.botanical],
      isGrave: times > 2 * MOST_TALL,
      says:
        times > 1
          ? `At ${metresWords(heightM)} ${shortOf(tallest)} is ${times.toFixed(1)} times the height of the pot: one to two is what looks and stands well.`
          : `Nothing in it is as tall as the pot: ${shortOf(tallest)} grows to ${metresWords(heightM)}, the pot is ${metresWords(pot)}.`,
    }
  const taken = potted.reduce((sum, p) => sum + p.count * takesM2(p.taxon, vessel), 0) / mixSurfaceM2(vessel)
  const plants = potted.reduce((n, p) => n + p.count, 0)
  // One alone has the pot to itself: when it wants a larger one its roots tell.
  if (taken > 1.5 && plants > 1)
    yield {
      kind: 'crowded',
      botanicals: potted.map((p) => p.taxon.botanical),
      isGrave: taken > 2.5,
      says: `${counted(plants, 'plant')} want ${taken.toFixed(1)} times the room there is.`,
    }
  if (taken < 0.5)
    yield {
      kind: 'open',
      botanicals: [],
      isGrave: false,
      says: `Its plants take ${taken < 0.15 ? 'hardly any' : `about ${['a quarter', 'a third', 'half'][taken < 0.3 ? 0 : taken < 0.42 ? 1 : 2]!}`} of the room: there is place for more.`,
    }
  const acid = potted.filter((p) => needsLimeFree(p.taxon)).map((p) => p.taxon)
  const limy = potted.filter((p) => needsLime(p.taxon)).map((p) => p.taxon)
  if (acid.length > 0 && limy.length > 0)
    yield {
      kind: 'lime',
      botanicals: [...acid, ...limy].map((t) => t.botanical),
      isGrave: true,
      says: `${listed(acid.map(shortOf))} must be without lime, ${listed(limy.map(shortOf))} with.`,
    }
}

const metresWords = (m: number) => (m < 1 ? centimetres(m) : `${m.toFixed(1)} m`)
