import {
  autumnColour,
  builds,
  flowerForm,
  plantForm,
  type Appearance,
  type Body,
  type PlantForm,
} from '../frontView/index.ts'
import type { Taxon } from '../plants/index.ts'
import { seededRandom } from '../random/index.ts'
import { paintFlowers } from './paintFlowers.ts'
import { mixed, shadesOf, type Shades } from './light.ts'
import type { Pen } from './painter.ts'

/** A plant to be drawn, its foot at the origin. */
export interface Painted {
  taxon: Taxon
  look: Appearance
  body: Body
  pxPerM: number
  /** The same number, the same plant. */
  seed: number
  /** 0 at the front to 1 far behind. */
  air: number
  /** It hangs from its foot rather than standing on it. */
  trails?: boolean | undefined
}

/** What the parts of a plant are drawn with. */
export interface Brush {
  pen: Pen
  /** From one number to another. */
  of: (from: number, to: number) => number
  /** The whole plant, pixels. */
  wide: number
  high: number
  pxPerM: number
  look: Appearance
  leaf: Shades
  bark: Shades
  flower: Shades
  head: Shades
  /** Length and width of a leaf, pixels. */
  leafLong: number
  leafWide: number
}

const FRESH = '#a8c765'
const DUSTY = '#8b8560'
/** Leaves that stay are dull and bronzed in the cold. */
const COLD = '#6d6648'
const STRAW = '#c4a871'
const BARK = '#6f5b49'
const HEAD = '#6b5138'

/** Lengths of leaves by texture, metres: working figures, so that fine and bold are told apart from the path. */
const leafLength = { fine: 0.045, medium: 0.075, bold: 0.16 } as const
const leafAspect = { fine: 0.2, medium: 0.36, bold: 0.42 } as const

function foliage({ foliageColour }: Taxon, look: Appearance, turnsTo: string): string {
  if (look.isStraw) return mixed(foliageColour, STRAW, 0.88)
  const fresh = mixed(foliageColour, FRESH, 0.4 * look.fresh)
  const dusty = mixed(fresh, look.isDull ? COLD : DUSTY, look.isDull ? 0.3 : look.fresh > 0 ? 0 : 0.12)
  return mixed(dusty, turnsTo, 0.92 * look.turned)
}

/** Draws a plant as it looks. */
export function paintPlant(pen: Pen, { taxon, look, body, pxPerM, seed, air, trails }: Painted): void {
  const random = seededRandom(seed)
  const form = plantForm(taxon)
  const brush: Brush = {
    pen,
    of: (from, to) => from + (to - from) * random(),
    wide: body.spreadM * pxPerM,
    high: body.heightM * pxPerM,
    pxPerM,
    look,
    leaf: shadesOf(foliage(taxon, look, autumnColour(taxon)), air),
    bark: shadesOf(BARK, air),
    flower: shadesOf(taxon.flowerColour ?? '#e8dcc0', air),
    head: shadesOf(look.isStraw ? mixed(HEAD, STRAW, 0.25) : HEAD, air),
    leafLong: Math.max(2.2, leafLength[taxon.texture] * pxPerM),
    leafWide: Math.max(0.8, leafLength[taxon.texture] * leafAspect[taxon.texture] * pxPerM),
  }
  if (trails) return strands(brush)
  forms[form](brush)
  const flowers = flowerForm(taxon)
  if (flowers && body.flowers) paintFlowers(brush, flowers, builds[form])
}

/** From strand to strand along the rim, of the length of a leaf; and from leaf to leaf along one. */
const STRAND_GAP = 0.85
const LEAF_GAP = 0.55
const MOST_STRANDS = 26
/** Of the leaves of a trailer in full flower so many have a flower beside them. */
const IN_FLOWER = 0.45

/** What hangs over the rim of a pot: strands with leaves to either side, and its flowers among them. */
function strands(b: Brush): void {
  const { pen, of, wide, high, look, leaf, flower } = b
  const long = Math.min(b.leafLong, 0.3 * high)
  const broad = Math.max(1.2, Math.min(0.62 * long, 1.5 * b.leafWide))
  const many = Math.max(3, Math.min(MOST_STRANDS, Math.round(wide / (STRAND_GAP * long))))
  for (let i = 0; i < many; i++) {
    const u = many === 1 ? 0 : (2 * i) / (many - 1) - 1
    const [x0, length] = [(0.42 * u + of(-0.05, 0.05)) * wide, high * of(0.45, 1) * (1 - 0.25 * Math.abs(u))]
    const [x1, bend] = [x0 + 0.16 * u * wide + of(-0.06, 0.06) * wide, x0 + 0.22 * u * wide]
    // It rises a little over the rim before it hangs.
    const lift = -0.1 * length
    pen.stem(x0, 0, bend, lift, x1, length, Math.max(0.6, 0.07 * long), leaf(-0.35))
    const leaves = Math.max(3, Math.min(22, Math.round(length / (LEAF_GAP * long))))
    for (let k = 0; k < leaves; k++) {
      const { at, along } = onCurve([x0, 0], [bend, lift], [x1, length], (k + 0.5) / leaves)
      const side = k % 2 === 0 ? 1 : -1
      if (look.leaf > BUDS)
        pen.leaf(
          ...at,
          along + side * of(0.7, 1.2),
          long * of(0.6, 0.95),
          broad,
          leaf(0.35 - 0.5 * u + of(-0.3, 0.3) - (0.4 * k) / leaves),
        )
      if (of(0, 1) < IN_FLOWER * look.flower) {
        const r = Math.max(1.3, 0.24 * long)
        pen.oval(at[0] + side * 0.4 * long, at[1], r, 0.85 * r, 0, flower(of(-0.1, 0.5)))
      }
    }
  }
}

