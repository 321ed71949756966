import { GROWTH_YEARS, type Standpoint } from '@border/core'
import { min } from 'd3-array'
import { use } from 'react'
import { useGardenContext } from '../frame/gardenContext.ts'
import { CarriedOut } from './canChange.ts'
import { Figure } from '../frame/Figure.tsx'
import { PhotoBeside } from './PhotoBeside.tsx'
import { SeenScheme } from './SeenScheme.tsx'
import { WeekSlider } from '../frame/WeekSlider.tsx'
import { SideChoice, useStandpoint, YearChoice, type Moment } from './useMoment.tsx'
import type { Grown, Laid } from './useStanding.ts'
import './rework.css'

interface Props {
  laid: Laid
  /** It as it stands at that moment. */
  grown: Grown
  /** From how far it is looked at, where somebody has said, metres. */
  seenFromM: number | null
  chosen: string | undefined
  /** What was planted by it. */
  plantedIds: readonly string[]
  moment: Moment
}

/** A scheme from where somebody stands, by week of the year and by year of growth, and what is hidden of it. */
export function FromThePath({ laid, grown, seenFromM, chosen, plantedIds, moment }: Props) {
  const { view } = useGardenContext()
  const isCarriedOut = use(CarriedOut)
  const standpoint = useStandpoint(moment, laid.ground.viewedFrom, seenFromM)
  return (
    <div className="from-path">
      <MomentTools sides={laid.ground.viewedFrom} standpoint={standpoint} moment={moment} />
      <SeenScheme {...{ laid, grown, standpoint, moment, chosen }}>
        {isCarriedOut && (
          <PhotoBeside
            placeId={laid.ground.of.place.id}
            photoId={moment.at.photo}
            years={GROWTH_YEARS}
            plantedOn={min(
              view.plantings.filter((p) => plantedIds.includes(p.id)),
              (p) => p.inPlaceSince,
            )}
            onChoose={moment.look}
          />
        )}
      </SeenScheme>
    </div>
  )
}

/** When it is looked at, and from where. */
export function MomentTools({
  sides,
  standpoint: { fromDeg, awayM },
  moment,
}: {
  sides: readonly number[]
  standpoint: Standpoint
  moment: Moment
}) {
  const { years, look } = moment
  return (
    <div className="rework-tools" role="group" aria-label="When and from where">
      <WeekSlider {...moment} onWeek={(week) => moment.look({ week })} />
      <YearChoice years={years} onYears={(growth) => look({ growth })} />
      <SideChoice sides={sides} fromDeg={fromDeg} onSide={(side) => look({ side })} />
      <label>
        <small>from </small>
        <Figure
          label="From how far it is looked at"
          value={Math.round(10 * awayM) / 10}
          min={1}
          max={60}
          step={0.5}
          unit="m"
          onSay={(v) => look({ away: String(v) })}
        />
      </label>
    </div>
  )
}
