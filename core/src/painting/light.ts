import { color, rgb } from 'd3-color'
import { interpolateRgb } from 'd3-interpolate'

/** What is far away takes on some of it. */
const AIR = '#e9e4d8'
/** And all of what stands so far behind a bed that nothing of it is told apart. */
export const FAR_AIR = '#e4e6da'
const MOST_AIR = 0.3
const DARK = '#1d2a22'
const BRIGHT = '#f6f0c9'

export const mixed = (a: string, b: string, share: number): string =>
  rgb(interpolateRgb(a, b)(Math.max(0, Math.min(1, share)))).formatHex()

/** Steps of light that a colour is drawn in. */
const STEPS = 13

/** A colour from the dark inside of a plant, -1, to its lit rim, 1, through so much air. */
export type Shades = (light: number) => string

/** More colours than this are not kept. */
const MOST_KEPT = 4000
const kept = new Map<string, readonly string[]>()

/** @param air 0 at the front to 1 far behind */
export function shadesOf(colour: string, air: number): Shades {
  const key = `${colour} ${air}`
  let steps = kept.get(key)
  if (!steps) {
    if (kept.size >= MOST_KEPT) kept.clear()
    kept.set(key, (steps = lit(colour, air)))
  }
  const of = steps
  return (light) => of[Math.round(((Math.max(-1, Math.min(1, light)) + 1) / 2) * (STEPS - 1))]!
}

function lit(colour: string, air: number): string[] {
  const base = color(colour)?.formatHex() ?? '#7a8f6a'
  return Array.from({ length: STEPS }, (_, i) => {
    const light = (2 * i) / (STEPS - 1) - 1
    const bright = light < 0 ? mixed(base, DARK, -light * 0.62) : mixed(base, BRIGHT, light * 0.42)
    return mixed(bright, AIR, MOST_AIR * air)
  })
}
