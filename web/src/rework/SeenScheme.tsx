import {
  dayMonth,
  frontView,
  grownTo,
  grownWords,
  hiddenShare,
  hiddenWords,
  isWinterAt,
  monthName,
  ownHiddenWords,
  placeOutline,
  seenShares,
  type Point,
  type StandingPlant,
  type Standpoint,
} from '@border/core'
import { memo, useEffect, useMemo, useState } from 'react'
import { RESTS_MS } from '../frame/address.ts'
import { useGardenContext } from '../frame/gardenContext.ts'
import { FrontView } from '../frontView/FrontView.tsx'
import type { Moment } from './useMoment.tsx'
import { useBeyond, type Grown, type Laid } from './useStanding.ts'
import './rework.css'

interface Props {
  laid: Laid
  /** It as it stands at that moment. */
  grown: Grown
  standpoint: Standpoint
  moment: Moment
  /** The drift in hand. */
  chosen?: string | undefined
  /** What it is called, where others stand beside it. */
  name?: string | undefined
  /** What comes between the picture and what is said of it. */
  children?: React.ReactNode
}

/** A scheme as it is seen from where somebody stands, with how it has grown and what is hidden of it. */
export function SeenScheme({
  laid: { ground, arranged },
  grown: { standing, fillers },
  standpoint,
  moment,
  chosen,
  name,
  children,
}: Props) {
  const { view } = useGardenContext()
  const { years, on, year } = moment
  const { place } = ground.of
  const plants = useMemo(() => [...standing, ...fillers], [standing, fillers])
  const beyond = useBeyond(place.id)
  const outline = useMemo(() => placeOutline(place), [place])
  const closed = useMemo(
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
  return (
    <>
      <FrontView
        {...{ outline, plants, beyond, standpoint, on, year, years, chosen }}
        isWinter={isWinterAt(on, year)}
        features={view.features}
        label={`${name ? `${name}: ` : ''}${place.name} as it is seen from the path in the week of ${dayMonth(on)}, ${years === 1 ? 'one year' : `${years} years`} after planting`}
      />
      {children}
      <Hidden
        {...{ outline, plants, standpoint, on, year, years, chosen, closed }}
        features={view.features}
        isLaid={arranged.has.some((k) => k >= 0)}
      />
    </>
  )
}

/** What is hidden of the kinds, the most first. */
const Hidden = memo(function Hidden({
  outline,
  plants,
  features,
  chosen,
  isLaid,
  closed,
  standpoint,
  on,
  year,
  years,
}: {
  outline: readonly Point[]
  plants: readonly StandingPlant[]
  isLaid: boolean
  /** How far its kinds have grown together. */
  closed: string | undefined
} & Pick<
  React.ComponentProps<typeof FrontView>,
  'features' | 'standpoint' | 'on' | 'year' | 'years' | 'chosen'
>) {
  const [at, settle] = useState({ standpoint, on, year, years })
  useEffect(() => {
    const timer = setTimeout(() => settle({ standpoint, on, year, years }), RESTS_MS)
    return () => clearTimeout(timer)
  }, [standpoint, on, year, years])
  const view = useMemo(
    () => frontView(outline, plants, at.standpoint, at, { features }),
    [outline, plants, features, at],
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
      {closed && `${years === 1 ? 'A year' : `${years} years`} on, ${closed}. `}
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
