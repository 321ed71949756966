import { signWords } from '../diagnosis/signs.ts'
import { cutBacks, type CutBack, type LifeForm, type Taxon } from '../plants/index.ts'
import { celsius, listed } from '../words/index.ts'
import type { Anchor, Applies, CareRule, WindowSpec } from './rule.ts'
import { monthDaysWords } from './turns.ts'

/** A rule in one sentence, without any garden's dates. */
export function ruleSentence(rule: CareRule): string {
  const when = rule.windows.map(windowWords).join(', or ')
  const never = rule.forbids.length > 0 ? ` Not ${listed(rule.forbids.map((f) => forbiddenWords[f]))}.` : ''
  return `${appliesWords(rule.applies)}: ${lowered(rule.does)}, ${when}${repeatWords(rule)}.${never}`
}

const repeatWords = ({ everyDays, monthDays, byTurns = [] }: CareRule): string =>
  [
    monthDays ? `, on ${monthDaysWords(monthDays)}` : everyDays ? `, every ${everyDays} days` : '',
    byTurns.length > 0 ? `, by turns ${listed(byTurns)}` : '',
  ].join('')

const lowered = (text: string) => text.charAt(0).toLowerCase() + text.slice(1)

/** As it is said after “not”. */
export const forbiddenWords: Record<CareRule['forbids'][number], string> = {
  'in flower': 'in flower',
  heat: 'in heat',
  'frozen soil': 'in frozen soil',
  'sodden soil': 'in sodden soil',
  'hard frost': 'in hard frost',
  rain: 'in rain',
  wind: 'in wind',
  'nesting birds': 'while birds nest in it',
  'dry soil': 'on dry soil',
}

const windowWords = (w: WindowSpec): string =>
  `${w.season === 'any time' ? 'at any time' : `in ${w.season === 'dormant season' ? 'the dormant season' : w.season}`}, from ${anchorWords(w.earliest)} to ${anchorWords(w.latest)}`

/** An anchor in words, without a date: `3 weeks after the soil passes 6 °C`. */
export function anchorWords(anchor: Anchor): string {
  const words =
    'latestOf' in anchor
      ? `the later of ${anchor.latestOf.map(anchorWords).join(' and ')}`
      : 'earliestOf' in anchor
        ? `the sooner of ${anchor.earliestOf.map(anchorWords).join(' and ')}`
        : pointWords(anchor)
  const days = anchor.days ?? 0
  if ('at' in anchor && anchor.at === 'rooting time left')
    return `${anchor.weeks - days / 7} weeks before soil falls below ${celsius(anchor.c)}`
  if (days === 0) return words
  if (days > 300) return `${words} of the next season`
  return `${Math.abs(days)} days ${days < 0 ? 'before' : 'after'} ${words}`
}

function pointWords(anchor: Exclude<Anchor, { latestOf: unknown } | { earliestOf: unknown }>): string {
  switch (anchor.at) {
    case 'last frost':
    case 'first frost': {
      const share = { 10: 'one year in ten', 50: 'usually', 90: 'nine years in ten' }[anchor.share]
      return anchor.share === 50 ? `the usual ${anchor.at}` : `the ${anchor.at} that is past ${share}`
    }
    case 'soil above':
      return `soil passing ${celsius(anchor.c)}`
    case 'soil below':
      return `soil falling below ${celsius(anchor.c)}`
    case 'days above':
      return `days above ${celsius(anchor.c)}`
    case 'nights above':
      return `nights above ${celsius(anchor.c)}`
    case 'nights below':
      return `nights below ${celsius(anchor.c)}`
    case 'bloom starts':
      return 'the first flowers'
    case 'first flush ends':
      return 'the end of the first flush'
    case 'bloom ends':
      return 'the last flowers'
    case 'growth shows':
      return 'the first new growth'
    case 'growth has shown':
      return 'new growth everywhere'
    case 'goes over':
      return 'its going over'
    case 'is gone':
      return 'its dying down or leaf fall'
    case 'midwinter':
    case 'next midwinter':
      return 'the coldest soil'
    case 'midsummer':
      return 'the warmest soil'
    case 'longest day':
      return 'the longest day'
    case 'rooting time left':
      return `${anchor.weeks} weeks before soil falls below ${celsius(anchor.c)}`
    case 'warmth left':
      return `the last day with ${anchor.degreeDays} degree days above 5 °C to come`
    case 'earliest':
      return 'its opening'
    case 'latest':
      return 'its closing'
    case 'best from':
      return 'the best of it'
  }
}

const lifeFormWords: Record<LifeForm, string> = {
  perennial: 'perennials',
  'warm grass': 'warm-season grasses',
  'cool grass': 'cool-season and evergreen grasses',
  bulb: 'bulbs',
  fern: 'ferns',
  'deciduous shrub': 'deciduous shrubs',
  'evergreen shrub': 'evergreen shrubs',
  climber: 'climbers',
  'small tree': 'small trees',
  groundcover: 'groundcovers',
  succulent: 'succulents',
  annual: 'annuals',
  'tender perennial': 'tender perennials',
}