/** Leaves of a mass lie over each other so many times, and are no more than so many. */
const COVER = 3.2
const MOST_LEAVES = 640

/** Masses of leaves from back to front, each lit by where it sits: from the upper left, dark inside and below. */
function mass(
  b: Brush,
  form: PlantForm,
  { droop = 0.5, density = 1 }: { droop?: number; density?: number } = {},
): void {
  const { pen, of, wide, high, look, leaf } = b
  const { from, to, halfWidth } = builds[form].leaves
  const area = wide * high * (to - from)
  const cover = COVER * density * area * (0.25 + 0.75 * look.leaf)
  // More leaves than the eye counts are drawn as fewer and larger ones.
  const larger = Math.max(1, Math.sqrt(cover / (MOST_LEAVES * b.leafLong * b.leafWide)))
  const [long, broad] = [larger * b.leafLong, larger * b.leafWide]
  const many = Math.round(Math.max(30, Math.min(MOST_LEAVES, cover / (long * broad))))
  const size = look.isStraw ? 0.7 : 1
  const leaves = Array.from({ length: many }, () => ({ u: of(-1, 1), t: of(0, 1) ** 0.85, z: of(-1, 1) }))
  leaves.sort((p, q) => p.z - q.z || q.t - p.t)
  for (const { u, t, z } of leaves) {
    const half = halfWidth(t)
    const inset = Math.sqrt(Math.max(0, 1 - 0.6 * z * z))
    const x = (u * half * inset * wide) / 2
    const y = -high * (from + (to - from) * t * (0.86 + 0.14 * inset))
    const light = -0.42 * u + 1.05 * (t - 0.5) + 0.42 * z + of(-0.22, 0.22)
    const angle = -Math.PI / 2 + 1.45 * u + of(-0.75, 0.75) + droop * (1 - t) * Math.sign(u)
    pen.leaf(x, y, angle, size * long * of(0.65, 1.25), broad * of(0.75, 1.2), leaf(light))
  }
}

/** Fewer leaves than this are none: buds. */
const BUDS = 0.05

/** Leaves of what stands bare without them. */
function leafed(b: Brush, form: PlantForm, how?: Parameters<typeof mass>[2]): void {
  if (b.look.leaf > BUDS) mass(b, form, how)
}

/** A point of a curve from one to another, bent towards a third, and the way that it goes there. */
function onCurve([ax, ay]: XY, [bx, by]: XY, [cx, cy]: XY, t: number): { at: XY; along: number } {
  const s = 1 - t
  return {
    at: [s * s * ax + 2 * t * s * bx + t * t * cx, s * s * ay + 2 * t * s * by + t * t * cy],
    along: Math.atan2(s * (by - ay) + t * (cy - by), s * (bx - ax) + t * (cx - bx)),
  }
}
type XY = readonly [number, number]

/** Twigs that fork again and again, as wide in all as the plant is. */
function twigs(b: Brush, [x, y]: XY, angle: number, long: number, thick: number, forks: number): void {
  const { pen, of, bark, wide, high } = b
  const narrow = Math.min(1, (NARROWS * wide) / high)
  const x1 = x + long * Math.cos(angle) * narrow
  const y1 = y + long * Math.sin(angle)
  const bendX = (x + x1) / 2 + of(-0.06, 0.06) * long
  pen.stem(x, y, bendX, (y + y1) / 2, x1, y1, Math.max(0.5, thick), bark(of(-0.25, 0.3)))
  if (forks <= 0 || long < 3) return
  for (let i = 0; i < 3; i++) {
    const at = of(0.5, 1)
    const from = [x + (x1 - x) * at, y + (y1 - y) * at] as const
    twigs(b, from, angle + of(-0.55, 0.55), long * of(0.48, 0.68), 0.62 * thick, forks - 1)
  }
}
const NARROWS = 0.8

