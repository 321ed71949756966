import type { ContainersView } from '@border/contract'
import {
  inFullGrowth,
  portraitOf,
  usualYearAt,
  vesselOf,
  type FillSeason,
  type IsoDate,
  type Portrait,
  type PottedPlant,
  type Taxon,
  type Vessel,
  type Year,
} from '@border/core'
import { max } from 'd3-array'
import { useMemo } from 'react'
import { useGardenContext } from '../frame/gardenContext.ts'
import type { PortraitFrame } from './PotPortrait.tsx'

/** A planting of a container for as long as it stood there; `until` null: it still does. */
export type PottedStay = PottedPlant & { until: IsoDate | null }

/** A container of the row. */
export interface RowPot {
  id: string
  name: string
  vessel: Vessel
  /** What grows in it now. */
  plants: readonly PottedPlant[]
  /** And what has grown in it. */
  stays: readonly PottedStay[]
  /** At its fullest. */
  fullest: Portrait
}

const ROW_HEIGHT = 300
/** Of the picture below the feet, and free above the tallest. */
const FLOOR = 28
const ABOVE = 12
const MOST_PX_PER_M = 190

/** The containers of a garden side by side, to one scale. */
export function usePotRow(
  { pots: found }: ContainersView,
  taxa: readonly Taxon[],
): { pots: RowPot[]; frame: PortraitFrame; year: Year } {
  const { view, standing, today } = useGardenContext()
  const year = useMemo(
    () => usualYearAt(view.climate, view.garden.latitude),
    [view.climate, view.garden.latitude],
  )
  return useMemo(() => {
    const taxonOf = new Map(taxa.map((t) => [t.botanical, t]))
    const pots = standing
      .filter((f) => f.kind === 'container')
      .map((f): RowPot => {
        const vessel = vesselOf(f)
        const plants = view.plantings
          .filter((p) => p.placeId === f.id && p.livingCount > 0)
          .map(({ id, taxon, livingCount, role, plantedOn }) => ({
            id,
            taxon,
            count: livingCount,
            role,
            plantedOn,
          }))
        const past = (found.find((p) => p.id === f.id)?.fills ?? []).flatMap((fill) =>
          fill.plants.flatMap(({ plantingId, botanical, count, role, from, until }): PottedStay[] => {
            const taxon = taxonOf.get(botanical)
            return taxon && until !== null
              ? [{ id: plantingId, taxon, count, role, plantedOn: from, until }]
              : []
          }),
        )
        // One that stood through two fills is told of with both.
        const once = new Map(past.map((p) => [p.id, p]))
        const stays = [...once.values(), ...plants.map((p) => ({ ...p, until: null }))]
        const fullest = portraitOf(vessel, plants, { on: fullestFor(plants, today, year), year })
        return { id: f.id, name: f.name, vessel, plants, stays, fullest }
      })
    return { pots, frame: frameFor(pots.map((p) => p.fullest)), year }
  }, [standing, view.plantings, found, taxa, today, year])
}

/** What stands in a container on a day: what stood there then, and of days ahead what stands there now. */
export const standingOn = (stays: readonly PottedStay[], on: IsoDate): PottedPlant[] =>
  stays.filter((p) => p.plantedOn <= on && (p.until === null || on < p.until))

/** In full growth of a year, or of the next where something of it was planted after that. */
export function fullestFor(plants: readonly PottedPlant[], on: IsoDate, year: Year): IsoDate {
  const latest = max(plants, (p) => p.plantedOn) ?? ''
  const inYear = `${on.slice(0, 4)}${inFullGrowth(year).slice(4)}`
  return inYear >= latest ? inYear : `${Number(on.slice(0, 4)) + 1}${inYear.slice(4)}`
}

/** A day on which what is filled in on another is at its best: in full growth, or in spring what was for winter. */
export function bestAfter(on: IsoDate, season: FillSeason, year: Year): IsoDate {
  const best = season === 'summer' ? inFullGrowth(year).slice(4) : year.south ? '-10-20' : '-04-20'
  const thisYear = `${on.slice(0, 4)}${best}`
  return thisYear > on ? thisYear : `${Number(on.slice(0, 4)) + 1}${best}`
}

/** As large as lets the tallest of them be seen whole. */
export function frameFor(portraits: readonly Portrait[]): PortraitFrame {
  const tallest = Math.max(0.6, ...portraits.map((p) => p.topM))
  const pxPerM = Math.min(MOST_PX_PER_M, (ROW_HEIGHT - FLOOR - ABOVE) / tallest)
  return { pxPerM, height: ROW_HEIGHT, floor: ROW_HEIGHT - FLOOR }
}
