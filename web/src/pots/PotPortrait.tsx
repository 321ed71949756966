import { paintVessel, type Portrait } from '@border/core'
import { useEffect, useRef } from 'react'
import { canvasPainter } from '../frontView/canvasPen.ts'
import { placeSprite, type Sprites } from '../frontView/sprites.ts'

/** What all portraits of a row are drawn by: one scale, one floor. */
export interface PortraitFrame {
  /** Pixels of the page for one metre. */
  pxPerM: number
  /** Of the picture, and of the floor that pots stand on, pixels of the page. */
  height: number
  floor: number
}

/** Room to either side of the widest of a pot, pixels. */
const BESIDE = 10
const LEAST_WIDE = 84
/** Leaves lean out of their outline a little. */
const LEANS_OUT = 1.12
/** What hangs is drawn so far above the floor, metres. */
const HANGS_M = 0.45

/** A container with what grows in it on a day, drawn to scale. */
export function PotPortrait({
  portrait,
  wideM,
  frame,
  sprites,
  label,
}: {
  portrait: Portrait
  /** As wide as it is at its fullest, so that it stays where it is through the year. */
  wideM: number
  frame: PortraitFrame
  sprites: Sprites
  label: string
}) {
  const canvas = useRef<HTMLCanvasElement>(null)
  const ratio = typeof devicePixelRatio === 'number' ? devicePixelRatio : 1
  const { pxPerM, height, floor } = frame
  const width = Math.max(LEAST_WIDE, Math.ceil(LEANS_OUT * wideM * pxPerM) + 2 * BESIDE)
  useEffect(() => {
    const asked = requestAnimationFrame(() => {
      const ctx = canvas.current?.getContext('2d')
      if (!ctx) return
      ctx.clearRect(0, 0, width * ratio, height * ratio)
      const lift = portrait.pot.shape === 'hanging' ? HANGS_M * pxPerM : 0
      drawPortrait(
        ctx,
        portrait,
        { x: (width / 2) * ratio, y: (floor - lift) * ratio, pxPerM: pxPerM * ratio },
        sprites,
      )
    })
    return () => cancelAnimationFrame(asked)
  }, [portrait, width, height, floor, pxPerM, ratio, sprites])
  return (
    <canvas
      ref={canvas}
      role="img"
      aria-label={label}
      width={width * ratio}
      height={height * ratio}
      style={{ width, height }}
    />
  )
}

/** Draws a pot, then what stands in it from the back, then what hangs over its rim. */
export function drawPortrait(
  ctx: CanvasRenderingContext2D,
  { pot, plants }: Portrait,
  { x, y, pxPerM }: { x: number; y: number; pxPerM: number },
  sprites: Sprites,
): void {
  paintVessel(canvasPainter(ctx), pot, { x, y, pxPerM, air: 0 })
  for (const p of plants) {
    const sprite = sprites.of(p, pxPerM, 0, p.trails ? 'over the rim' : 'in a pot')
    if (sprite) placeSprite(ctx, sprite, x + p.x * pxPerM, y - p.y * pxPerM)
  }
}
