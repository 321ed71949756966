import {
  CANONICAL_UNITS,
  fahrenheit,
  feetAndInches,
  inchesText,
  KG_PER_OUNCE,
  KG_PER_POUND,
  LITRES_PER_FLUID_OUNCE,
  LITRES_PER_GALLON,
  M_PER_FOOT,
  M_PER_INCH,
  M_PER_MILE,
  plain,
  type Units,
} from './units.ts'

/** How a quantity is written otherwise: each of its numbers, and what stands behind the last. */
interface Otherwise {
  of: keyof Omit<Units, 'dates'>
  /** @param largest of the numbers that stand together; @param decimals that the number was written with */
  write: (largest: number, decimals: number) => { each: (value: number) => string; unit: string }
}

const scaled =
  (per: number, unit: string, decimals?: number): Otherwise['write'] =>
  (largest, written) => ({
    each: (v) => plain(v / per, decimals ?? fineness(largest / per, written)),
    unit: ` ${unit}`,
  })
/** Decimals that tell about as much as three figures do. */
const fineness = (largest: number, written: number): number =>
  largest >= 100 ? 0 : largest >= 10 ? Math.min(1, written) : largest >= 1 ? 1 : 2

const inches: Otherwise['write'] = (largest) => ({
  each: (cm) => inchesText(cm / 100 / M_PER_INCH, largest < 10 ? 4 : largest < 30 ? 2 : 1),
  unit: ' in',
})

/** Lengths as somebody would say them: to the foot far off and where metres were whole, to the inch nearer. */
const feet: Otherwise['write'] = (largest, decimals) => {
  if (largest >= 30 || (decimals === 0 && largest >= 5))
    return { each: (m) => plain(m / M_PER_FOOT), unit: ' ft' }
  if (largest < M_PER_FOOT - M_PER_INCH / 2)
    return { each: (m) => inches(largest * 100, 0).each(100 * m), unit: ' in' }
  return { each: (m) => feetAndInches(m), unit: '' }
}

const litres: Otherwise['write'] = (largest, decimals) =>
  largest < 0.95
    ? scaled(LITRES_PER_FLUID_OUNCE, 'fl oz')(largest, decimals)
    : scaled(LITRES_PER_GALLON, 'gal')(largest, 1)

const SQUARE_FOOT = M_PER_FOOT ** 2
const SQUARE_YARD = 9 * SQUARE_FOOT
const units: Readonly<Record<string, Otherwise>> = {
  km: { of: 'length', write: scaled(M_PER_MILE / 1000, 'miles') },
  m: { of: 'length', write: feet },
  cm: {
    of: 'length',
    write: (largest, decimals) =>
      largest >= 100 ? { each: (cm) => feetAndInches(cm / 100), unit: '' } : inches(largest, decimals),
  },
  mm: {
    of: 'length',
    write: (largest) => scaled(1000 * M_PER_INCH, 'in', largest >= 25 ? 1 : 2)(largest, 0),
  },
  'm²': { of: 'length', write: scaled(SQUARE_FOOT, 'sq ft') },
  'm³': { of: 'length', write: scaled(27 * M_PER_FOOT ** 3, 'cu yd') },
  'm/s': { of: 'length', write: scaled(M_PER_MILE / 3600, 'mph', 0) },
  'g/m²': { of: 'length', write: scaled((KG_PER_OUNCE * 1000) / SQUARE_YARD, 'oz/sq yd') },
  'kg/m²': { of: 'length', write: scaled(KG_PER_POUND / SQUARE_FOOT, 'lb/sq ft') },
  'l/m²': { of: 'length', write: scaled(LITRES_PER_GALLON / SQUARE_FOOT, 'gal/sq ft') },
  l: { of: 'volume', write: litres },
  'l/h': { of: 'volume', write: scaled(LITRES_PER_GALLON, 'gal/h') },
  ml: {
    of: 'volume',
    write: scaled(1000 * LITRES_PER_FLUID_OUNCE, 'fl oz'),
  },
  kg: { of: 'weight', write: scaled(KG_PER_POUND, 'lb') },
  g: {
    of: 'weight',
    write: scaled(1000 * KG_PER_OUNCE, 'oz'),
  },
  '°C': {
    of: 'temperature',
    write: () => ({ each: (c) => plain(fahrenheit(c)), unit: ' °F' }),
  },
}
const words: Readonly<Record<string, string>> = {
  metre: 'm',
  metres: 'm',
  centimetre: 'cm',
  centimetres: 'cm',
  millimetres: 'mm',
  kilometres: 'km',
  litre: 'l',
  litres: 'l',
  kilograms: 'kg',
  grams: 'g',
}

