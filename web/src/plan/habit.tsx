import {
  asDisc,
  extentOf,
  isInside,
  seededRandom,
  seedOf,
  type Footprint,
  type Point,
  type Random,
  type Ring,
  type Taxon,
} from '@border/core'
import { color } from 'd3-color'
import { curveCatmullRomClosed, line } from 'd3-shape'

/** A planting drawn as a soft mass with the texture of its habit. Same id, same drawing. */
export interface MassProps {
  id: string
  taxon: Taxon
  /** Its ground, pixels. */
  ground: Footprint
  count: number
}

const closed = line().curve(curveCatmullRomClosed.alpha(0.6))
/** Most plants that are marked in one mass. */
const MOST_MARKS = 9
/** Ground of a smaller radius has no room for marks, pixels. */
const LEAST_MARKED_PX = 5

export function Mass({ id, taxon, ground, count }: MassProps) {
  const random = seededRandom(seedOf(id))
  const { radiusM: r } = asDisc(ground)
  const marks = Math.max(1, Math.min(count, MOST_MARKS, Math.round((r / 6) ** 2) || 1))
  const fill = taxon.foliageColour
  return (
    <>
      <path
        d={rimOf(ground, random)}
        fill={fill}
        fillOpacity={0.62}
        stroke={darker(fill, 1.3)}
        strokeWidth={0.9}
      />
      {r > LEAST_MARKED_PX && (
        <Marks taxon={taxon} at={standsIn(ground, marks)} size={r / Math.sqrt(marks)} random={random} />
      )}
    </>
  )
}

/** The soft edge of a round, or an outline with its corners softened. */
function rimOf(ground: Footprint, random: Random): string {
  if ('ring' in ground) return closed(ground.ring.map(([x, y]): [number, number] => [x, y]))!
  const { x, y, radiusM } = ground
  return closed(
    Array.from({ length: 12 }, (_, i): [number, number] => {
      const a = (i / 12) * 2 * Math.PI
      const k = radiusM * (0.9 + 0.16 * random())
      return [x + Math.cos(a) * k, y + Math.sin(a) * k]
    }),
  )!
}

/** Where some plants stand, evenly over their ground. */
function standsIn(ground: Footprint, marks: number): Point[] {
  if ('ring' in ground) return spreadOver(ground.ring, marks)
  const { x, y, radiusM } = ground
  return Array.from({ length: marks }, (_, i): Point => {
    // The golden angle spreads plants evenly over a round.
    const a = i * 2.4
    const d = Math.sqrt((i + 0.5) / marks) * 0.74 * radiusM * (marks === 1 ? 0 : 1)
    return [x + Math.cos(a) * d, y + Math.sin(a) * d]
  })
}

/** The plastic number: multiples of its powers fill a square evenly (Roberts 2018, additive recurrence R2). */
const PLASTIC = 1.324717957244746
const MOST_TRIED = 400

function spreadOver(ring: Ring, marks: number): Point[] {
  const { minX, minY, maxX, maxY } = extentOf(ring)
  const found: Point[] = []
  for (let i = 1; found.length < marks && i <= MOST_TRIED; i++) {
    const x = minX + ((i / PLASTIC) % 1) * (maxX - minX)
    const y = minY + ((i / PLASTIC ** 2) % 1) * (maxY - minY)
    if (isInside(ring, x, y)) found.push([x, y])
  }
  return found
}

interface MarksProps {
  taxon: Taxon
  /** Where its plants stand, pixels. */
  at: readonly Point[]
  /** Pixels from the centre of one to where the next begins. */
  size: number
  random: Random
}

/** Plants from above, by habit: one outline for all of them, so that a garden is drawn with few things. */
function Marks({ taxon, at, size, random }: MarksProps) {
  const s = Math.min(MOST_PX, size * 0.8)
  const plants = at.map(([x, y]): Plant => ({ x, y, s, turn: random() * 6 }))
  const colours = {
    foliage: taxon.foliageColour,
    leaf: darker(taxon.foliageColour, 0.5),
    edge: darker(taxon.foliageColour, 1.5),
  }
  return layersOf[taxon.habit].map(({ outline, fill, opacity, edgePx }, i) => (
    <path
      key={i}
      d={plants.map(outline).join('')}
      fill={fill ? colours[fill] : 'none'}
      fillOpacity={opacity}
      stroke={edgePx ? colours.edge : undefined}
      strokeWidth={edgePx}
    />
  ))
}

/** Largest plant that is marked, pixels. */
const MOST_PX = 13

