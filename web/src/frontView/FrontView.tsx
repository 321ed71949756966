import {
  airBefore,
  backdropOf,
  framed,
  framedFrom,
  framing,
  frontView,
  inFullGrowth,
  isInFrame,
  paintGround,
  paintPot,
  seenGround,
  shownOf,
  type Backdrop,
  type Beyond,
  type Feature,
  type Framing,
  type FrontView as Seen,
  type IsoDate,
  type Point,
  type SeenPlant,
  type StandingPlant,
  type Standpoint,
  type Year,
} from '@border/core'
import { useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react'
import { useSize } from '../frame/useSize.ts'
import { canvasPainter } from './canvasPen.ts'
import { placeSprite, Sprites } from './sprites.ts'
import './frontView.css'

interface Props {
  outline: readonly Point[]
  plants: readonly StandingPlant[]
  features: readonly Feature[]
  /** What stands in the other places of the garden. */
  beyond: Beyond
  standpoint: Standpoint
  on: IsoDate
  year: Year
  /** Since it was planted. */
  years: number
  isWinter: boolean
  /** The drift that is in hand: the others stand back. */
  chosen?: string | undefined
  label: string
}

/** A bed as it is seen from where somebody stands, drawn to its true proportions. */
export function FrontView(props: Props) {
  const [ref, size] = useSize()
  return (
    <div className="front-view" ref={ref}>
      {size.width > 0 && size.height > 0 && <Drawn {...props} room={size.width} height={size.height} />}
    </div>
  )
}

/** Pictures that are kept while the weeks go by and back: one for each week, and some. */
const MOST_KEPT = 64

function Drawn({
  outline,
  plants,
  features,
  beyond,
  standpoint,
  on,
  year,
  years,
  isWinter,
  chosen,
  label,
  room,
  height,
}: Props & { room: number; height: number }) {
  const canvas = useRef<HTMLCanvasElement>(null)
  const [sprites] = useState(() => new Sprites())
  const [leftPx, setLeft] = useState(0)
  const ratio = typeof devicePixelRatio === 'number' ? devicePixelRatio : 1
  // Where nothing behind it has grown, come into leaf or gone, it is not drawn anew.
  const behind = JSON.stringify(backdropOf(outline, features, standpoint, on))
  const backdrop = useMemo(() => JSON.parse(behind) as Backdrop[], [behind])
  // In full growth: what it is framed by, so that the picture stays as large while the weeks go by.
  const tallest = useMemo(
    () => frontView(outline, plants, standpoint, { on: inFullGrowth(year), year, years }, { features }),
    [outline, plants, standpoint, year, years, features],
  )
  const fit = useMemo(
    () => framing(tallest, backdrop, room * ratio, height * ratio, ratio),
    [tallest, backdrop, room, height, ratio],
  )
  // Other plants that are no taller change nothing of the ground.
  const frame = useMemo(() => framed(fit.width, fit.height, fit.pxPerM), [fit.width, fit.height, fit.pxPerM])
  const seen = useMemo(() => seenGround(outline, standpoint, beyond.beds), [outline, standpoint, beyond.beds])
  const ground = useMemo(
    () => drawnOnce(frame, (ctx) => paintGround(canvasPainter(ctx), seen, backdrop, frame, isWinter)),
    [seen, backdrop, frame, isWinter],
  )
  // Of the plants only the stretch that is looked at is drawn; what was drawn of a week is kept until anything else than the week is another.
  const pictureOf = useMemo(() => {
    const left = leftPx * ratio
    const shown = framedFrom(frame, left, room * ratio)
    return keptByDay((day, still) => {
      const view = frontView(outline, plants, standpoint, { on: day, year, years }, { features, beyond })
      return drawnOnce(shown, (ctx) => {
        ctx.drawImage(still, -left, 0)
        placeSprites(ctx, view, shown, sprites, chosen)
      })
    })
  }, [
    outline,
    plants,
    standpoint,
    year,
    years,
    features,
    beyond,
    frame,
    leftPx,
    room,
    ratio,
    sprites,
    chosen,
  ])
  useEffect(() => {
    // Once a frame, however fast the weeks go by.
    const asked = requestAnimationFrame(() => {
      canvas.current?.getContext('2d')?.drawImage(pictureOf(on, ground), 0, 0)
    })
    return () => cancelAnimationFrame(asked)
  }, [pictureOf, on, ground])
  const metres = Array.from({ length: Math.floor(frame.y(0) / frame.pxPerM) + 1 }, (_, m) => m)
  const width = frame.width / ratio
  // A long bed is looked along from its middle.
  const along = useRef<HTMLDivElement>(null)
  useLayoutEffect(() => {
    if (along.current) along.current.scrollLeft = (width - room) / 2
  }, [width, room])
  return (
    <>
      <div
        className="front-along"
        ref={along}
        tabIndex={width > room ? 0 : undefined}
        onScroll={(e) => setLeft(Math.round(e.currentTarget.scrollLeft))}
      >
        <div style={{ width }}>
          <canvas
            ref={canvas}
            role="img"
            aria-label={label}
            width={room * ratio}
            height={frame.height}
            style={{ width: room, height }}
          />
        </div>
      </div>
      <svg className="front-scale" width={60} height={height} aria-hidden>
        {metres.map((m) => (
          <g key={m} transform={`translate(0 ${frame.y(m) / ratio})`}>
            <line x1={0} x2={8} />
            <text x={11} y={4}>
              {m} m
            </text>
          </g>
        ))}
      </svg>
    </>
  )
}

type PictureOf = (day: IsoDate, still: HTMLCanvasElement) => HTMLCanvasElement

/** What is drawn of a day, drawn once. */
function keptByDay(draw: PictureOf): PictureOf {
  const kept = new Map<IsoDate, HTMLCanvasElement>()
  return (day, still) => {
    const known = kept.get(day)
    if (known) return known
    const picture = draw(day, still)
    if (kept.size >= MOST_KEPT) kept.clear()
    kept.set(day, picture)
    return picture
  }
}

/** A picture of its own. */
function drawnOnce(
  { width, height }: Framing,
  draw: (ctx: CanvasRenderingContext2D) => void,
): HTMLCanvasElement {
  const canvas = document.createElement('canvas')
  canvas.width = width
  canvas.height = height
  const ctx = canvas.getContext('2d')
  if (ctx) draw(ctx)
  return canvas
}

/** Draws what stands behind a bed, and its plants from the farthest to the nearest, each by its sprite. @param chosen the others are faded */
function placeSprites(
  ctx: CanvasRenderingContext2D,
  view: Seen,
  frame: Framing,
  sprites: Sprites,
  chosen?: string,
): void {
  const painter = canvasPainter(ctx)
  const place = (p: SeenPlant) => {
    if (!isInFrame(p, frame)) return
    const sprite = sprites.of(p, p.scale * frame.pxPerM, airBefore(p, view))
    if (sprite) placeSprite(ctx, sprite, frame.x(p.x), frame.y(p.y))
  }
  for (const b of view.beyond) {
    const draw = () => ('pot' in b ? paintPot(painter, b, frame) : place(b))
    const shown = shownOf(b, frame)
    if (shown === undefined) draw()
    else painter.within(shown, draw)
  }
  for (const p of view.plants) {
    const isFaded = chosen !== undefined && p.plant.groupId !== chosen
    if (isFaded) ctx.globalAlpha = 0.45
    place(p)
    if (isFaded) ctx.globalAlpha = 1
  }
}
