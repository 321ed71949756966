import { color, rgb } from 'd3-color'
import { interpolateRgb } from 'd3-interpolate'

/** What is far away takes on some of it. */
const AIR = '#e9e4d8'
const MOST_AIR = 0.3
const DARK = '#1d2a22'
const BRIGHT = '#f6f0c9'

export const mixed = (a: string, b: string, share: number): string =>
  rgb(interpolateRgb(a, b)(Math.max(0, Math.min(1, share)))).formatHex()

/** Steps of light that a colour is drawn in. */
const STEPS = 13

/** A colour from the dark inside of a plant, -1, to its lit rim, 1, through so much air. */
export type Shades = (light: number) => string

/** @param air 0 at the front to 1 far behind */
export function shadesOf(colour: string, air: number): Shades {
  const base = color(colour)?.formatHex() ?? '#7a8f6a'
  const steps = Array.from({ length: STEPS }, (_, i) => {
    const light = (2 * i) / (STEPS - 1) - 1
    const lit = light < 0 ? mixed(base, DARK, -light * 0.62) : mixed(base, BRIGHT, light * 0.42)
    return mixed(lit, AIR, MOST_AIR * air)
  })
  return (light) => steps[Math.round(((Math.max(-1, Math.min(1, light)) + 1) / 2) * (STEPS - 1))]!
}
