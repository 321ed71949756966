import type { SaidScheme } from '@border/contract'
import {
  type Arrangement,
  type BedGround,
  dayMonth,
  EYE_M,
  frontView,
  GROWTH_YEARS,
  grownTo,
  grownWords,
  hiddenShare,
  hiddenWords,
  isWinterAt,
  type KindOf,
  monthName,
  ownHiddenWords,
  placeOutline,
  type Pocket,
  type Point,
  seenShares,
  USUAL_AWAY_M,
  type StandingPlant,
} from '@border/core'
import { min } from 'd3-array'
import { memo, use, useEffect, useMemo, useState } from 'react'
import { RESTS_MS } from '../frame/address.ts'
import { useGardenContext } from '../frame/gardenContext.ts'
import { FrontView } from '../frontView/FrontView.tsx'
import { CarriedOut } from './canChange.ts'
import { Figure } from './Figure.tsx'
import { clamped, SideChoice, WeekSlider, YearChoice, type Moment } from './useMoment.tsx'
import { useBeyond, useFillers, useStanding } from './useStanding.ts'
import { PhotoBeside } from './PhotoBeside.tsx'
import './rework.css'

interface Props {
  ground: BedGround
  arranged: Arrangement
  pockets: readonly Pocket[]
  said: SaidScheme
  kindOf: KindOf
  chosen: string | undefined
  /** What was planted by it. */
  plantedIds: readonly string[]
  moment: Moment
}

/** A scheme from where somebody stands, by week of the year and by year of growth, and what is hidden of it. */
export function FromThePath(props: Props) {
  const { ground, arranged, said, chosen, plantedIds, moment } = props
  const { view } = useGardenContext()
  const { at, look, years, on, year } = moment
  const isCarriedOut = use(CarriedOut)
  const standing = useStanding(props)
  const fillers = useFillers(props, standing, years)
  const plants = useMemo(() => [...standing, ...fillers], [standing, fillers])
  const beyond = useBeyond(ground.of.place.id)
  const outline = useMemo(() => placeOutline(ground.of.place), [ground.of.place])
  const fromDeg = ground.viewedFrom.includes(Number(at.side))
    ? Number(at.side)
    : (ground.viewedFrom[0] ?? 180)
  const awayM = clamped(at.away, said.seenFromM ?? USUAL_AWAY_M, 1, 60)
  const standpoint = useMemo(() => ({ fromDeg, awayM, eyeM: EYE_M }), [fromDeg, awayM])
  const grown = useMemo(
    () =>
      arranged.drifts.length > 0
        ? grownWords(
            grownTo(
              arranged.drifts.map((d) => d.taxon),
              years,
            ),
          )
        : undefined,
    [arranged.drifts, years],
  )
  const isWinter = isWinterAt(on, year)
  return (
    <div className="from-path">
      <div className="rework-tools" role="group" aria-label="When and from where">
        <WeekSlider moment={moment} />
        <YearChoice years={years} onYears={(growth) => look({ growth })} />
        <SideChoice sides={ground.viewedFrom} fromDeg={fromDeg} onSide={(side) => look({ side })} />
        <label>
          <small>from </small>
          <Figure
            label="From how far it is looked at, metres"
            value={Math.round(10 * awayM) / 10}
            min={1}
            max={60}
            step={0.5}
            unit="m"
            onSay={(v) => look({ away: String(v) })}
          />
        </label>
      </div>
      <FrontView
        {...{ outline, plants, beyond, standpoint, on, year, years, isWinter, chosen }}
        features={view.features}
        label={`${ground.of.place.name} as it is seen from the path in the week of ${dayMonth(on)}, ${years === 1 ? 'one year' : `${years} years`} after planting`}
      />
      {isCarriedOut && (
        <PhotoBeside
          placeId={ground.of.place.id}
          photoId={at.photo}
          years={GROWTH_YEARS}
          plantedOn={min(
            view.plantings.filter((p) => plantedIds.includes(p.id)),
            (p) => p.inPlaceSince,
          )}
          onChoose={look}
        />
      )}
      <Hidden
        {...{ outline, plants, beyond, standpoint, on, year, years, chosen }}
        features={view.features}
        isLaid={arranged.has.some((k) => k >= 0)}
        grown={grown}
      />
    </div>
  )
}

/** What is hidden of the kinds, the most first. */
const Hidden = memo(function Hidden({
  outline,
  plants,
  features,
  beyond,
  chosen,
  isLaid,
  grown,
  standpoint,
  on,
  year,
  years,
}: {
  outline: readonly Point[]
  plants: readonly StandingPlant[]
  isLaid: boolean
  grown: string | undefined
} & Pick<
  React.ComponentProps<typeof FrontView>,
  'features' | 'beyond' | 'standpoint' | 'on' | 'year' | 'years' | 'chosen'
>) {
  const [at, settle] = useState({ standpoint, on, year, years })
  useEffect(() => {
    const timer = setTimeout(() => settle({ standpoint, on, year, years }), RESTS_MS)
    return () => clearTimeout(timer)
  }, [standpoint, on, year, years])
  const view = useMemo(
    () => frontView(outline, plants, at.standpoint, at, { features, beyond }),
    [outline, plants, features, beyond, at],
  )
  const hidden = useMemo(() => {
    // By kind: what is hidden of one drift may be seen of another.
    const shares = seenShares(view, (p) => p.taxon.botanical)
    const commonOf = new Map(plants.map((p) => [p.taxon.botanical, p.taxon.common]))
    return [...shares]
      .sort((a, b) => (hiddenShare(b[1]) ?? 0) - (hiddenShare(a[1]) ?? 0))
      .flatMap(([kind, share]) => hiddenWords(commonOf.get(kind)!, share) ?? [])
  }, [plants, view])
  const own = useMemo(() => {
    const taxon = plants.find((p) => p.groupId === chosen)?.taxon
    const share = taxon && seenShares(view, (p) => p.groupId).get(chosen!)
    return share && ownHiddenWords(taxon.common, share)
  }, [plants, view, chosen])
  return (
    <p className="rework-under" aria-live="polite">
      {grown && `${years === 1 ? 'A year' : `${years} years`} on, ${grown}. `}
      {!isLaid && <span className="soft">Nothing is laid out yet: what stays is seen alone. </span>}
      {own && <b>{own}. </b>}
      {hidden.length === 0
        ? `Nothing that stands in ${monthName(at.on)} is hidden by what is before it.`
        : `Hidden in ${monthName(at.on)}: ${hidden.slice(0, MOST_SAID).join(', ')}${hidden.length > MOST_SAID ? ` and something of ${hidden.length - MOST_SAID} more` : ''}.`}
    </p>
  )
})

/** Kinds of which it is said. */
const MOST_SAID = 4
