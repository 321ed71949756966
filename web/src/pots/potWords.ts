import type { CheckView, ContainersView, PotView } from '@border/contract'
import {
  capitalised,
  celsius,
  counted,
  dayMonth,
  hasCorners,
  isoDate,
  lightOff,
  likesWords,
  listed,
  moneyWords,
  monthName,
  monthYear,
  partsFrom,
  testedTraits,
  tenths,
  USUAL_FLOOR_KG_PER_M2,
  usualOfMixes,
  type IsoDate,
  type MonthOfWater,
  type PotFault,
  type PotRole,
  type Proposal,
  type SunHours,
  type Taxon,
  type Vessel,
} from '@border/core'
import { lengthText, shortDate } from '../frame/words.ts'

const shapeWords: Record<Vessel['shape'], string> = {
  round: 'straight-sided pot',
  box: 'box',
  tapered: 'tapered pot',
  bowl: 'bowl',
  'half round': 'half-round wall pot',
  trough: 'trough',
  hanging: 'hanging basket',
}

/** `A tapered pot of terracotta, 40 cm across and 38 cm deep.` */
export function vesselWords(vessel: Vessel): string {
  const { shape, material, lengthM, widthM, depthM } = vessel
  const across = hasCorners(vessel)
    ? `${lengthText(lengthM)} by ${lengthText(widthM)}`
    : `${lengthText(widthM)} across`
  return `A ${shapeWords[shape]}${material ? ` of ${material.name}` : ''}, ${across} and ${lengthText(depthM)} deep inside.`
}

const assumedNames: Record<Vessel['assumed'][number], string> = {
  size: 'its width',
  depth: 'its depth',
  foot: 'the width of its foot',
  wall: 'its wall',
  material: 'what it is made of',
}

/** What nobody has measured; nothing where all is said. */
export const assumedWords = (assumed: Vessel['assumed']): string | undefined =>
  assumed.length === 0
    ? undefined
    : `Nobody has said ${listed(assumed.map((a) => assumedNames[a]))}: reckoned as is usual of such a pot.`

const days = (n: number) => Math.max(1, Math.round(n))

/** `every 2 days (1 to 4)`: in the middle of ten years, and from one of ten to nine of ten. */
export function everyWords({ days: between }: Pick<MonthOfWater, 'days'>): string {
  if (!between) return 'rain is enough'
  const [a, b, c] = [days(between.p10), days(between.p50), days(between.p90)]
  const middle = b === 1 ? 'every day' : `every ${b} days`
  if (a === c) return middle
  return c > 30 ? `${middle} (${a} to more than 30)` : `${middle} (${a} to ${c})`
}

/** Litres as a can is filled. */
export const litresText = (litres: number): string =>
  litres < 1
    ? `${Math.max(0.1, Math.round(10 * litres) / 10)} l`
    : `${litres < 10 ? tenths(litres) : Math.round(litres)} l`

/** Kilograms, to what can be told of them. */
export const kgText = (kg: number): string => `${kg < 10 ? tenths(kg) : Math.round(kg)} kg`

/** What is to be done about a fault; what is a matter of safety defers to whoever is to judge it. */
export function faultWords(fault: PotFault, { weight, tipsAtMs }: PotView): string {
  const load = `${Math.round(weight.wetPerM2)} kg/m² where it stands`
  const words: Record<PotFault, string> = {
    'no holes':
      'No hole: drill one, or water stands in it and roots drown. Nothing is to be planted in it before.',
    'frost bursts it':
      'Frost bursts such a pot when its wall is wet: bring it in, or keep it dry and wrapped, on feet.',
    'frost may crack it':
      'Frost may crack it where glaze is chipped or water stands: on feet, its hole open.',
    'no feet': 'It stands flat on the ground: feet keep its hole open, and wood below it dry.',
    'saucer in winter': 'Take the saucer away before frost: what stands in it freezes into the foot.',
    tips: `Empty of water it tips in a gust of about ${Math.round(tipsAtMs ?? 0)} m/s, which comes in most years: a lower place, a stone in its foot, or a tie.`,
    deck: `Watered through it weighs ${kgText(weight.wet)}, ${load}. Floors and balconies are often reckoned for ${USUAL_FLOOR_KG_PER_M2} to 200 kg, together with people and snow: ask whoever may judge the structure, and keep to local codes.`,
    overhead: `It hangs or stands over where people pass, ${kgText(weight.wet)} when wet: fixings are for somebody who can judge them, and are looked at each spring.`,
  }
  return words[fault]
}

