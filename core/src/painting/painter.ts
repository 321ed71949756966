/** What a plant is drawn with: a canvas, a file, or something that keeps count. Pixels, y downwards; angles in radians from the right. */
export interface Pen {
  /** A leaf from its foot, so long and at its widest so wide. */
  leaf: (x: number, y: number, angle: number, length: number, width: number, colour: string) => void
  /** A stem or twig from one point to another, bent towards a third. */
  stem: (
    x0: number,
    y0: number,
    bendX: number,
    bendY: number,
    x1: number,
    y1: number,
    width: number,
    colour: string,
  ) => void
  /** A blade of grass: from its foot over its bend to its tip, widest below. */
  blade: (
    x0: number,
    y0: number,
    bendX: number,
    bendY: number,
    x1: number,
    y1: number,
    width: number,
    colour: string,
  ) => void
  oval: (x: number, y: number, rx: number, ry: number, angle: number, colour: string) => void
}

/** How an outline is drawn; what is not said is not drawn. Colours are of CSS. */
export interface PathStyle {
  /** By the even-odd rule, so that holes stay open. */
  fill?: string
  line?: string
  width?: number
  /** Lengths of dashes and of the gaps between. */
  dash?: readonly [dash: number, gap: number]
  /** Of all of it, 0 to 1. */
  opacity?: number
}

/** A colour at a share of the way down. */
export type ColourStop = readonly [at: number, colour: string, opacity?: number]

/** How words are set. */
export interface TextStyle {
  size: number
  colour: string
  anchor?: 'start' | 'middle' | 'end'
  isBold?: boolean
  isItalic?: boolean
}

/** Something that is drawn once and set many times. */
export interface Stamp {
  /** The same name, the same drawing. */
  name: string
  /** So far it reaches from its origin to either side, up and down, pixels. */
  reach: number
  draw: (pen: Pen) => void
}

/** What a whole picture is drawn with, on a screen or into a file. Outlines are path data as SVG writes them; y downwards. */
export interface Painter {
  path: (d: string, style: PathStyle) => void
  /** A rectangle whose colour changes from top to bottom. */
  fade: (x: number, y: number, width: number, height: number, stops: readonly ColourStop[]) => void
  /** Whatever is drawn, within an outline only. */
  within: (d: string, draw: () => void) => void
  /** Sets a stamp with its origin at a point, so many times as large as it is drawn. */
  stamp: (stamp: Stamp, x: number, y: number, scale: number) => void
  /** Words on their base line. */
  text: (x: number, y: number, words: string, style: TextStyle) => void
}

/** What the ground of a picture is drawn with: neither words nor stamps. */
export type GroundPainter = Omit<Painter, 'text' | 'stamp'>

/** Hundredths are enough for any paper. */
const short = (v: number): string => String(Math.round(100 * v) / 100)
const at = (x: number, y: number): string => `${short(x)} ${short(y)}`

/** Path data of a closed outline. */
export const ringPath = (points: readonly (readonly [x: number, y: number])[]): string =>
  `M${points.map(([x, y]) => at(x, y)).join('L')}Z`

export const rectPath = (x: number, y: number, width: number, height: number): string =>
  `M${at(x, y)}h${short(width)}v${short(height)}h${short(-width)}z`

/** Path data of an oval, turned by an angle in radians. */
export function ovalPath(x: number, y: number, rx: number, ry: number, angle = 0): string {
  const [dx, dy] = [rx * Math.cos(angle), rx * Math.sin(angle)]
  const arc = (toX: number, toY: number) =>
    `A${at(rx, ry)} ${short((angle * 180) / Math.PI)} 1 1 ${at(toX, toY)}`
  return `M${at(x - dx, y - dy)}${arc(x + dx, y + dy)}${arc(x - dx, y - dy)}Z`
}

const tenth = (v: number): string => String(Math.round(10 * v) / 10)
const near = (x: number, y: number): string => `${tenth(x)} ${tenth(y)}`

/** A pen whose strokes are paths, for a file. */
export const pathPen = (path: Painter['path']): Pen => ({
  leaf: (x, y, angle, length, width, fill) => {
    const [left, right] = leafBends(x, y, angle, length, width)
    const tip = near(x + length * Math.cos(angle), y + length * Math.sin(angle))
    path(`M${near(x, y)}Q${near(...left)} ${tip}Q${near(...right)} ${near(x, y)}`, { fill })
  },
  stem: (x0, y0, bendX, bendY, x1, y1, width, line) =>
    path(`M${near(x0, y0)}Q${near(bendX, bendY)} ${near(x1, y1)}`, { line, width }),
  blade: (x0, y0, bendX, bendY, x1, y1, width, fill) =>
    path(
      `M${near(x0 - width, y0)}Q${near(bendX - width, bendY)} ${near(x1, y1)}Q${near(bendX + width, bendY + width)} ${near(x0 + width, y0)}`,
      { fill },
    ),
  oval: (x, y, rx, ry, angle, fill) => path(ovalPath(x, y, rx, ry, angle), { fill }),
})

/** The points towards which the two sides of a leaf bend. */
export function leafBends(
  x: number,
  y: number,
  angle: number,
  length: number,
  width: number,
): [left: readonly [number, number], right: readonly [number, number]] {
  const [c, s] = [Math.cos(angle), Math.sin(angle)]
  const [mx, my] = [x + 0.45 * length * c, y + 0.45 * length * s]
  return [
    [mx - width * s, my + width * c],
    [mx + width * s, my - width * c],
  ]
}