/** Stems from the ground: those of a plant in leaf end within it. */
function stems(b: Brush, many: number, spread: number): void {
  const { of, high, wide, look } = b
  const isBare = look.leaf < 0.5
  for (let i = 0; i < many; i++) {
    const u = many === 1 ? 0 : (2 * i) / (many - 1) - 1
    const angle = -Math.PI / 2 + u * spread + of(-0.08, 0.08)
    twigs(b, [u * 0.05 * wide, 0], angle, high * (isBare ? 0.42 : 0.34), 0.014 * high + 0.6, isBare ? 4 : 2)
  }
}

/** Blades from one foot, the outer ones first. */
function blades(
  b: Brush,
  { many, lean, top, thick, arch }: { many: number; lean: number; top: number; thick: number; arch: number },
): void {
  const { pen, of, wide, high, leaf } = b
  const all = Array.from({ length: many }, () => ({
    u: (of(-1, 1) + of(-1, 1) + of(-1, 1)) / 1.6,
    tall: of(0.62, 1),
  }))
  all.sort((p, q) => Math.abs(q.u) - Math.abs(p.u))
  for (const { u, tall } of all) {
    const x1 = (Math.max(-1, Math.min(1, u)) * lean * wide) / 2
    const up = high * top * tall
    // An arching blade rises and falls over: its tip hangs below its bend.
    const y1 = -up * (1 - arch * Math.min(1, Math.abs(u)) * 0.75)
    pen.blade(
      0.06 * u * wide,
      0,
      0.35 * x1,
      -up * 1.05,
      x1,
      y1,
      thick,
      leaf(-0.3 * u + (tall - 0.82) * 1.4 + of(-0.3, 0.3)),
    )
  }
}

/** Leaves by rings from one crown: those behind first. */
function crown(
  b: Brush,
  {
    rings,
    each,
    long,
    wideShare,
    top,
  }: { rings: number; each: number; long: number; wideShare: number; top: number },
): void {
  const { pen, of, wide, high, leaf } = b
  for (let ring = rings - 1; ring >= 0; ring--)
    for (let i = 0; i < each; i++) {
      const u = (2 * (i + of(0.1, 0.9))) / each - 1
      const l = Math.min(wide / 2, high * 1.3) * long * of(0.72, 1.12) * (1 - 0.1 * ring)
      const lift =
        high * top * (0.25 + 0.75 * (ring / Math.max(1, rings - 1))) * of(0.3, 0.75) * (1 - 0.35 * u * u)
      const angle = -Math.PI / 2 + u * (1.25 - 0.18 * ring) + of(-0.16, 0.16)
      const [x, y] = [0.14 * u * wide, -lift]
      pen.stem(0, 0, 0.5 * x, 0.6 * y, x, y, Math.max(0.6, 0.03 * l), leaf(-0.35))
      // A leaf is two halves about its rib, one in the light.
      const w = l * wideShare * of(0.85, 1.15)
      pen.leaf(x, y, angle, l, w, leaf((u < 0 ? 0.15 : -0.3) + 0.12 * ring + of(-0.12, 0.12)))
      pen.leaf(
        x,
        y,
        angle - 0.06,
        l * 0.97,
        0.52 * w,
        leaf((u < 0 ? 0.42 : 0.02) + 0.1 * ring + of(-0.1, 0.1)),
      )
    }
}

const shrub =
  (form: PlantForm, many: number, spread: number) =>
  (b: Brush): void => {
    stems(b, many, spread)
    leafed(b, form, { droop: 0.3, density: 1.15 })
  }