/** Faults that are said before all else. */
export const isGrave = (fault: PotFault): boolean => ['no holes', 'deck', 'tips', 'overhead'].includes(fault)

/** `40 kg dry, 58 kg watered: three people.` */
export function weightWords({ weight, liftedBy }: Pick<PotView, 'weight' | 'liftedBy'>): string {
  const by =
    liftedBy === null
      ? 'a sack truck or rollers, not by hand'
      : liftedBy === 1
        ? 'one person lifts it'
        : `${counted(liftedBy, 'person', 'people')} to lift it`
  return `${kgText(weight.empty)} empty, ${kgText(weight.dry)} planted and dry, ${kgText(weight.wet)} watered through: ${by}.`
}

/** Light that is off by less is right, hours. */
export const RIGHT_H = 0.25

/** `3.6 h more than its plants like`; nothing where it is as they want it. @param taxa what grows in a container, or is to */
export function lightOffWords(
  taxa: readonly Pick<Taxon, 'lightMinHours' | 'lightMaxHours'>[],
  { total }: Pick<SunHours, 'total'>,
): string | undefined {
  const off = lightOff(taxa, total)
  if (Math.abs(off) < RIGHT_H) return undefined
  return `${tenths(Math.abs(off))} h ${off > 0 ? 'more than its plants like' : 'less than its plants want'}`
}

/** When a day's sun comes: `5.2 h of sun, most of it in the morning`. */
export function sunWords({ total, morning, midday, afternoon }: SunHours): string {
  if (total < 0.25) return 'no sun'
  const hours = `${tenths(total)} h of sun`
  const [part, most] = (
    [
      ['in the morning', morning],
      ['about midday', midday],
      ['in the afternoon', afternoon],
    ] as const
  ).reduce((a, b) => (b[1] > a[1] ? b : a))
  if (most > 0.85 * total) return `${hours}, all but some of it ${part}`
  return most > 0.55 * total ? `${hours}, most of it ${part}` : `${hours} through the day`
}

/** When what is in it goes over, and when the next may go in. @param nameOf a kind by its botanical name */
export function swapWords(
  { over, next }: PotView['swap'],
  nameOf: (botanical: string) => string,
  today: IsoDate,
): string {
  const comes =
    next && `${likesWords[next.season]} may go in from ${dayMonth(next.from)} to ${dayMonth(next.to)}.`
  return [over && overText(over, nameOf, today), comes].filter(Boolean).join(' ')
}

function overText(
  { from, to, botanical, because }: NonNullable<PotView['swap']['over']>,
  nameOf: (botanical: string) => string,
  today: IsoDate,
): string {
  const first = capitalised(nameOf(botanical))
  if (to < today) return `${first} is over, as its kind is from ${dayMonth(from)} on.`
  const why = because === 'frost' ? 'with the first frost' : 'as its season ends'
  return from <= today
    ? `${first} is going over, until ${dayMonth(to)}, ${why}.`
    : `${first} goes over between ${dayMonth(from)} and ${dayMonth(to)}, ${why}.`
}

