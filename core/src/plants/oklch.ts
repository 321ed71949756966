/** A colour by how the eye orders it: lightness 0 to 1, chroma from 0, hue in degrees. */
export interface Oklch {
  l: number
  c: number
  h: number
}

/** Oklab in polar form, of an sRGB colour (Ottosson 2020, A perceptual color space for image processing). @param hex `#rrggbb` */
export function oklchOf(hex: string): Oklch {
  const [r, g, b] = [1, 3, 5].map((at) => linear(parseInt(hex.slice(at, at + 2), 16) / 255)) as [
    number,
    number,
    number,
  ]
  const l = Math.cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b)
  const m = Math.cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b)
  const s = Math.cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b)
  const lightness = 0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s
  const a = 1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s
  const bb = 0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s
  return { l: lightness, c: Math.hypot(a, bb), h: ((Math.atan2(bb, a) * 180) / Math.PI + 360) % 360 }
}

/** IEC 61966-2-1: what an sRGB channel gives of light. */
const linear = (v: number): number => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4)

/** Degrees between two hues, 0 to 180. */
export const hueApart = (a: number, b: number): number => {
  const d = Math.abs(a - b) % 360
  return Math.min(d, 360 - d)
}

/** How colours of a planting go together: of one hue, of hues that lie beside it, or of it and the one across. */
export const colourSchemes = ['single', 'neighbouring', 'opposite'] as const
export type ColourScheme = (typeof colourSchemes)[number]

/** Below this chroma a colour is white, cream, grey or green enough to go with any. A working figure. */
const QUIET = 0.055
/** Degrees of hue to either side that count as the same, and as beside it. Working figures. */
const REACH = { single: 30, neighbouring: 65, opposite: 35 }

/** Whether a flower colour goes with a scheme about a hue. */
export function accords(hex: string, scheme: ColourScheme, hue: number): boolean {
  const { c, h } = oklchOf(hex)
  if (c < QUIET) return true
  const apart = hueApart(h, hue)
  return apart <= REACH[scheme] || (scheme === 'opposite' && apart >= 180 - REACH.opposite)
}

/** The green of most leaves: the middle of the library's, in Oklab. */
const LEAF_GREEN = { l: 0.61, a: -0.056, b: 0.061 }
/** Leaves so far from it are seen as another colour: silver, purple, gold, nearly black. A tenth of the library's are. */
const STANDS_OUT = 0.12

/** Whether leaves of a colour stand out among green ones. @param hex `#rrggbb` */
export function standsOutInLeaf(hex: string): boolean {
  const { l, c, h } = oklchOf(hex)
  const [a, b] = [c * Math.cos((h * Math.PI) / 180), c * Math.sin((h * Math.PI) / 180)]
  return Math.hypot(l - LEAF_GREEN.l, a - LEAF_GREEN.a, b - LEAF_GREEN.b) >= STANDS_OUT
}
