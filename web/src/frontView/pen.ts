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

/** Draws on a canvas. */
export function canvasPen(ctx: CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D): Pen {
  return {
    leaf: (x, y, angle, length, width, colour) => {
      const [c, s] = [Math.cos(angle), Math.sin(angle)]
      const [mx, my] = [x + 0.45 * length * c, y + 0.45 * length * s]
      ctx.fillStyle = colour
      ctx.beginPath()
      ctx.moveTo(x, y)
      ctx.quadraticCurveTo(mx - width * s, my + width * c, x + length * c, y + length * s)
      ctx.quadraticCurveTo(mx + width * s, my - width * c, x, y)
      ctx.fill()
    },
    stem: (x0, y0, bendX, bendY, x1, y1, width, colour) => {
      ctx.strokeStyle = colour
      ctx.lineWidth = width
      ctx.beginPath()
      ctx.moveTo(x0, y0)
      ctx.quadraticCurveTo(bendX, bendY, x1, y1)
      ctx.stroke()
    },
    blade: (x0, y0, bendX, bendY, x1, y1, width, colour) => {
      ctx.fillStyle = colour
      ctx.beginPath()
      ctx.moveTo(x0 - width, y0)
      ctx.quadraticCurveTo(bendX - width, bendY, x1, y1)
      ctx.quadraticCurveTo(bendX + width, bendY + width, x0 + width, y0)
      ctx.fill()
    },
    oval: (x, y, rx, ry, angle, colour) => {
      ctx.fillStyle = colour
      ctx.beginPath()
      ctx.ellipse(x, y, rx, ry, angle, 0, 2 * Math.PI)
      ctx.fill()
    },
  }
}
