import {
  asDisc,
  extentOf,
  isInside,
  seededRandom,
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

export function Mass({ id, taxon, ground, count }: MassProps) {
  const random = seededRandom(hashOf(id))
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
      {r > 5 &&
        standsIn(ground, marks).map(([x, y], i) => (
          <Mark key={i} taxon={taxon} x={x} y={y} size={r / Math.sqrt(marks)} turn={random() * 6} />
        ))}
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

interface MarkProps {
  taxon: Taxon
  x: number
  y: number
  /** Pixels from its centre to where the next one begins. */
  size: number
  turn: number
}

/** One plant from above, by habit. */
function Mark({ taxon, x, y, size, turn }: MarkProps) {
  const s = Math.min(13, size * 0.8)
  const leaf = darker(taxon.foliageColour, 0.5)
  const edge = darker(taxon.foliageColour, 1.5)
  const around = (n: number) => Array.from({ length: n }, (_, k) => (k / n) * 2 * Math.PI + turn)
  switch (taxon.habit) {
    case 'grass':
      return (
        <path
          d={around(8)
            .map(
              (b) =>
                `M${x},${y}q${0.4 * s * Math.cos(b + 0.5)},${0.4 * s * Math.sin(b + 0.5)} ${s * Math.cos(b)},${s * Math.sin(b)}`,
            )
            .join('')}
          stroke={edge}
          strokeWidth={0.9}
          fill="none"
        />
      )
    case 'shrub':
      return around(6).map((b, k) => (
        <circle
          key={k}
          cx={x + 0.5 * s * Math.cos(b)}
          cy={y + 0.5 * s * Math.sin(b)}
          r={0.42 * s}
          fill={taxon.foliageColour}
          fillOpacity={0.85}
          stroke={edge}
          strokeWidth={0.6}
        />
      ))
    case 'fern':
      return (
        <g stroke={edge} strokeWidth={0.8} fill="none">
          {around(6).map((b, k) => (
            <path key={k} d={fernFrond(x, y, s, b)} />
          ))}
        </g>
      )
    case 'bulb':
      return around(3).map((b, k) => (
        <circle
          key={k}
          cx={x + 0.4 * s * Math.cos(b)}
          cy={y + 0.4 * s * Math.sin(b)}
          r={0.16 * s}
          fill={leaf}
          stroke={edge}
          strokeWidth={0.6}
        />
      ))
    case 'mat':
    case 'climber':
      return around(7).map((b, k) => (
        <circle
          key={k}
          cx={x + (0.25 + 0.09 * k) * s * Math.cos(b * 2)}
          cy={y + (0.25 + 0.09 * k) * s * Math.sin(b * 2)}
          r={0.2 * s}
          fill={leaf}
          fillOpacity={0.8}
        />
      ))
    case 'spire':
    case 'upright':
      return (
        <g>
          <circle cx={x} cy={y} r={0.62 * s} fill={leaf} fillOpacity={0.35} />
          <path d={`M${x - 0.5 * s},${y}h${s}M${x},${y - 0.5 * s}v${s}`} stroke={edge} strokeWidth={1} />
        </g>
      )
    case 'clump':
    case 'mound':
      return around(5).map((b, k) => (
        <ellipse
          key={k}
          transform={`translate(${x},${y}) rotate(${(b * 180) / Math.PI})`}
          cx={0.48 * s}
          rx={0.48 * s}
          ry={0.23 * s}
          fill={leaf}
          fillOpacity={0.9}
        />
      ))
  }
}

function fernFrond(x: number, y: number, s: number, b: number): string {
  const tip = `M${x},${y}L${x + s * Math.cos(b)},${y + s * Math.sin(b)}`
  const pinnae = [0.4, 0.6, 0.8].map((t) => {
    const px = x + t * s * Math.cos(b)
    const py = y + t * s * Math.sin(b)
    const w = 0.26 * s * (1.2 - t)
    return `M${px - w * Math.cos(b + 1.2)},${py - w * Math.sin(b + 1.2)}L${px},${py}L${px - w * Math.cos(b - 1.2)},${py - w * Math.sin(b - 1.2)}`
  })
  return tip + pinnae.join('')
}

const darker = (fill: string, by: number): string => color(fill)?.darker(by).formatHex() ?? fill

/** FNV-1a, enough to give each planting a drawing of its own. */
function hashOf(text: string): number {
  let hash = 0x811c9dc5
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193)
  return hash >>> 0
}
