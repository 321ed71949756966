import { leafBends, type GroundPainter, type Pen } from '@border/core'
import { color } from 'd3-color'

/** Draws on a canvas. */
export function canvasPen(ctx: CanvasRenderingContext2D): Pen {
  return {
    leaf: (x, y, angle, length, width, colour) => {
      const [left, right] = leafBends(x, y, angle, length, width)
      ctx.fillStyle = colour
      ctx.beginPath()
      ctx.moveTo(x, y)
      ctx.quadraticCurveTo(...left, x + length * Math.cos(angle), y + length * Math.sin(angle))
      ctx.quadraticCurveTo(...right, x, y)
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

/** Draws the ground of a picture on a canvas. */
export function canvasPainter(ctx: CanvasRenderingContext2D): GroundPainter {
  return {
    path: (d, { fill, line, width = 1, dash, opacity = 1 }) => {
      const path = new Path2D(d)
      ctx.globalAlpha = opacity
      if (fill) {
        ctx.fillStyle = fill
        ctx.fill(path, 'evenodd')
      }
      if (line) {
        ctx.strokeStyle = line
        ctx.lineWidth = width
        ctx.setLineDash(dash ?? [])
        ctx.stroke(path)
      }
      ctx.globalAlpha = 1
    },
    fade: (x, y, width, height, stops) => {
      const fade = ctx.createLinearGradient(0, y, 0, y + height)
      for (const [at, colour, opacity = 1] of stops) {
        const seen = color(colour)!.copy({ opacity })
        fade.addColorStop(at, seen.formatRgb())
      }
      ctx.fillStyle = fade
      ctx.fillRect(x, y, width, height)
    },
    within: (d, draw) => {
      ctx.save()
      ctx.clip(new Path2D(d))
      draw()
      ctx.restore()
    },
  }
}
