import { capitalised, nearestStation, suits, type Point } from '@border/core'
import { useState, type ComponentProps } from 'react'
import { BedDrawing } from './BedDrawing.tsx'
import type { useSchemeGround } from './useReworkPlace.ts'
import './rework.css'

type Props = Omit<ComponentProps<typeof BedDrawing>, 'onPoint'> &
  Pick<ReturnType<typeof useSchemeGround>, 'garden'>

/** The bed, and below it what is under the pointer: nothing else is drawn anew while that goes over it. */
export function PointedBed({ garden, ...bed }: Props) {
  const [at, setAt] = useState<Point>()
  return (
    <>
      <BedDrawing {...bed} onPoint={setAt} />
      <div className="rework-under" aria-live="off">
        <UnderPointer {...{ at, garden }} bed={bed.ground} arranged={bed.arranged} chosen={bed.chosen} />
      </div>
    </>
  )
}

/** What is under the pointer: the ground, and how the drift in hand, or the one there, would do on it. */
function UnderPointer({
  at,
  bed,
  arranged,
  garden,
  chosen,
}: {
  at: Point | undefined
  chosen: string | undefined
} & Pick<ReturnType<typeof useSchemeGround>, 'bed' | 'arranged' | 'garden'>) {
  if (!at) return <span className="soft">Point at the bed to see what a spot offers.</span>
  const { stations, place } = bed.of
  const station = nearestStation(stations, at[0], at[1])
  if (Math.hypot(station.x - at[0], station.y - at[1]) >= bed.cellM)
    return <span className="soft">Beside the bed.</span>
  const there = arranged.drifts[arranged.has[stations.indexOf(station)]!]
  const of = arranged.drifts.find((d) => d.id === chosen) ?? there
  return (
    <>
      {station.hours.total.toFixed(1)} h of sun here{there ? `, in the drift of ${there.taxon.common}` : ''}.{' '}
      {of && (
        <>
          {capitalised(of.taxon.common)}: {suits(of.taxon, place, station, garden).reason}.
        </>
      )}
    </>
  )
}
