import { daysBetween, seasonYearOf, type IsoDate } from '../dates/index.ts'
import { isWoody, seasonDates, usualState, type Taxon, type Year } from '../plants/index.ts'
import { flowerForm } from './form.ts'

/** What there is to see of a plant on a day. Shares are from 0 to 1. */
export interface Appearance {
  /** Of the height it grows to, as much as stands above ground: 0 where nothing is to be seen. */
  height: number
  /** Of its leaves those that are out. */
  leaf: number
  /** How fresh they are: 1 as they unfold. */
  fresh: number
  /** How far they have turned: 1 in full autumn colour. */
  turned: number
  /** Of its flowers those that are open. */
  flower: number
  /** Seed heads that stand. */
  heads: number
  /** It keeps its leaves, and they are dull with cold. */
  isDull: boolean
  /** All of it is straw: it has died and stands. */
  isStraw: boolean
}

const NOTHING: Appearance = {
  height: 0,
  leaf: 0,
  fresh: 0,
  turned: 0,
  flower: 0,
  heads: 0,
  isDull: false,
  isStraw: false,
}

/** What shows has its leaves out so many days after the latest sign of growth. A judgement. */
const UNFOLDS_DAYS = 35
/** Leaves are fresh for so long after that. */
const FRESH_DAYS = 30
/** What comes up stands this much of its height as soon as it is seen. */
const SHOOTS = 0.08
/** Heads stand on what keeps them until it is cut down, so long before it grows again, days. */
const CUT_DOWN_DAYS = 15
/** What has flowered holds so much of its height once its heads are all that stands. */
const STRAW_HEIGHT = 0.92

const between = (v: number): number => Math.max(0, Math.min(1, v))
/** From 0 to 1 without a jolt (a cubic with no slope at its ends). */
const smoothly = (v: number): number => between(v) ** 2 * (3 - 2 * between(v))

/** Flowers that are so far open, and leaves that have turned so far, are what is seen of a kind. */
export const SEEN_OPEN = 0.25
export const SEEN_TURNED = 0.35

/** What there usually is to see of a kind on a day of a year. */
export function appearanceOn(taxon: Taxon, on: IsoDate, year: Year): Appearance {
  const own = seasonYearOf(on, year.south)
  const seasons = [own - 1, own, own + 1].map((s) => seasonDates(taxon, s, year))
  const flower = Math.max(...seasons.map((s) => openOn(s.bloom, on)))
  const evergreen = seasons[1]!.winter === 'winter green'
  const season = seasons.find((s) => s.showsFrom <= on && on <= s.goneBy)
  const { phase } = usualState(taxon, on, year)
  if (!season) {
    const before = seasons.filter((s) => s.goneBy < on).at(-1)
    if (evergreen) return { ...NOTHING, height: 1, leaf: 1, flower, isDull: true }
    if (isWoody(taxon)) return { ...NOTHING, height: 1, flower }
    const next = seasons.find((s) => s.showsFrom > on)
    const isCut = next !== undefined && daysBetween(on, next.showsFrom) <= CUT_DOWN_DAYS
    if (!taxon.standsWinter || !before || isCut)
      return flower > 0 ? { ...NOTHING, height: 0.6, flower } : NOTHING
    return {
      ...NOTHING,
      height: STRAW_HEIGHT,
      leaf: 0.4,
      turned: 1,
      heads: Number(hasHeads(taxon)),
      isStraw: true,
      flower,
    }
  }
  const { showsFrom, showsBy, fadesFrom, goneBy, bloom } = season
  const unfolds = daysBetween(showsFrom, showsBy) + UNFOLDS_DAYS
  const into = daysBetween(showsFrom, on)
  const leaf = evergreen ? 1 : smoothly(into / unfolds)
  // Herbs reach their height with their flowers, or by the time their leaves are out.
  const grown =
    bloom && bloom.from > showsFrom
      ? Math.max(1, Math.min(unfolds, daysBetween(showsFrom, bloom.from)))
      : unfolds
  const turned = between(daysBetween(fadesFrom, on) / Math.max(1, daysBetween(fadesFrom, goneBy)))
  const height = evergreen || isWoody(taxon) ? 1 : SHOOTS + (1 - SHOOTS) * smoothly(into / grown)
  const hasFlowered = bloom !== undefined && on > bloom.to
  return {
    height: phase === 'summer rest' && !evergreen && !isWoody(taxon) ? 0.5 * height : height,
    leaf: evergreen ? 1 : leaf * (isWoody(taxon) ? 1 - turned ** 3 : 1),
    fresh: evergreen ? 0 : 1 - between((into - unfolds / 2) / FRESH_DAYS),
    turned: evergreen ? 0 : turned,
    flower,
    heads: hasFlowered && hasHeads(taxon) ? between(daysBetween(bloom.to, on) / 15) : 0,
    isDull: false,
    isStraw: false,
  }
}

/** How open a bloom is on a day: it opens over its first fifth, and goes over in its last. */
function openOn(bloom: { from: IsoDate; to: IsoDate } | undefined, on: IsoDate): number {
  if (!bloom || on < bloom.from || on > bloom.to) return 0
  const share = daysBetween(bloom.from, on) / Math.max(1, daysBetween(bloom.from, bloom.to))
  return between(Math.min((share + 0.04) / 0.2, (1.04 - share) / 0.2))
}

const HEADED = new Set(['daisy', 'spike', 'plate', 'plume', 'globe', 'awn', 'panicle'])

/** Whether its heads are worth seeing once its flowers are over: those that are left standing. */
function hasHeads(taxon: Taxon): boolean {
  const form = flowerForm(taxon)
  return taxon.standsWinter && form !== undefined && HEADED.has(form)
}
