import { dayNumber } from '../dates/index.ts'
import { firstFlushEnd, seasonDates, usualBloom, type SeasonDates, type Taxon } from '../plants/index.ts'
import { celsius, dayMonth } from '../words/index.ts'
import { dayAt, type GardenYear } from './gardenYear.ts'
import type { Anchor, Edge } from './rule.ts'

/** A day of a window and what it hangs on, as a clause: `the soil is usually above 6 °C from then`. */
export interface Anchored {
  day: number
  says: string
}

/** What an anchor may look at: the year of the place, the plant, and the edges worked out so far. */
export interface AnchorContext {
  garden: GardenYear
  taxon?: Taxon | undefined
  edges: Partial<Record<Edge, Anchored>>
}

/** Where in a year an anchor falls; undefined where the place's year has no such day. */
export function anchored(anchor: Anchor, context: AnchorContext): Anchored | undefined {
  const found = plain(anchor, context)
  if (!found) return anchor.or && anchored(anchor.or, context)
  const days = anchor.days ?? 0
  if ('at' in anchor && anchor.at === 'rooting time left' && days < 0)
    return {
      day: found.day + days,
      says: `time is short between heat and cold here: ${dayMonth(dayAt(found.day))} is the last day that leaves ${anchor.weeks} weeks to root`,
    }
  return days === 0 ? found : { day: found.day + days, says: moved(found.says, days) }
}

/** `three weeks before the last frost usually comes`: clauses of a moved anchor keep their own day. */
function moved(says: string, days: number): string {
  if (says === '' || days > 300) return says
  const size = Math.abs(days)
  const words =
    size % 7 === 0 && size >= 14
      ? `${size / 7} weeks`
      : size === 1
        ? 'a day'
        : size === 7
          ? 'a week'
          : `${size} days`
  return `${words} ${days < 0 ? 'before' : 'after'} ${says}`
}

function plain(anchor: Anchor, context: AnchorContext): Anchored | undefined {
  if ('latestOf' in anchor) return extreme(anchor.latestOf, context, (a, b) => a.day >= b.day)
  if ('earliestOf' in anchor) return extreme(anchor.earliestOf, context, (a, b) => a.day <= b.day)
  const { garden } = context
  const late = garden.year.lateDays
  switch (anchor.at) {
    case 'last frost':
    case 'first frost': {
      const which = anchor.at === 'last frost' ? 'last' : 'first'
      const day = garden.frost(which, anchor.share)
      return day === undefined ? undefined : { day, says: frostWords(which, anchor.share, day) }
    }
    case 'soil above':
      return rising(context, 'soilC', anchor.c, `the soil passes ${celsius(anchor.c)}`, late)
    case 'soil below':
      return falling(context, 'soilC', anchor.c, `the soil falls below ${celsius(anchor.c)}`)
    case 'days above':
      return rising(context, 'maxC', anchor.c, `days above ${celsius(anchor.c)} begin`, late)
    case 'nights above':
      return rising(context, 'minC', anchor.c, `nights stay above ${celsius(anchor.c)}`, late)
    case 'nights below':
      return falling(context, 'minC', anchor.c, `nights fall below ${celsius(anchor.c)}`)
    case 'bloom starts':
    case 'first flush ends':
    case 'bloom ends':
      return bloomEdge(context, anchor.at)
    case 'growth shows':
    case 'growth has shown':
    case 'goes over':
    case 'is gone':
      return ofPlant(context, anchor.at)
    case 'midwinter':
      return { day: garden.midwinter, says: `the coldest soil of the year, about ${on(garden.midwinter)}` }
    case 'next midwinter':
      return {
        day: garden.nextMidwinter,
        says: `the coldest soil of the year, about ${on(garden.nextMidwinter)}`,
      }
    case 'midsummer':
      return { day: garden.midsummer, says: `the warmest soil of the year, about ${on(garden.midsummer)}` }
    case 'longest day':
      return { day: garden.longestDay, says: `the longest day, ${on(garden.longestDay)}` }
    case 'rooting time left': {
      const cold = garden.first('soilC', garden.midsummer, garden.nextMidwinter, (t) => t < anchor.c)
      const end = cold ?? garden.nextMidwinter
      const says = cold
        ? `the soil here usually drops below ${celsius(anchor.c)} about ${on(cold)}, and new roots need ${anchor.weeks} weeks before that`
        : `${anchor.weeks} weeks are left before the coldest soil of the year, about ${on(end)}`
      return { day: end - 7 * anchor.weeks, says }
    }
    case 'warmth left':
      return warmthLeft(garden, anchor.degreeDays)
    case 'earliest':
      return edge(context.edges.earliest)
    case 'latest':
      return edge(context.edges.latest)
    case 'best from':
      return edge(context.edges.bestFrom)
  }
}

/** Another edge of the same window has no clause of its own. */
const edge = (known: Anchored | undefined): Anchored | undefined => known && { day: known.day, says: '' }

const on = (day: number) => dayMonth(dayAt(day))

function extreme(
  anchors: readonly Anchor[],
  context: AnchorContext,
  wins: (a: Anchored, b: Anchored) => boolean,
): Anchored | undefined {
  const found = anchors.flatMap((a) => anchored(a, context) ?? [])
  return found.length === 0 ? undefined : found.reduce((best, a) => (wins(best, a) ? best : a))
}

