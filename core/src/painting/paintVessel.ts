import { acrossAt, hasCorners, isRounded } from '../garden/index.ts'
import { RIM_DEPTH, type PotLook } from '../frontView/index.ts'
import { FAR_AIR, mixed } from './light.ts'
import { ovalPath, rectPath, ringPath, type Painter } from './painter.ts'

/** Where a container is drawn: the middle of its foot in pixels, and how large. */
export interface VesselSpot {
  x: number
  y: number
  pxPerM: number
  /** 0 at the front to 1 far behind. */
  air: number
}

/** What materials look like: colour, and that of their shade and of the light on them. */
const colours: Readonly<Record<string, readonly [base: string, shade: string, light: string]>> = {
  terracotta: ['#b5704a', '#5b3a28', '#f0c9a4'],
  'glazed clay': ['#4d6d82', '#1f3442', '#b9d2dd'],
  stone: ['#a59d8e', '#5a5347', '#e9e3d4'],
  concrete: ['#a3a19a', '#57554f', '#e6e4dc'],
  wood: ['#8d6d4b', '#463220', '#cdb48f'],
  lead: ['#7c8286', '#3e4346', '#c3c9cb'],
  metal: ['#929ca0', '#4a5356', '#dfe6e8'],
  plastic: ['#6e675d', '#37332d', '#b3aca1'],
  'fibre clay': ['#8b8577', '#454137', '#cfc9ba'],
  fibreglass: ['#77736b', '#3a3732', '#bdb9b0'],
  fabric: ['#716a58', '#3a3529', '#a9a28f'],
  basket: ['#7d6343', '#3f2f1d', '#bfa27a'],
}
/** What nobody has said the material of is drawn as fired clay, greyer. */
const UNSAID = ['#b09a86', '#5d5046', '#e4d6c7'] as const
const MIX = '#4b3a2c'
const INSIDE = '#3a2f26'

/** Strips by which its roundness is shaded, and cuts by which a curved wall is drawn. */
const STRIPS = 11
const CUTS = 14
/** So much of its height is the band about the rim of a pot that is thrown or pressed. */
const BAND = 0.13
const BANDED: ReadonlySet<string | undefined> = new Set(['terracotta', undefined])
/** Boards of a wooden box, metres. */
const BOARD_M = 0.09

/** Half of what it is across, outside, at a share of its height: of bowls by their own curve. */
function halfAt(look: PotLook, t: number): number {
  const { shape, acrossM, footM, highM } = look
  if (!isRounded(look)) return (footM + t * (acrossM - footM)) / 2
  const inside = {
    shape,
    lengthM: acrossM,
    widthM: acrossM,
    footLengthM: 0,
    footWidthM: 0,
    depthM: highM,
    rimGapM: 0,
  }
  // A bowl that stands does so on a foot; one that hangs comes to a point.
  return Math.max(shape === 'bowl' ? 0.22 * acrossM : 0, acrossAt(inside, t * highM).widthM / 2)
}

/** Draws a container, empty but for its mix: what grows in it comes after. */
export function paintVessel(painter: Pick<Painter, 'path'>, look: PotLook, spot: VesselSpot): void {
  const { x, y, pxPerM, air } = spot
  const [base, shade, light] = (colours[look.material ?? ''] ?? UNSAID).map((c) =>
    mixed(c, FAR_AIR, air),
  ) as [string, string, string]
  const high = look.highM * pxPerM
  const half = (look.acrossM / 2) * pxPerM
  const isBox = hasCorners(look)
  const at = (t: number) => y - t * high
  const wide = (t: number) => halfAt(look, t) * pxPerM
  const rim = isBox ? 0 : RIM_DEPTH * half
  if (look.shape !== 'hanging')
    painter.path(ovalPath(x, y, 1.04 * Math.max(wide(0), 0.6 * half), Math.max(1.5, 0.09 * half)), {
      fill: '#221b14',
      opacity: 0.22,
    })
  const levels = Array.from({ length: CUTS + 1 }, (_, i) => i / CUTS)
  for (let i = 0; i < STRIPS; i++) {
    const [from, to] = [(2 * i) / STRIPS - 1, (2 * (i + 1)) / STRIPS - 1]
    const middle = (from + to) / 2
    // Lit from the upper left; a flat front is nearly of one light.
    const lit = isBox ? 0.14 - 0.12 * (middle + 1) : 0.4 - 0.85 * Math.abs(middle + 0.38)
    const fill = mixed(base, lit < 0 ? shade : light, Math.min(0.62, Math.abs(lit)))
    // The foot is round too: seen from a little above, its strips end lower in the middle.
    const sag = isBox ? 0 : 0.5 * RIM_DEPTH * wide(0) * Math.sqrt(Math.max(0, 1 - middle ** 2))
    painter.path(
      ringPath([
        ...levels.map((t): [number, number] => [x + to * wide(t) + 0.6, at(t) + (1 - t) * sag]),
        ...levels.toReversed().map((t): [number, number] => [x + from * wide(t), at(t) + (1 - t) * sag]),
      ]),
      { fill },
    )
  }
  if (look.material === 'wood') {
    const boards = Math.max(1, Math.round(look.highM / BOARD_M))
    for (let i = 1; i < boards; i++)
      painter.path(rectPath(x - wide(i / boards), at(i / boards), 2 * wide(i / boards), 1), {
        fill: shade,
        opacity: 0.55,
      })
  }
  if (look.shape === 'hanging')
    for (const side of [-0.94, 0, 0.94])
      painter.path(
        `M${(x + side * half).toFixed(1)} ${at(1).toFixed(1)}L${x.toFixed(1)} ${(at(1) - 2.2 * half).toFixed(1)}`,
        {
          line: shade,
          width: 1,
        },
      )
  paintRim(painter, look, { x, top: at(1), half, rim, high, base, shade })
}

function paintRim(
  painter: Pick<Painter, 'path'>,
  look: PotLook,
  {
    x,
    top,
    half,
    rim,
    high,
    base,
    shade,
  }: Record<'x' | 'top' | 'half' | 'rim' | 'high', number> & { base: string; shade: string },
): void {
  const isBanded = BANDED.has(look.material) && !isRounded(look) && look.shape !== 'trough'
  const band = isBanded ? Math.max(2, BAND * high) : Math.max(1.5, 0.04 * high)
  const reach = isBanded ? 1.05 * half : half
  if (rim === 0) {
    painter.path(rectPath(x - reach, top - 1, 2 * reach, band), { fill: mixed(base, shade, 0.18) })
    return
  }
  painter.path(
    `M${(x - reach).toFixed(1)} ${top.toFixed(1)}A${reach.toFixed(1)} ${rim.toFixed(1)} 0 0 0 ${(x + reach).toFixed(1)} ${top.toFixed(1)}` +
      `V${(top + band).toFixed(1)}A${reach.toFixed(1)} ${rim.toFixed(1)} 0 0 1 ${(x - reach).toFixed(1)} ${(top + band).toFixed(1)}Z`,
    { fill: mixed(base, shade, 0.16) },
  )
  painter.path(ovalPath(x, top, reach, rim), { fill: mixed(base, shade, 0.3) })
  painter.path(ovalPath(x, top, 0.92 * half, 0.86 * rim), { fill: INSIDE })
  painter.path(ovalPath(x, top + 0.25 * rim, 0.87 * half, 0.68 * rim), { fill: MIX })
}
