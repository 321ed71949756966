import { curveBasisClosed, line } from 'd3-shape'
import { asDisc, extentOf, type Point } from '../geometry/index.ts'
import { groundOf } from '../garden/index.ts'
import type { LaidScheme } from '../frontView/index.ts'
import { driftOutlines, kindsOf, letterOf, middleOfDrift, placeOutline, plantsOf } from '../rework/index.ts'
import { mixed } from './light.ts'
import { ovalPath, rectPath, ringPath, type Painter } from './painter.ts'

/** From metres of the plan to where they lie in a picture. */
export interface PlanToPicture {
  x: (m: number) => number
  y: (m: number) => number
}

/** Outlines of a drift as a soft line. */
export const softPath = (rings: readonly (readonly Point[])[], { x, y }: PlanToPicture): string =>
  rings
    .map(
      (ring) =>
        line<Point>()
          .x((p) => Math.round(10 * x(p[0])) / 10)
          .y((p) => Math.round(10 * y(p[1])) / 10)
          .curve(curveBasisClosed)(ring.map((p): Point => [p[0], p[1]])) ?? '',
    )
    .join('')

/** A scheme as its plan is drawn on paper. */
export interface DrawnScheme extends LaidScheme {
  stones: readonly Point[]
  drifts: Parameters<typeof kindsOf>[0]['drifts']
  between: Parameters<typeof kindsOf>[0]['between']
  /** Clockwise from up the plan, degrees. */
  northDeg: number
}

/** What stands for what on a plan: letters for what comes in, numbers for what stays. */
export interface PlanKey {
  /** By the botanical name. */
  letters: ReadonlyMap<string, string>
  /** By the planting. */
  numbers: ReadonlyMap<string, string>
}

export const planKey = ({
  drifts,
  between,
  ground,
}: Pick<DrawnScheme, 'drifts' | 'between' | 'ground'>): PlanKey => ({
  letters: new Map(kindsOf({ drifts, between }).map((k, i) => [k.botanical, letterOf(i)])),
  numbers: new Map(ground.stays.map((p, i) => [p.id, String(i + 1)])),
})

/** Scales that rulers have: one centimetre of paper for so many of the garden. */
const SCALES = [10, 20, 25, 50, 75, 100, 125, 200, 250, 500, 1000, 2000, 5000, 10_000] as const
/** Room to the left and right of a bed, and above and below it for its scale and north, millimetres of paper. */
const BESIDE_MM = 7
const ABOVE_MM = 15

/** How a bed lies on paper. */
export interface PlanOnPaper extends PlanToPicture {
  widthMm: number
  heightMm: number
  /** 50 of 1 : 50. */
  scale: number
}

/**
 * Lays a bed on paper, by the largest scale of a ruler at which all of it fits.
 *
 * @param widthMm and `heightMm`: the room that there is
 */
export function planOnPaper(outline: readonly Point[], widthMm: number, heightMm: number): PlanOnPaper {
  const { minX, maxX, minY, maxY } = extentOf(outline)
  const fits = (scale: number) =>
    ((maxX - minX) * 1000) / scale <= widthMm - 2 * BESIDE_MM &&
    ((maxY - minY) * 1000) / scale <= heightMm - 2 * ABOVE_MM
  const scale = SCALES.find(fits) ?? SCALES.at(-1)!
  const mmPerM = 1000 / scale
  // No higher than it needs.
  const high = Math.min(heightMm, (maxY - minY) * mmPerM + 2 * ABOVE_MM)
  return {
    widthMm,
    heightMm: high,
    scale,
    x: (m) => widthMm / 2 + (m - (minX + maxX) / 2) * mmPerM,
    y: (m) => high / 2 - (m - (minY + maxY) / 2) * mmPerM,
  }
}

const INK = '#26231d'
const SOFT = '#6d675b'
const SOIL = '#f3eee3'
const PAPER = '#ffffff'
/** Of the distance between plants so much is drawn of each; half across a stepping stone, metres. */
export const AS_PLANTED = 0.72
export const STONE_M = 0.17

