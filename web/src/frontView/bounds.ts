import type { Pen } from '@border/core'

/** A rectangle of a picture, pixels; empty where its right is not right of its left. */
export interface Box {
  left: number
  top: number
  right: number
  bottom: number
}

/** A box that grows with what is told to it. */
export function growingBox() {
  const box: Box = { left: Infinity, top: Infinity, right: -Infinity, bottom: -Infinity }
  return {
    box,
    /** A point is in it, with so much about it. */
    add: (x: number, y: number, about: number): void => {
      box.left = Math.min(box.left, x - about)
      box.top = Math.min(box.top, y - about)
      box.right = Math.max(box.right, x + about)
      box.bottom = Math.max(box.bottom, y + about)
    },
  }
}

/** A pen that tells where it draws: curves lie within the hull of their points and what they are bent towards. */
export const watchedPen = (pen: Pen, add: ReturnType<typeof growingBox>['add']): Pen => ({
  leaf: (x, y, angle, length, width, colour) => {
    add(x, y, width)
    add(x + length * Math.cos(angle), y + length * Math.sin(angle), width)
    pen.leaf(x, y, angle, length, width, colour)
  },
  stem: (x0, y0, bendX, bendY, x1, y1, width, colour) => {
    add(x0, y0, width)
    add(bendX, bendY, width)
    add(x1, y1, width)
    pen.stem(x0, y0, bendX, bendY, x1, y1, width, colour)
  },
  blade: (x0, y0, bendX, bendY, x1, y1, width, colour) => {
    add(x0, y0, width)
    add(bendX, bendY, width)
    add(x1, y1, width)
    pen.blade(x0, y0, bendX, bendY, x1, y1, width, colour)
  },
  oval: (x, y, rx, ry, angle, colour) => {
    add(x, y, Math.max(rx, ry))
    pen.oval(x, y, rx, ry, angle, colour)
  },
})
