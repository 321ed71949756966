/** In what somebody measures, and how they write a day. */
export interface Units {
  length: 'metres' | 'feet and inches'
  temperature: 'Celsius' | 'Fahrenheit'
  volume: 'litres' | 'US gallons'
  weight: 'kilograms' | 'pounds'
  dates: 'day first' | 'month first'
}

/** What everything here is reckoned, kept and said in. */
export const CANONICAL_UNITS: Units = {
  length: 'metres',
  temperature: 'Celsius',
  volume: 'litres',
  weight: 'kilograms',
  dates: 'day first',
}

// Exact by definition (NIST Special Publication 811, appendix B).
export const M_PER_FOOT = 0.3048
export const M_PER_INCH = 0.0254
export const M_PER_MILE = 1609.344
export const KG_PER_POUND = 0.45359237
export const KG_PER_OUNCE = KG_PER_POUND / 16
export const LITRES_PER_GALLON = 3.785411784
export const LITRES_PER_FLUID_OUNCE = LITRES_PER_GALLON / 128

export const fahrenheit = (celsius: number): number => (celsius * 9) / 5 + 32
export const celsiusOf = (fahrenheit: number): number => ((fahrenheit - 32) * 5) / 9

/** A number with a true minus, to so many decimals at most: nothing trails. */
export const plain = (value: number, decimals = 0): string =>
  String(Number(value.toFixed(decimals)) + 0).replace('-', '−')

/** Inches with their part as a tape has it: `8`, `8½`, `¾`. @param parts of an inch that it is told to */
export function inchesText(inches: number, parts: 1 | 2 | 4): string {
  const all = Math.round(Math.abs(inches) * parts) / parts
  const whole = Math.floor(all)
  const part = { 0.25: '¼', 0.5: '½', 0.75: '¾' }[all - whole] ?? ''
  return `${inches < 0 && all > 0 ? '−' : ''}${whole === 0 && part ? '' : whole}${part}`
}

/** Feet and inches as a tape is read: `3'6"`, `5'`, `8"`. @param parts of an inch that it is told to */
export function feetAndInches(metres: number, parts: 1 | 2 | 4 = 1): string {
  const all = Math.round((Math.abs(metres) / M_PER_INCH) * parts) / parts
  const feet = Math.floor(all / 12)
  const inches = all - 12 * feet
  const sign = metres < 0 && all > 0 ? '−' : ''
  if (feet === 0) return `${sign}${inchesText(inches, parts)}"`
  return inches === 0 ? `${sign}${feet}'` : `${sign}${feet}'${inchesText(inches, parts)}"`
}
