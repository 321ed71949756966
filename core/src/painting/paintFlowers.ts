import type { Build, FlowerForm } from '../frontView/index.ts'
import type { Shades } from './light.ts'
import type { Brush } from './paintPlant.ts'

/** How large a flower or head is, metres: half across, and for those with a length so long. Working figures by form. */
const sizes: Readonly<Record<FlowerForm, { half: number; long: number; perM2: number; most: number }>> = {
  daisy: { half: 0.034, long: 0, perM2: 60, most: 34 },
  spike: { half: 0.018, long: 0.2, perM2: 40, most: 26 },
  plate: { half: 0.055, long: 0, perM2: 34, most: 18 },
  plume: { half: 0.05, long: 0.22, perM2: 26, most: 14 },
  globe: { half: 0.034, long: 0, perM2: 34, most: 16 },
  cup: { half: 0.032, long: 0, perM2: 40, most: 26 },
  bell: { half: 0.016, long: 0, perM2: 60, most: 30 },
  trumpet: { half: 0.05, long: 0, perM2: 30, most: 14 },
  small: { half: 0.011, long: 0, perM2: 260, most: 150 },
  panicle: { half: 0.055, long: 0.18, perM2: 18, most: 26 },
  awn: { half: 0.016, long: 0.26, perM2: 40, most: 22 },
}

/** Narrower plants have one flower or two, metres. */
const ONE_FLOWER_M = 0.2

/** Flowers as far as they are open, and the heads that stand after them. */
export function paintFlowers(b: Brush, form: FlowerForm, build: Build): void {
  const { of, wide, high, pxPerM, look, pen, leaf, head } = b
  const { half, perM2, most } = sizes[form]
  const { from, to, halfWidth } = build.flowers
  const areaM2 = (wide / pxPerM) * (high / pxPerM) * (build.isStrewn ? to - from : 0.8)
  const share = Math.max(look.flower, look.heads)
  // What is as narrow as one bulb has one flower.
  const least = wide / pxPerM < ONE_FLOWER_M ? 1 : 3
  const full = Math.min(most * (build.isStrewn ? 2 : 1), perM2 * areaM2)
  const many = Math.max(least, Math.round(full * share))
  const places = Array.from({ length: many }, () => ({ u: of(-1, 1), t: of(0, 1), z: of(-1, 1) }))
  places.sort((p, q) => p.z - q.z)
  const isOver = look.flower === 0
  const shades: Shades = isOver ? head : b.flower
  for (const { u, t, z } of places) {
    const x = (u * halfWidth(t) * wide) / 2
    const y = -high * (from + (to - from) * t) * (build.isStrewn ? 1 : 1 - 0.08 * u * u)
    if (!build.isStrewn)
      pen.stem(
        0.45 * x,
        -0.15 * high,
        0.62 * x,
        0.55 * y,
        x,
        y,
        Math.max(0.6, 0.006 * pxPerM),
        isOver ? head(0.2) : leaf(-0.25),
      )
    heads[form](b, x, y, Math.max(1.4, half * pxPerM * of(0.8, 1.2)), shades, 0.3 * z - 0.2 * u, isOver)
  }
}

type PaintHead = (
  b: Brush,
  x: number,
  y: number,
  r: number,
  shades: Shades,
  light: number,
  isOver: boolean,
) => void

const EYE = '#4a3524'
const YOLK = '#e7c04a'

/** Specks about a middle, each lit as if it were on a ball. */
function specks(
  b: Brush,
  x: number,
  y: number,
  rx: number,
  ry: number,
  many: number,
  size: number,
  shades: Shades,
  light: number,
): void {
  const { pen, of } = b
  for (let i = 0; i < many; i++) {
    const a = of(0, 2 * Math.PI)
    const out = Math.sqrt(of(0, 1))
    pen.oval(
      x + out * rx * Math.cos(a),
      y + out * ry * Math.sin(a),
      size,
      0.8 * size,
      a,
      shades(light - 0.4 * out * Math.cos(a) - 0.45 * out * Math.sin(a) + of(-0.25, 0.25)),
    )
  }
}

/** Petals about an eye. */
function petals(
  b: Brush,
  x: number,
  y: number,
  r: number,
  many: number,
  wide: number,
  tilt: number,
  shades: Shades,
  light: number,
): void {
  const { pen, of } = b
  const turn = of(0, 6)
  for (let k = 0; k < many; k++) {
    const a = turn + (2 * Math.PI * k) / many
    pen.oval(
      x + 0.55 * r * Math.cos(a),
      y + 0.55 * r * tilt * Math.sin(a),
      0.5 * r,
      wide * r,
      Math.atan2(tilt * Math.sin(a), Math.cos(a)),
      shades(light - 0.25 * Math.sin(a) + of(-0.2, 0.25)),
    )
  }
}