/** Draws the plan of a scheme, in millimetres of paper. */
export function paintPlan(painter: Painter, scheme: DrawnScheme, on: PlanOnPaper): void {
  const { ground, arranged, pockets, stones } = scheme
  const { x, y, scale } = on
  const mm = (m: number) => (1000 * m) / scale
  const key = planKey(scheme)
  const outline = ringPath(placeOutline(ground.of.place).map(([px, py]) => [x(px), y(py)]))
  painter.path(outline, { fill: SOIL })
  painter.within(outline, () => {
    for (const p of ground.stays) {
      const { x: px, y: py, radiusM } = asDisc(groundOf(p))
      painter.path(ovalPath(x(px), y(py), mm(radiusM), mm(radiusM)), {
        fill: mixed(p.taxon.foliageColour, PAPER, 0.75),
        line: SOFT,
        width: 0.25,
        dash: [1, 0.8],
      })
    }
    driftOutlines(ground, arranged).forEach((rings, k) =>
      painter.path(softPath(rings, on), {
        fill: mixed(arranged.drifts[k]!.taxon.foliageColour, PAPER, 0.55),
        line: INK,
        width: 0.2,
      }),
    )
    const taxonOf = new Map(arranged.drifts.map((d) => [d.id, d.taxon]))
    for (const p of plantsOf(ground, arranged)) {
      const { spacingM, flowerColour, foliageColour } = taxonOf.get(p.driftId)!
      const half = (AS_PLANTED / 2) * mm(spacingM)
      painter.path(ovalPath(x(p.x), y(p.y), half, half), {
        fill: mixed(flowerColour ?? foliageColour, PAPER, 0.3),
        line: mixed(flowerColour ?? foliageColour, INK, 0.5),
        width: 0.12,
      })
      // Where the spade goes in.
      painter.path(ovalPath(x(p.x), y(p.y), 0.25, 0.25), { fill: INK })
    }
    for (const [sx, sy] of stones)
      painter.path(ovalPath(x(sx), y(sy), mm(STONE_M), 0.75 * mm(STONE_M)), {
        fill: '#d9d4c8',
        line: SOFT,
        width: 0.2,
      })
    for (const p of pockets)
      painter.path(ovalPath(x(p.x), y(p.y), 0.7, 1.1), { fill: PAPER, line: INK, width: 0.25 })
  })
  painter.path(outline, { line: INK, width: 0.5 })
  for (const d of arranged.drifts) {
    const middle = middleOfDrift(ground, arranged, d.id)
    if (!middle) continue
    label(painter, x(middle[0]), y(middle[1]), `${d.count} ${key.letters.get(d.taxon.botanical) ?? ''}`)
  }
  for (const p of ground.stays) {
    const { x: px, y: py } = asDisc(groundOf(p))
    label(painter, x(px), y(py), key.numbers.get(p.id)!, true)
  }
  furniture(painter, scheme, on)
}

const LABEL_MM = 3.4

/** Words over a drift, on a pale ground of their own. */
function label(painter: Painter, x: number, y: number, words: string, isOfWhatStays = false): void {
  const half = 0.32 * LABEL_MM * words.length
  painter.path(rectPath(x - half, y - 0.55 * LABEL_MM, 2 * half, 1.1 * LABEL_MM), {
    fill: PAPER,
    opacity: 0.78,
  })
  painter.text(x, y + 0.34 * LABEL_MM, words, {
    size: LABEL_MM,
    colour: isOfWhatStays ? SOFT : INK,
    anchor: 'middle',
    isBold: !isOfWhatStays,
    isItalic: isOfWhatStays,
  })
}

/** Lengths that a bar of the scale may have, metres. */
const BARS = [0.5, 1, 2, 5, 10, 20, 50, 100, 200]
const LONGEST_BAR_MM = 60

/** The scale with its bar, north, and where it is seen from. */
function furniture(
  painter: Painter,
  { northDeg, ground }: DrawnScheme,
  { scale, widthMm, heightMm }: PlanOnPaper,
): void {
  const barM = BARS.findLast((b) => (1000 * b) / scale <= LONGEST_BAR_MM) ?? BARS[0]!
  const bar = (1000 * barM) / scale
  const [left, foot] = [widthMm - bar - 4, heightMm - 3]
  painter.path(`M${left} ${foot - 1.6}v1.6h${bar}v-1.6M${left + bar / 2} ${foot - 1}v1`, {
    line: INK,
    width: 0.3,
  })
  painter.text(left + bar / 2, foot - 2.4, `${barM} m, scale 1 : ${scale}`, {
    size: 3.2,
    colour: INK,
    anchor: 'middle',
  })
  const [nx, ny] = [widthMm - 6, 7.5]
  const turned = ([px, py]: Point): Point => {
    const a = (northDeg * Math.PI) / 180
    return [nx + px * Math.cos(a) - py * Math.sin(a), ny + px * Math.sin(a) + py * Math.cos(a)]
  }
  const arrow: Point[] = [
    [0, -6],
    [1.8, 3.4],
    [0, 1.9],
    [-1.8, 3.4],
  ]
  painter.path(ringPath(arrow.map(turned)), { fill: INK })
  painter.text(nx - 5, ny + 1, 'N', { size: 3.2, colour: INK, anchor: 'middle', isBold: true })
  for (const deg of ground.viewedFrom) {
    const a = (deg * Math.PI) / 180
    const [dx, dy] = [Math.sin(a), -Math.cos(a)]
    const reach = Math.min(
      (widthMm / 2 - 6) / Math.max(1e-6, Math.abs(dx)),
      (heightMm / 2 - 5) / Math.max(1e-6, Math.abs(dy)),
    )
    const [ex, ey] = [widthMm / 2 + reach * dx, heightMm / 2 + reach * dy]
    painter.path(`M${ex - 3} ${ey}q3 -2.6 6 0q-3 2.6 -6 0z`, { line: INK, width: 0.25 })
    painter.path(ovalPath(ex, ey, 0.9, 0.9), { fill: INK })
  }
}
