import {
  backdropOf,
  frontView,
  type Feature,
  type IsoDate,
  type Point,
  type StandingPlant,
  type Standpoint,
  type Year,
} from '@border/core'
import { useEffect, useLayoutEffect, useMemo, useRef } from 'react'
import { useSize } from '../frame/useSize.ts'
import { framing, paintScene } from './paintScene.ts'
import { Sprites } from './sprites.ts'
import './frontView.css'

interface Props {
  outline: readonly Point[]
  plants: readonly StandingPlant[]
  features: readonly Feature[]
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

function Drawn({
  outline,
  plants,
  features,
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
  const sprites = useRef(new Sprites())
  const view = useMemo(
    () => frontView(outline, plants, standpoint, { on, year, years }),
    [outline, plants, standpoint, on, year, years],
  )
  const backdrop = useMemo(() => backdropOf(outline, features, standpoint), [outline, features, standpoint])
  const tallest = useMemo(
    () => fullest(outline, plants, standpoint, year, years),
    [outline, plants, standpoint, year, years],
  )
  const frame = useMemo(() => framing(tallest, backdrop, room, height), [tallest, backdrop, room, height])
  const { width } = frame
  useEffect(() => {
    // Once a frame, however fast the weeks go by.
    const asked = requestAnimationFrame(() => {
      const ctx = canvas.current?.getContext('2d')
      if (!ctx) return
      const ratio = devicePixelRatio || 1
      ctx.setTransform(ratio, 0, 0, ratio, 0, 0)
      paintScene(ctx, view, backdrop, frame, sprites.current, { isWinter, chosen })
    })
    return () => cancelAnimationFrame(asked)
  }, [view, backdrop, frame, isWinter, chosen, width, height])
  const ratio = typeof devicePixelRatio === 'number' ? devicePixelRatio : 1
  const metres = Array.from({ length: Math.floor(frame.y(0) / frame.pxPerM) + 1 }, (_, m) => m)
  // A long bed is looked along from its middle.
  const along = useRef<HTMLDivElement>(null)
  useLayoutEffect(() => {
    if (along.current) along.current.scrollLeft = (width - room) / 2
  }, [width, room])
  return (
    <>
      <div className="front-along" ref={along} tabIndex={width > room ? 0 : undefined}>
        <canvas
          ref={canvas}
          role="img"
          aria-label={label}
          width={Math.round(width * ratio)}
          height={Math.round(height * ratio)}
          style={{ width, height }}
        />
      </div>
      <svg className="front-scale" width={60} height={height} aria-hidden>
        {metres.map((m) => (
          <g key={m} transform={`translate(0 ${frame.y(m)})`}>
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

/** The same bed in full growth: what it is framed by, so that the picture stays as large while the weeks go by. */
function fullest(
  outline: readonly Point[],
  plants: readonly StandingPlant[],
  standpoint: Standpoint,
  year: Year,
  years: number,
) {
  return frontView(outline, plants, standpoint, { on: year.south ? '2027-01-20' : '2026-07-20', year, years })
}