/** `Before the night to 23 September (2 °C) bring in Door pot 10 (zonal pelargonium).` */
export function coldWords(
  { day, minC, pots }: ContainersView['coldNights'][number],
  nameOf: (potId: string) => string,
  kindOf: (botanical: string) => string,
): string {
  const which = pots.map((p) => `${nameOf(p.id)} (${listed(p.botanicals.map(kindOf))})`)
  return `Before the night to ${dayMonth(day)} (${celsius(Math.round(minC))}) bring in or cover ${listed(which)}.`
}

const colourWords = {
  single: 'flowers of one colour',
  neighbouring: 'flowers of colours that lie side by side',
  opposite: 'flowers of colours that set each other off',
} as const

/** `In flower 20 of 22 weeks, flowers of one colour.` */
export const proposalWords = ({ weeks, colours, cost }: Proposal): string =>
  [
    `In flower ${weeks.inFlower} of ${weeks.of} weeks${colours ? `, ${colourWords[colours]}` : ''}.`,
    cost && costWords(cost),
  ]
    .filter(Boolean)
    .join(' ')

/** What comes to be bought, and what of it nobody has a price for. */
export const costWords = ({ price, unpriced }: NonNullable<Proposal['cost']>): string =>
  price === 0 && unpriced.length > 0
    ? 'Nobody has a price for what is to be bought.'
    : `${moneyWords(price)} to buy${unpriced.length > 0 ? `, without ${listed(unpriced)}` : ''}.`

/** Where a plant of a pot stands. */
export const roleWords: Record<PotRole, string> = {
  focal: 'in the middle',
  filler: 'about it',
  trailer: 'over the edge',
}

/** `September`, by its number. */
export const monthLong = (month: number): string => monthName(isoDate(2024, month, 1))
export const monthShort = (month: number): string => monthLong(month).slice(0, 3)

/** What a mix is like, by what tells: the air that is left once it has drained. */
export const mixWords = ({ traits }: Pick<PotView['mix'], 'traits'>): string =>
  `Drained it is ${percent(traits.air)} air and ${percent(traits.water)} water, of which plants can draw ${percent(traits.available / traits.water)}.`

const percent = (share: number) => `${Math.round(100 * share)} %`

/** What the air and water of a mix rest on: a test of it, or part by part what it is made of; and what is usual. */
export function mixSourceWords({ parts, testedOn }: Pick<PotView['mix'], 'parts' | 'testedOn'>): string {
  const [air, water] = [usualOfMixes.air, usualOfMixes.water].map(
    ([from, to]) => `${Math.round(100 * from)} to ${Math.round(100 * to)} %`,
  )
  const usual = `Usual of pots are ${air} air and ${water} water (Bilderback and others 2005).`
  return testedOn === null
    ? `${partsWords(parts)} ${usual}`
    : `Air and water are as they were tested on ${shortDate(testedOn)}; since then it is reckoned to have aged as its parts do. How much of the water plants can draw is worked out from the parts. ${usual}`
}

function partsWords(parts: PotView['mix']['parts']): string {
  const [measured, working] = [
    partsFrom('Carsel and Parrish 1988', parts),
    partsFrom('working figure', parts),
  ]
  return [
    'Told for the middle of a pot 20 cm tall, once drained: a taller one keeps more air, a shallow one less.',
    'What is solid follows from the weight of each part and the density of its grains (EN 13041).',
    measured.length > 0 && `Water of ${listed(measured)} is after Carsel and Parrish (1988).`,
    working.length > 0 && `That of ${listed(working)} is a working figure: bags differ.`,
  ]
    .filter(Boolean)
    .join(' ')
}

/** Reasons as they are read one after the other. */
export const sentences = (because: readonly string[]): string => because.join(' ')

const feltWords = {
  wet: 'wet a finger deep',
  moist: 'moist a finger deep',
  dry: 'dry a finger deep',
} as const

/** `18 % air and 52 % water once drained` */
export const drainWords = ({ air, water }: { air: number; water: number }): string =>
  `${percent(air)} air and ${percent(water)} water once drained`