const cutBackWords: Record<CutBack, string> = {
  herbaceous: 'that die down',
  'warm grass': 'cut down once a year before growth',
  comb: 'that are combed',
  'old leaves': 'that hold last year’s leaves',
  shear: 'clipped low after bloom',
  'after frost': 'taken down by frost',
  leave: 'left to die down of themselves',
  none: 'not cut back',
}

type Worded = { readonly [K in keyof Taxon]?: (values: readonly unknown[]) => string }

const traitWords: Worded = {
  cutBack: (v) =>
    cutBacks
      .filter((c) => v.includes(c))
      .map((c) => cutBackWords[c])
      .join(' or '),
  moveWhen: (v) =>
    `moved ${v.map((m) => (m === 'either' ? 'in autumn or spring' : m === 'spring' ? 'in spring' : m === 'dormant' ? 'while dormant' : String(m))).join(' or ')}`,
  divideHow: () => 'that are divided',
  pruning: (v) =>
    `pruned ${v.map((p) => (p === 'late winter' ? 'in late winter' : p === 'midsummer' ? 'in midsummer' : p === 'spur' ? 'to spurs' : p === 'shear' ? 'by clipping' : p === 'stool' ? 'to the base' : String(p))).join(' or ')}`,
  flowersOn: (v) =>
    v.includes(null)
      ? 'whatever wood they flower on'
      : `flowering on ${v.map((w) => (w === 'both' ? 'old and new wood' : String(w))).join(' or ')}`,
  halves: () => 'that may be halved',
  repeats: (v) => `that flower again ${v.join(' or ')}`,
  selfSeeds: () => 'that seed themselves freely',
  wind: () => 'that need support',
  feed: (v) => (v.includes('heavy') ? 'that are hungry' : 'that want a light feed'),
  annualSeason: (v) => `of the ${v.join(' or ')} season`,
  bearsHardCut: () => 'that bear a hard cut',
}

/** Kinds named one by one in a sentence. */
const MOST_NAMED = 6

/** Which plants a rule is for, in words. */
export function appliesWords(a: Applies): string {
  if (a.wholePlace) {
    const what = a.place === 'container' ? 'Pots' : a.place === 'bed' ? 'Beds' : 'Beds and pots'
    return [
      what,
      ...(a.ground ? [`${a.ground} for most of what grows there, by a soil test`] : []),
      ...(a.piped ? ['watered by pipes'] : []),
      ...(a.byWater ? ['at the edge of water'] : []),
      ...(a.byWall ? ['at the foot of a wall'] : []),
    ].join(' ')
  }
  const forms = a.traits?.lifeForm as readonly LifeForm[] | undefined
  const head = a.taxa
    ? listed(a.taxa)
    : forms && forms.length <= 4
      ? listed(forms.map((f) => lifeFormWords[f]))
      : 'Plants'
  const parts = Object.entries(a.traits ?? {}).flatMap(
    ([trait, values]) => traitWords[trait as keyof Taxon]?.(values as readonly unknown[]) ?? [],
  )
  if (a.signs) parts.push(`that show ${listed(a.signs.map(signWords))}`)
  if (a.troubles) parts.push(`that suffer from ${listed([...a.troubles])}`)
  if (a.untilSeason !== undefined) parts.push(`in their first ${a.untilSeason} seasons`)
  if (a.winter)
    parts.push(a.winter.includes('tender') ? 'not hardy here' : 'at the limit of their hardiness here')
  if (a.hardierThanC !== undefined) parts.push(`hardy below ${celsius(a.hardierThanC)}`)
  if (a.tendererThanC !== undefined) parts.push(`hardy to no less than ${celsius(a.tendererThanC)}`)
  if (a.winterColderThanC !== undefined) parts.push(`where winters go below ${celsius(a.winterColderThanC)}`)
  if (a.winterMilderThanC !== undefined)
    parts.push(`where winters stay above ${celsius(a.winterMilderThanC)}`)
  if (a.due === 'division') parts.push('when due')
  if (a.place) parts.push(a.place === 'bed' ? 'in beds' : 'in pots')
  if (a.onWall) parts.push('trained on a wall or fence')
  if (a.wishes) parts.push(`whose flowers are wished ${a.wishes.join(' or ')}`)
  if (a.tested !== undefined) parts.push(a.tested ? 'in tested soil' : 'in soil that nobody has tested')
  if (a.phAbove !== undefined) parts.push(`in soil above pH ${a.phAbove}`)
  if (a.phBelow !== undefined) parts.push(`in soil below pH ${a.phBelow}`)
  const but = !a.notTaxa
    ? ''
    : a.notTaxa.length > MOST_NAMED
      ? ' (but for kinds with a rule of their own)'
      : ` (not ${listed(a.notTaxa)})`
  const text = [head, ...parts].join(' ')
  return `${text.charAt(0).toUpperCase()}${text.slice(1)}${but}`
}
