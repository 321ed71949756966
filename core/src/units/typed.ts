import {
  CANONICAL_UNITS,
  celsiusOf,
  fahrenheit,
  feetAndInches,
  KG_PER_OUNCE,
  KG_PER_POUND,
  LITRES_PER_FLUID_OUNCE,
  LITRES_PER_GALLON,
  M_PER_FOOT,
  M_PER_INCH,
  plain,
  type Units,
} from './units.ts'

/** Units that are asked for in a field: what is kept is in them. */
export const askedUnits = ['m', 'cm', 'mm', 'l', 'kg', 'g', '°C', 'l/h'] as const
export type AskedUnit = (typeof askedUnits)[number]
export const isAskedUnit = (unit: unknown): unit is AskedUnit => askedUnits.includes(unit as AskedUnit)

type Kind = 'length' | 'volume' | 'flow' | 'weight' | 'temperature'
const kindOf: Record<AskedUnit, Kind> = {
  m: 'length',
  cm: 'length',
  mm: 'length',
  l: 'volume',
  'l/h': 'flow',
  kg: 'weight',
  g: 'weight',
  '°C': 'temperature',
}
/** Of the unit of its kind that is reckoned in: metres, litres, kilograms. */
const perAsked: Record<AskedUnit, number> = {
  m: 1,
  cm: 0.01,
  mm: 0.001,
  l: 1,
  'l/h': 1,
  kg: 1,
  g: 0.001,
  '°C': 1,
}

const signs: Record<Exclude<Kind, 'temperature'>, Record<string, number>> = {
  length: {
    m: 1,
    metre: 1,
    metres: 1,
    cm: 0.01,
    mm: 0.001,
    "'": M_PER_FOOT,
    ft: M_PER_FOOT,
    foot: M_PER_FOOT,
    feet: M_PER_FOOT,
    '"': M_PER_INCH,
    in: M_PER_INCH,
    inch: M_PER_INCH,
    inches: M_PER_INCH,
  },
  volume: {
    l: 1,
    litre: 1,
    litres: 1,
    ml: 0.001,
    gal: LITRES_PER_GALLON,
    gallon: LITRES_PER_GALLON,
    gallons: LITRES_PER_GALLON,
    qt: LITRES_PER_GALLON / 4,
    'fl oz': LITRES_PER_FLUID_OUNCE,
  },
  flow: { 'l/h': 1, l: 1, 'gal/h': LITRES_PER_GALLON, gal: LITRES_PER_GALLON },
  weight: { kg: 1, g: 0.001, lb: KG_PER_POUND, lbs: KG_PER_POUND, oz: KG_PER_OUNCE },
}

const saidBy: Record<Kind, keyof Units> = {
  length: 'length',
  volume: 'volume',
  flow: 'volume',
  weight: 'weight',
  temperature: 'temperature',
}
const usesOther = (kind: Kind, of: Units): boolean => of[saidBy[kind]] !== CANONICAL_UNITS[saidBy[kind]]

/** The unit that a bare number is taken to be in. */
function bareUnit(asked: AskedUnit, of: Units): string {
  const kind = kindOf[asked]
  if (!usesOther(kind, of)) return asked
  return {
    length: asked === 'm' ? 'ft' : 'in',
    volume: 'gal',
    flow: 'gal/h',
    weight: asked === 'kg' ? 'lb' : 'oz',
    temperature: '°F',
  }[kind]
}

const parts = { '¼': 0.25, '½': 0.5, '¾': 0.75 } as const
const PART = String.raw`(\d+(?:[.,]\d+)?)?\s*([¼½¾]|\d+/\d+)?\s*([a-z'"°/][a-z'"°/ ]*)?`

/** A number as it is typed: `1.4`, `1,4`, `4½`, `4 1/2`. */
function numberOf(whole: string | undefined, part: string | undefined): number {
  const [top, bottom] = (part ?? '').split('/').map(Number)
  const fraction = part === undefined ? 0 : (parts[part as keyof typeof parts] ?? top! / bottom!)
  return Number((whole ?? '0').replace(',', '.')) + fraction
}