function frostWords(which: 'last' | 'first', share: 10 | 50 | 90, day: number): string {
  if (share === 50) return `the ${which} frost usually comes about ${on(day)}`
  if (which === 'last')
    return share === 90
      ? `nine years in ten the last frost is over by ${on(day)}`
      : `one year in ten the last frost is over by ${on(day)}`
  return share === 10
    ? `one year in ten brings frost by ${on(day)}`
    : `nine years in ten bring frost by ${on(day)}`
}

/** A threshold passed on the way from midwinter to midsummer; moved with this year's earliness. */
function rising(
  { garden }: AnchorContext,
  series: 'soilC' | 'maxC' | 'minC',
  c: number,
  what: string,
  lateDays: number,
): Anchored | undefined {
  const usual = garden.first(series, garden.midwinter, garden.midsummer, (t) => t > c)
  if (usual === undefined) return undefined
  if (usual === garden.midwinter)
    return {
      day: usual,
      says: `${what.replace(/ (passes|stay|begin).*/, '')} here ${series === 'soilC' ? `never falls below ${celsius(c)}` : `pass ${celsius(c)} all year`}`,
    }
  return { day: usual + lateDays, says: `${what}, usually ${on(usual)} here${thisYear(lateDays)}` }
}

function thisYear(lateDays: number): string {
  if (lateDays === 0) return ''
  const size = Math.abs(lateDays)
  return `; this year about ${size} ${size === 1 ? 'day' : 'days'} ${lateDays < 0 ? 'early' : 'late'}`
}

function falling(
  { garden }: AnchorContext,
  series: 'soilC' | 'minC',
  c: number,
  what: string,
): Anchored | undefined {
  const day = garden.first(series, garden.midsummer, garden.nextMidwinter, (t) => t < c)
  return day === undefined ? undefined : { day, says: `${what}, usually ${on(day)} here` }
}

/** Both ends are of the bloom that ends within this gardening year. */
function bloomEdge(
  { garden, taxon }: AnchorContext,
  at: 'bloom starts' | 'first flush ends' | 'bloom ends',
): Anchored | undefined {
  if (!taxon?.bloomFrom || !taxon.bloomTo) return undefined
  const bloomOf = (season: number) => {
    const bloom = usualBloom(taxon, season, garden.year)
    return bloom && { from: dayNumber(bloom.from), to: dayNumber(bloom.to) }
  }
  // What flowers through the winter ends what it began the season before; an autumn that runs into the next year does not.
  const overWinter = taxon.bloomTo < taxon.bloomFrom ? bloomOf(garden.season - 1) : undefined
  const bloom =
    overWinter && overWinter.to >= garden.midwinter - DAYS_BEFORE_MIDWINTER
      ? overWinter
      : bloomOf(garden.season)
  if (!bloom) return undefined
  if (at === 'first flush ends') {
    const end = firstFlushEnd(taxon, garden.season, garden.year)
    const day = end ? dayNumber(end) : bloom.to
    return { day, says: `its first flush is usually over, about ${on(day)}` }
  }
  return at === 'bloom starts'
    ? { day: bloom.from, says: `it usually begins to flower, about ${on(bloom.from)}` }
    : { day: bloom.to, says: `it has usually flowered, about ${on(bloom.to)}` }
}

/** A bloom over winter that ends earlier than so many days before the coldest soil is the last year's. */
const DAYS_BEFORE_MIDWINTER = 15

function ofPlant(
  { garden, taxon }: AnchorContext,
  at: 'growth shows' | 'growth has shown' | 'goes over' | 'is gone',
): Anchored | undefined {
  if (!taxon) return undefined
  const dates: SeasonDates = seasonDates(taxon, garden.season, garden.year)
  const day = dayNumber(
    {
      'growth shows': dates.showsFrom,
      'growth has shown': dates.showsBy,
      'goes over': dates.fadesFrom,
      'is gone': dates.goneBy,
    }[at],
  )
  const words = {
    'growth shows': 'new growth first shows',
    'growth has shown': 'new growth has shown everywhere',
    'goes over': 'it begins to go over',
    'is gone':
      dates.winter === 'bare'
        ? 'it is bare of leaf'
        : dates.winter === 'winter green'
          ? 'its growth stops'
          : 'it has died down',
  }
  const late = at === 'growth shows' || at === 'growth has shown' ? thisYear(garden.year.lateDays) : ''
  return {
    day,
    says: `${words[at]}, usually about ${on(day - (late ? garden.year.lateDays : 0))} here${late}`,
  }
}

function warmthLeft(garden: GardenYear, sum: number): Anchored | undefined {
  const end = garden.frost('first', 50) ?? garden.nextMidwinter
  if (garden.warmth(garden.midwinter, end) < sum) return undefined
  let day = end
  while (day > garden.midwinter && garden.warmth(day, end) < sum) day--
  return {
    day,
    says: `about ${sum} degree days of growing warmth are left before ${garden.frost('first', 50) === undefined ? 'midwinter' : 'frost'}, about ${on(end)}`,
  }
}