/** One plant: its centre and its size in pixels, and which way it is turned, radians. */
interface Plant {
  x: number
  y: number
  s: number
  turn: number
}

interface Layer {
  outline: (plant: Plant) => string
  fill?: 'foliage' | 'leaf'
  opacity?: number
  edgePx?: number
}

const circles: Layer = {
  outline: (p) => around(p, 7, (b, k) => circle(p, (0.25 + 0.09 * k) * p.s, b * 2, 0.2 * p.s)),
  fill: 'leaf',
  opacity: 0.8,
}
const petals: Layer = { outline: (p) => around(p, 5, (b) => petal(p, b)), fill: 'leaf', opacity: 0.9 }
const spires: readonly Layer[] = [
  { outline: (p) => circle(p, 0, 0, 0.62 * p.s), fill: 'leaf', opacity: 0.35 },
  {
    outline: ({ x, y, s }) => `M${px(x - 0.5 * s)},${px(y)}h${px(s)}M${px(x)},${px(y - 0.5 * s)}v${px(s)}`,
    edgePx: 1,
  },
]

/** How a plant of each habit is drawn, from below upwards. */
const layersOf: Record<Taxon['habit'], readonly Layer[]> = {
  grass: [{ outline: (p) => around(p, 8, (b) => blade(p, b)), edgePx: 0.9 }],
  shrub: [
    {
      outline: (p) => around(p, 6, (b) => circle(p, 0.5 * p.s, b, 0.42 * p.s)),
      fill: 'foliage',
      opacity: 0.85,
      edgePx: 0.6,
    },
  ],
  fern: [{ outline: (p) => around(p, 6, (b) => frond(p, b)), edgePx: 0.8 }],
  bulb: [
    { outline: (p) => around(p, 3, (b) => circle(p, 0.4 * p.s, b, 0.16 * p.s)), fill: 'leaf', edgePx: 0.6 },
  ],
  mat: [circles],
  climber: [circles],
  spire: spires,
  upright: spires,
  clump: [petals],
  mound: [petals],
}

/** A tenth of a pixel is as fine as anything here is seen. */
const px = (v: number) => Math.round(v * 10) / 10

/** What is drawn at so many bearings about a plant. */
const around = ({ turn }: Plant, n: number, at: (bearing: number, k: number) => string): string =>
  Array.from({ length: n }, (_, k) => at((k / n) * 2 * Math.PI + turn, k)).join('')

/** A circle at a distance from the plant’s centre, in a direction. */
function circle({ x, y }: Plant, away: number, bearing: number, radius: number): string {
  const [cx, cy, r] = [x + away * Math.cos(bearing), y + away * Math.sin(bearing), px(radius)]
  return `M${px(cx - r)},${px(cy)}a${r},${r} 0 1 0 ${2 * r},0a${r},${r} 0 1 0 ${-2 * r},0`
}

/** A narrow ellipse from the plant’s centre outwards. */
function petal({ x, y, s }: Plant, bearing: number): string {
  const [dx, dy] = [0.96 * s * Math.cos(bearing), 0.96 * s * Math.sin(bearing)]
  const arc = `a${px(0.48 * s)},${px(0.23 * s)} ${Math.round((bearing * 180) / Math.PI)} 1 0`
  return `M${px(x)},${px(y)}${arc} ${px(dx)},${px(dy)}${arc} ${px(-dx)},${px(-dy)}`
}

function blade({ x, y, s }: Plant, bearing: number): string {
  const [bx, by] = [0.4 * s * Math.cos(bearing + 0.5), 0.4 * s * Math.sin(bearing + 0.5)]
  return `M${px(x)},${px(y)}q${px(bx)},${px(by)} ${px(s * Math.cos(bearing))},${px(s * Math.sin(bearing))}`
}

function frond({ x, y, s }: Plant, b: number): string {
  const tip = `M${px(x)},${px(y)}L${px(x + s * Math.cos(b))},${px(y + s * Math.sin(b))}`
  const pinnae = [0.4, 0.6, 0.8].map((t) => {
    const [mx, my] = [x + t * s * Math.cos(b), y + t * s * Math.sin(b)]
    const w = 0.26 * s * (1.2 - t)
    const side = (turn: number) => `${px(mx - w * Math.cos(b + turn))},${px(my - w * Math.sin(b + turn))}`
    return `M${side(1.2)}L${px(mx)},${px(my)}L${side(-1.2)}`
  })
  return tip + pinnae.join('')
}

const darker = (fill: string, by: number): string => color(fill)?.darker(by).formatHex() ?? fill
