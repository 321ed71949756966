import {
  addDays,
  EYE_M,
  GROWTH_YEARS,
  USUAL_AWAY_M,
  usualYearAt,
  yearOf,
  type IsoDate,
  type Standpoint,
  type Year,
} from '@border/core'
import { useMemo } from 'react'
import { useRestedParams } from '../frame/address.ts'
import { Choose } from '../frame/Choose.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { LAST_WEEK, weekOf } from '../frame/WeekSlider.tsx'

const USUAL_YEARS = 3

/** The week and the year of growth at which a scheme is looked at, and from where: in the hand at once, in the address once that rests. */
export interface Moment {
  week: number
  years: number
  /** The middle of that week, in the year that it lies in. */
  on: IsoDate
  /** The usual year of the garden. */
  year: Year
  at: ReturnType<typeof useRestedParams<'week' | 'growth' | 'side' | 'away' | 'photo'>>[0]
  look: ReturnType<typeof useRestedParams<'week' | 'growth' | 'side' | 'away' | 'photo'>>[1]
}

export function useMoment(): Moment {
  const { view, on: today } = useGardenContext()
  const [at, look] = useRestedParams(['week', 'growth', 'side', 'away', 'photo'])
  const week = clamped(at.week, weekOf(today), 0, LAST_WEEK)
  const years = GROWTH_YEARS.find((y) => String(y) === at.growth) ?? USUAL_YEARS
  const on = addDays(`${yearOf(today) + years}-01-01`, 7 * week + 3)
  const year = useMemo(
    () => usualYearAt(view.climate, view.garden.latitude),
    [view.climate, view.garden.latitude],
  )
  return { week, years, on, year, at, look }
}

/** Where somebody stands who looks at a bed at that moment: at the side in hand, else at its first, as far away as they said. */
export function useStandpoint(
  { at }: Pick<Moment, 'at'>,
  sides: readonly number[],
  seenFromM: number | null,
): Standpoint {
  const fromDeg = sides.includes(Number(at.side)) ? Number(at.side) : (sides[0] ?? 180)
  const awayM = clamped(at.away, seenFromM ?? USUAL_AWAY_M, 1, 60)
  return useMemo(() => ({ fromDeg, awayM, eyeM: EYE_M }), [fromDeg, awayM])
}

/** What sees the moment: nothing else is drawn anew while the hand goes through the weeks. */
export function AtMoment({ children }: { children: (moment: Moment) => React.ReactNode }) {
  return children(useMoment())
}

/** The year of growth, by choice. */
export const YearChoice = ({ years, onYears }: { years: number; onYears: (years: string) => void }) => (
  <Choose
    label="Year of growth"
    value={String(years)}
    options={GROWTH_YEARS.map((y) => ({ value: String(y), label: `year ${y}` }))}
    onChange={onYears}
  />
)

/** From which side it is seen; nothing where there is one alone. */
export const SideChoice = ({
  sides,
  fromDeg,
  onSide,
}: {
  sides: readonly number[]
  fromDeg: number
  onSide: (fromDeg: string) => void
}) =>
  sides.length > 1 && (
    <Choose
      label="Seen from which side"
      value={String(fromDeg)}
      options={sides.map((d, i) => ({
        value: String(d),
        label: i === 0 ? 'from the first side' : 'from the other side',
      }))}
      onChange={onSide}
    />
  )

function clamped(said: string | undefined, otherwise: number, least: number, most: number): number {
  const value = Number(said)
  return said === undefined || !Number.isFinite(value) ? otherwise : Math.max(least, Math.min(most, value))
}