const NUMBER = String.raw`[−-]?\d[\d,]*(?:\.\d+)?`
const UNIT = [...Object.keys(units), ...Object.keys(words)].sort((a, b) => b.length - a.length).join('|')
/** Numbers that one unit stands behind, with what stands between them. */
const BETWEEN = String.raw`\s?(?:to|by|×|–)\s?`
const quantity = new RegExp(
  String.raw`(?<![\p{L}\d.,'’/])(between ${NUMBER} and )?(${NUMBER}(?:${BETWEEN}${NUMBER})*)([\s ]?)(${UNIT})(?![\p{L}\d²³]|/[a-z])( (?:warmer|colder|cooler|hotter|apart))?`,
  'gu',
)
const MONTH =
  'January|February|March|April|May|June|July|August|September|October|November|December|Jan|Feb|Aug|Sept|Oct|Nov|Dec'
const day = new RegExp(
  String.raw`(?<![\d.,:'])(\d{1,2}(?:(?: to |–)\d{1,2})?) (${MONTH})(?!\p{L})( \d{4}(?!\d))?`,
  'gu',
)

const valueOf = (text: string): number => Number(text.replaceAll(',', '').replace('−', '-'))
const decimalsOf = (text: string): number => text.split('.')[1]?.length ?? 0

function quantityIn(of: Units) {
  return (
    all: string,
    between: string | undefined,
    numbers: string,
    gap: string,
    said: string,
    apart: string | undefined,
  ): string => {
    const name = words[said] ?? said
    const unit = units[name]!
    if (of[unit.of] === CANONICAL_UNITS[unit.of]) return all
    const text = `${between ?? ''}${numbers}`
    const found = text.match(new RegExp(NUMBER, 'g'))!
    const largest = Math.max(...found.map((n) => Math.abs(valueOf(n))))
    const { each, unit: behind } =
      apart && name === '°C' ? degreesApart : unit.write(largest, Math.max(...found.map(decimalsOf)))
    return `${text.replaceAll(new RegExp(NUMBER, 'g'), (n) => each(valueOf(n)))}${behind.replace(' ', gap || ' ')}${apart ?? ''}`
  }
}
/** A difference of temperatures: nothing is added to it. */
const degreesApart = { each: (c: number) => plain((c * 9) / 5, 1), unit: ' °F' }

/**
 * A text as somebody measures and dates. Everything here is said in one written form: a number, or numbers with `to`, `by`, `×` or a dash
 * between, and a unit of the SI with its sign or name behind; `between 2 and 4 m`; days as `3 May`, `3 to 9 May`, `3 May 2026`. What is
 * written otherwise already stays as it is.
 */
export function written(text: string, of: Units): string {
  if (!/\d/.test(text)) return text
  const inUnits = text.replaceAll(quantity, quantityIn(of))
  return of.dates === 'day first'
    ? inUnits
    : inUnits.replaceAll(
        day,
        (_, days: string, month: string, year?: string) => `${month} ${days}${year ? `,${year}` : ''}`,
      )
}

/** Whether all is written as it is said: nothing is to be done to a text. */
export const areCanonical = (of: Units): boolean =>
  Object.entries(CANONICAL_UNITS).every(([name, unit]) => of[name as keyof Units] === unit)