/** Something along a stem that narrows to its tip. */
function tapering(
  b: Brush,
  x: number,
  y: number,
  r: number,
  long: number,
  shades: Shades,
  light: number,
): void {
  const { pen, of } = b
  const many = Math.max(5, Math.round(long / Math.max(1.4, 0.6 * r)))
  for (let k = 0; k < many; k++) {
    const t = k / many
    const w = r * (0.3 + 0.7 * Math.sqrt(t))
    for (const side of [-1, 1])
      pen.oval(
        x + side * w * of(0.15, 0.6),
        y + t * long,
        0.55 * w,
        0.45 * w,
        0.5 * side,
        shades(light + (side < 0 ? 0.25 : -0.25) + of(-0.25, 0.25)),
      )
  }
}

const heads: Readonly<Record<FlowerForm, PaintHead>> = {
  daisy: (b, x, y, r, shades, light, isOver) => {
    if (isOver) return b.pen.oval(x, y, 0.45 * r, 0.4 * r, 0, shades(light - 0.2))
    const tilt = b.of(0.55, 0.95)
    petals(b, x, y, r, 11, 0.19, tilt, shades, light)
    b.pen.oval(x, y - 0.06 * r, 0.3 * r, 0.3 * r * tilt, 0, light > 0 ? YOLK : EYE)
  },
  spike: (b, x, y, r, shades, light) =>
    tapering(
      b,
      x,
      y,
      r,
      Math.min(0.45 * b.high, sizes.spike.long * b.pxPerM * b.of(0.8, 1.2)),
      shades,
      light,
    ),
  plate: (b, x, y, r, shades, light) =>
    specks(b, x, y, r, 0.3 * r, 24, Math.max(0.9, 0.14 * r), shades, light + 0.1),
  plume: (b, x, y, r, shades, light) => {
    const long = Math.min(0.4 * b.high, sizes.plume.long * b.pxPerM)
    for (let i = 0; i < 44; i++) {
      const t = b.of(0, 1)
      const w = r * Math.sin(Math.PI * Math.min(1, 0.08 + 0.88 * t))
      b.pen.oval(
        x + b.of(-1, 1) * w,
        y + t * long,
        Math.max(0.8, 0.13 * r),
        Math.max(0.7, 0.1 * r),
        0,
        shades(light + b.of(-0.4, 0.4)),
      )
    }
  },
  globe: (b, x, y, r, shades, light) =>
    specks(b, x, y, r, r, Math.round(Math.min(90, 26 + r * 3)), Math.max(0.9, 0.16 * r), shades, light),
  cup: (b, x, y, r, shades, light, isOver) => {
    if (isOver) return b.pen.oval(x, y, 0.35 * r, 0.45 * r, 0, shades(light))
    b.pen.oval(x, y, 0.72 * r, 0.8 * r, 0, shades(light - 0.15))
    b.pen.oval(x - 0.36 * r, y - 0.06 * r, 0.42 * r, 0.78 * r, -0.16, shades(light + 0.3 + b.of(-0.1, 0.1)))
    b.pen.oval(x + 0.36 * r, y - 0.06 * r, 0.42 * r, 0.78 * r, 0.16, shades(light - 0.2 + b.of(-0.1, 0.1)))
    b.pen.oval(x, y + 0.08 * r, 0.38 * r, 0.72 * r, 0, shades(light + 0.1))
  },
  bell: (b, x, y, r, shades, light) => {
    for (let k = 0; k < 4; k++) {
      const side = k % 2 === 0 ? -1 : 1
      b.pen.oval(
        x + side * 0.9 * r,
        y + k * 1.9 * r,
        0.7 * r,
        1.1 * r,
        0.35 * side,
        shades(light + (side < 0 ? 0.25 : -0.15) + b.of(-0.1, 0.1)),
      )
    }
  },
  trumpet: (b, x, y, r, shades, light) => {
    petals(b, x, y, r, 6, 0.24, b.of(0.5, 0.8), shades, light)
    b.pen.oval(x, y, 0.2 * r, 0.16 * r, 0, shades(light - 0.6))
  },
  small: (b, x, y, r, shades, light) => petals(b, x, y, 1.4 * r, 5, 0.34, 0.75, shades, light),
  panicle: (b, x, y, r, shades, light) => {
    const long = sizes.panicle.long * b.pxPerM
    for (let i = 0; i < 40; i++) {
      const t = b.of(0, 1)
      const a = b.of(-1, 1)
      b.pen.oval(
        x + a * r * (0.15 + 0.85 * t),
        y - long / 2 + t * long,
        Math.max(1, 0.17 * r),
        Math.max(0.9, 0.15 * r),
        0,
        shades(light - 0.3 * a + 0.25 - 0.4 * t + b.of(-0.25, 0.25)),
      )
    }
  },
  awn: (b, x, y, r, shades, light) => {
    const long = Math.min(0.35 * b.high, sizes.awn.long * b.pxPerM)
    for (let k = 0; k < 18; k++) {
      const t = k / 18
      b.pen.leaf(
        x,
        y + t * long,
        Math.PI / 2 + b.of(-0.6, 0.6),
        1.7 * r,
        0.28 * r,
        shades(light + b.of(-0.2, 0.45)),
      )
    }
  },
}