const forms: Readonly<Record<PlantForm, (b: Brush) => void>> = {
  mound: (b) => mass(b, 'mound'),
  clump: (b) => mass(b, 'clump', { droop: 0.2 }),
  spires: (b) => mass(b, 'spires'),
  umbels: (b) => mass(b, 'umbels', { droop: 0.2 }),
  mat: (b) => mass(b, 'mat', { density: 1.3 }),
  fountain: (b) =>
    blades(b, { many: 110, lean: 1.05, top: 0.74, thick: Math.max(0.7, 0.006 * b.pxPerM), arch: 0.55 }),
  strap: (b) =>
    blades(b, { many: 15, lean: 1.35, top: 0.62, thick: Math.max(1, 0.011 * b.pxPerM), arch: 0.5 }),
  sword: (b) =>
    blades(b, { many: 22, lean: 1.15, top: 0.84, thick: Math.max(1, 0.014 * b.pxPerM), arch: 0.08 }),
  broad: (b) => crown(b, { rings: 4, each: 9, long: 0.8, wideShare: 0.3, top: 0.62 }),
  rosette: (b) => crown(b, { rings: 3, each: 11, long: 0.72, wideShare: 0.17, top: 0.35 }),
  fern: (b) => {
    const { pen, of, wide, high, leaf } = b
    for (let i = 0; i < 17; i++) {
      const u = ((i * 7) % 17) / 8 - 1
      const x1 = (u * 0.98 * wide) / 2
      const y1 = -high * (1 - 0.5 * Math.abs(u)) * of(0.82, 1)
      const [bx, by] = [0.2 * x1, 1.05 * y1]
      pen.stem(0, 0, bx, by, x1, y1, Math.max(0.6, 0.01 * high), leaf(-0.4))
      for (let k = 1; k <= 13; k++) {
        const t = k / 14
        const {
          at: [x, y],
          along,
        } = onCurve([0, 0], [bx, by], [x1, y1], t)
        const long = 0.16 * wide * Math.sin(Math.PI * Math.min(1, 0.12 + 0.86 * t)) * of(0.85, 1.1)
        for (const side of [-1, 1])
          pen.leaf(
            x,
            y,
            along + side * 1.15,
            long,
            0.2 * long,
            leaf(-0.35 * u + 0.5 * t - 0.2 + side * 0.12 + of(-0.15, 0.15)),
          )
      }
    }
  },
  'round shrub': shrub('round shrub', 6, 0.5),
  'vase shrub': shrub('vase shrub', 5, 0.42),
  arching: (b) => {
    const { pen, of, wide, high, bark } = b
    for (let i = 0; i < 18; i++) {
      const u = of(-1, 1)
      const x1 = (u * 0.96 * wide) / 2
      const top = -high * of(0.78, 1)
      const thick = Math.max(0.6, 0.008 * high)
      pen.stem(
        0.05 * u * wide,
        0,
        0.45 * x1,
        1.2 * top,
        x1,
        top * (1 - 0.62 * Math.abs(u)),
        thick,
        bark(of(-0.2, 0.3)),
      )
    }
    leafed(b, 'arching', { droop: 1.1, density: 0.85 })
  },
  weeping: (b) => {
    const { pen, of, wide, high, leaf, bark, look } = b
    pen.stem(0, 0, 0.02 * wide, -0.4 * high, 0, -0.86 * high, 0.035 * high + 1, bark(0))
    for (let i = 0; i < 26; i++) {
      const u = of(-1, 1)
      const [x1, y1] = [(u * 0.96 * wide) / 2, -high * of(0.06, 0.4)]
      pen.stem(0, -0.86 * high, 0.75 * x1, -1.12 * high, x1, y1, 0.8, bark(of(-0.1, 0.3)))
      const many = Math.round(24 * look.leaf)
      for (let k = 0; k < many; k++) {
        const t = 0.2 + (0.8 * k) / 24
        const [x, y] = onCurve([0, -0.86 * high], [0.75 * x1, -1.12 * high], [x1, y1], t).at
        pen.leaf(
          x,
          y,
          Math.PI / 2 + of(-0.6, 0.6),
          b.leafLong * of(0.7, 1.1),
          0.7 * b.leafWide,
          leaf(-0.35 * u + 0.4 * (1 - t) + of(-0.25, 0.2)),
        )
      }
    }
  },
  column: (b) => {
    if (b.look.leaf <= BUDS) stems(b, 4, 0.2)
    leafed(b, 'column', { droop: -0.4, density: 1.5 })
  },
  cone: (b) => mass(b, 'cone', { droop: 0.5, density: 1.5 }),
  climber: (b) => {
    stems(b, 3, 0.3)
    leafed(b, 'climber', { droop: 0.9, density: 0.95 })
  },
  standard: (b) => {
    const { pen, bark, high } = b
    pen.stem(0, 0, 0.01 * high, -0.3 * high, 0, -0.62 * high, 0.02 * high + 1, bark(0.1))
    for (let i = -2; i <= 2; i++)
      twigs(
        b,
        [0, -0.6 * high],
        -Math.PI / 2 + 0.5 * i,
        0.22 * high,
        0.012 * high + 0.5,
        b.look.leaf < 0.5 ? 3 : 1,
      )
    leafed(b, 'standard', { density: 1.2 })
  },
  tree: (b) => {
    const { pen, bark, high } = b
    pen.stem(0, 0, 0.015 * high, -0.22 * high, 0, -0.46 * high, 0.03 * high + 1.4, bark(0.05))
    for (let i = -3; i <= 3; i++)
      twigs(
        b,
        [0, -high * (0.36 + 0.03 * (3 - Math.abs(i)))],
        -Math.PI / 2 + 0.3 * i,
        0.22 * high,
        0.014 * high + 0.6,
        b.look.leaf < 0.5 ? 4 : 2,
      )
    leafed(b, 'tree', { droop: 0.3, density: 1.1 })
  },
}