/**
 * A quantity as somebody types it, in the unit that is asked for: `4'6"`, `54 in`, `1.4 m`, `4 ft 6`, `12 F`, `2 gal`, or a bare number,
 * which is in their own units.
 *
 * @returns undefined where it is none
 */
export function quantityTyped(text: string, asked: AskedUnit, of: Units): number | undefined {
  const kind = kindOf[asked]
  const said = text
    .trim()
    .toLowerCase()
    .replaceAll(/[−–]/g, '-')
    .replaceAll(/[’′]/g, "'")
    .replaceAll(/[”″]|''/g, '"')
    .replaceAll(/[ \s]+/g, ' ')
  const [, minus, rest] = /^(-?) ?(.+)$/.exec(said) ?? []
  if (rest === undefined) return undefined
  const sign = minus ? -1 : 1
  if (kind === 'temperature') return temperatureTyped(rest, sign, of)
  let total = 0
  let last: number | undefined
  for (const [piece, whole, part, unit] of rest.matchAll(new RegExp(`${PART} ?`, 'g'))) {
    if (piece === '') continue
    if (whole === undefined && part === undefined) return undefined
    const name = unit?.trim() ?? (last === M_PER_FOOT ? 'in' : bareUnit(asked, of))
    const per = signs[kind][name]
    // Feet before inches, pounds before ounces: each next unit is smaller.
    if (per === undefined || (last !== undefined && per >= last)) return undefined
    total += numberOf(whole, part) * per
    last = per
  }
  return last === undefined || !Number.isFinite(total) ? undefined : (sign * total) / perAsked[asked]
}

function temperatureTyped(rest: string, sign: number, of: Units): number | undefined {
  const [, number, unit] = /^(\d+(?:[.,]\d+)?) ?(?:°|degrees)? ?([cf])?$/.exec(rest) ?? []
  if (number === undefined) return undefined
  const value = sign * Number(number.replace(',', '.'))
  const isFahrenheit = unit === 'f' || (unit === undefined && of.temperature === 'Fahrenheit')
  return isFahrenheit ? celsiusOf(value) : value
}

/** A quantity as it stands in a field, to be typed over; what stands behind the field is `unitBeside`. */
export const quantityShown = (value: number, asked: AskedUnit, of: Units): string =>
  textShown(value, asked, of).replace('−', '-')

function textShown(value: number, asked: AskedUnit, of: Units): string {
  const kind = kindOf[asked]
  if (!usesOther(kind, of)) return plain(value, 6)
  if (kind === 'temperature') return plain(fahrenheit(value), 1)
  const reckoned = value * perAsked[asked]
  if (kind !== 'length') return plain(reckoned / signs[kind][bareUnit(asked, of)]!, 3)
  return asked === 'mm'
    ? plain(reckoned / M_PER_INCH, 2)
    : feetAndInches(reckoned, Math.abs(reckoned) < 3 ? 4 : 2)
}

/** The unit of a field as it is read out: what stands behind it is not. */
export const unitSpoken = (asked: AskedUnit, of: Units): string => spoken[bareUnit(asked, of)]!
const spoken: Readonly<Record<string, string>> = {
  m: 'metres',
  cm: 'centimetres',
  mm: 'millimetres',
  l: 'litres',
  'l/h': 'litres an hour',
  kg: 'kilograms',
  g: 'grams',
  '°C': 'degrees Celsius',
  ft: 'feet and inches',
  in: 'inches',
  gal: 'gallons',
  'gal/h': 'gallons an hour',
  lb: 'pounds',
  oz: 'ounces',
  '°F': 'degrees Fahrenheit',
}

/** What stands behind a field of a unit; nothing where its text says its units itself. */
export const unitBeside = (asked: AskedUnit, of: Units): string | undefined =>
  usesOther(kindOf[asked], of) && kindOf[asked] === 'length' && asked !== 'mm'
    ? undefined
    : bareUnit(asked, of)
