import { extentOf, ringOf, type Laying, type Plan, type Point } from '@border/core'
import sharp from 'sharp'

/** What a metre is drawn by in the scan, points. */
const PX_PER_M = 34
/** Paper about what is drawn, points. */
const MARGIN_PX = 110
const RAD = Math.PI / 180

const cornersOf = ({ geometry: g }: Plan['features'][number]): readonly Point[] =>
  g.type === 'Polygon'
    ? ringOf(g)
    : g.type === 'LineString'
      ? g.coordinates.map((p): Point => [p[0], p[1]])
      : []

/** A drawing of a plan scanned askew, with how it is laid. */
export interface Scan {
  file: Buffer
  /** Where a point of the plan was drawn, points of the picture. */
  pxOf: (at: Point) => Point
  laying: Laying
}

/**
 * A made-up survey on yellowed paper: beds, paths and buildings of a plan in ink, put on the scanner turned by some degrees.
 *
 * @param turnDeg by which the picture has to be turned clockwise to lie on the plan
 */
export async function scanOf(plan: Plan, turnDeg: number): Promise<Scan> {
  const drawn = plan.features.filter((f) => ['bed', 'path', 'building', 'wall', 'water'].includes(f.kind))
  const beds = drawn.filter((f) => f.kind === 'bed')
  const [cos, sin] = [Math.cos(turnDeg * RAD), Math.sin(turnDeg * RAD)]
  const unturned = ([x, y]: Point): Point => [PX_PER_M * (x * cos - y * sin), -PX_PER_M * (x * sin + y * cos)]
  const paper = extentOf(beds.flatMap(cornersOf).map(unturned))
  const pxOf = (at: Point): Point => {
    const [x, y] = unturned(at)
    return [x - paper.minX + MARGIN_PX, y - paper.minY + MARGIN_PX]
  }
  const width = Math.round(paper.maxX - paper.minX + 2 * MARGIN_PX)
  const height = Math.round(paper.maxY - paper.minY + 2 * MARGIN_PX)
  const lines = drawn.map((f) => {
    const points = cornersOf(f)
      .map(pxOf)
      .map(([x, y]) => `${x.toFixed(1)},${y.toFixed(1)}`)
      .join(' ')
    const isClosed = f.geometry.type === 'Polygon'
    const weight = f.kind === 'building' || f.kind === 'wall' ? 5 : 2.4
    return `<${isClosed ? 'polygon' : 'polyline'} points="${points}" fill="${f.kind === 'building' ? '#d8c9a4' : 'none'}"
      stroke="#5b4a3a" stroke-width="${weight}" stroke-linejoin="round"/>`
  })
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}">
    <rect width="${width}" height="${height}" fill="#f2e7cb"/>
    <path d="M0,${height * 0.52}H${width}M${width / 2},0V${height}" stroke="#e0d2b0" stroke-width="7"/>
    ${lines.join('\n')}
  </svg>`
  const ring = cornersOf(beds[0]!)
  const a = ring[0]!
  const apart = (p: Point) => Math.hypot(p[0] - a[0], p[1] - a[1])
  const b = ring.reduce((far, p) => (apart(p) > apart(far) ? p : far))
  return {
    file: await sharp(Buffer.from(svg)).png().toBuffer(),
    pxOf,
    laying: { how: 'two points', a: { px: pxOf(a), at: a }, b: pxOf(b), lengthM: apart(b), turnDeg },
  }
}