/** A test of a mix as it is listed among what was found. */
const testWords = ({
  sampleLitres,
  filledLitres,
  drainedLitres,
}: Pick<CheckView, 'sampleLitres' | 'filledLitres' | 'drainedLitres'>): string =>
  `its mix tested, ${drainWords(
    testedTraits({
      sampleLitres: sampleLitres ?? 1,
      filledLitres: filledLitres ?? 0,
      drainedLitres: drainedLitres ?? 0,
    }),
  )}`

/** What was done or found at a container: `dry a finger deep. Light as a feather.` */
export function checkWords({ kind, felt, lighterKg, rainMm, stars, note, ...test }: CheckView): string {
  const what =
    kind === 'watered'
      ? 'watered through'
      : kind === 'felt'
        ? feltWords[felt ?? 'moist']
        : kind === 'weighed'
          ? `${kgText(lighterKg ?? 0)} lighter than watered`
          : kind === 'rained'
            ? `${tenths(rainMm ?? 0)} mm in the rain gauge`
            : kind === 'rated'
              ? `${stars} of 5, all of it together`
              : testWords(test)
  return note ? `${what}. ${note}` : what
}

/** What a pot's own draw comes to, and how sure that is. */
export function factorWords(factor: PotView['factor']): string {
  if (!factor)
    return 'Nothing was found here that tells more than the weather does: note when it was watered through, and how it feels some days later.'
  const share = (v: number) => `${Math.round(100 * Math.abs(v - 1))} %`
  const middle =
    Math.abs(factor.factor - 1) < 0.05
      ? 'It draws as is worked out'
      : `It draws ${share(factor.factor)} ${factor.factor > 1 ? 'more' : 'less'} than is worked out from its size and the weather`
  const from = (v: number) => (Math.abs(v - 1) < 0.05 ? 'as much' : `${share(v)} ${v > 1 ? 'more' : 'less'}`)
  return `${middle}, by ${counted(factor.from, 'finding')} (from ${from(factor.p10)} to ${from(factor.p90)}). Its waterings are reckoned so.`
}

/** The mix as it has become, and when what of it must be new. */
export function mixStateWords(state: NonNullable<PotView['mix']['state']>, today: IsoDate): string {
  const { traits, sunk, topUpOn, wholeOn } = state
  const when = (day: IsoDate) => (day <= today ? 'now' : `about ${monthYear(day)}`)
  return [
    sunk >= 0.03 && `It has sunk by ${Math.round(100 * sunk)} % since.`,
    `Drained it has ${Math.round(100 * traits.air)} % of air left.`,
    topUpOn && `The top third is to be new ${when(topUpOn)}.`,
    wholeOn ? `All of it must be new ${when(wholeOn)}.` : 'It keeps its air for ten years and more.',
  ]
    .filter(Boolean)
    .join(' ')
}

/** How a kind is wintered. @param name as it is called */
export function winteringWords(w: PotView['wintering'][number], name: string): string {
  return `${capitalised(name)} comes in ${w.in.from === w.in.to ? `about ${dayMonth(w.in.from)}` : `between ${dayMonth(w.in.from)} and ${dayMonth(w.in.to)}`}, to ${w.light === 'bright' ? 'a bright' : 'a dark or bright'} place above ${celsius(Math.round(w.aboveC))}; look it over every ${w.everyDays} days. From ${dayMonth(w.hardenFrom)} out by day and in by night; out for good from ${dayMonth(w.out.from)}, after ${dayMonth(w.out.to)} without a thought of frost.`
}

/** When roots of a woody plant fill its pot; `fillOn` null: never. @param whose `Roots of bay`, `Its roots` */
export const rootWords = (fillOn: IsoDate | null, whose: string, today: IsoDate): string =>
  fillOn === null
    ? `${whose} never fill it.`
    : fillOn <= today
      ? `${whose} have filled it since ${monthYear(fillOn)}.`
      : `${whose} will have filled it by ${monthYear(fillOn)}.`
