import type { GardenView } from '@border/contract'
import {
  inFullGrowth,
  portraitOf,
  usualYearAt,
  vesselOf,
  type IsoDate,
  type Portrait,
  type PottedPlant,
  type Vessel,
  type Year,
} from '@border/core'
import { useMemo } from 'react'
import { useGardenContext } from '../frame/gardenContext.ts'
import type { PortraitFrame } from './PotPortrait.tsx'

/** A container of the row. */
export interface RowPot {
  id: string
  name: string
  vessel: Vessel
  plants: readonly PottedPlant[]
  /** At its fullest. */
  fullest: Portrait
}

const ROW_HEIGHT = 264
/** Of the picture below the feet, and free above the tallest. */
const FLOOR = 26
const ABOVE = 12
const MOST_PX_PER_M = 190

/** The plants of a container as they are drawn. */
export const pottedOf = (plantings: GardenView['plantings'], containerId: string): PottedPlant[] =>
  plantings
    .filter((p) => p.placeId === containerId && p.livingCount > 0)
    .map((p) => ({ id: p.id, taxon: p.taxon, count: p.livingCount, role: p.role, plantedOn: p.plantedOn }))

/** The containers of a garden side by side, to one scale. */
export function usePotRow(): { pots: RowPot[]; frame: PortraitFrame; year: Year } {
  const { view, standing } = useGardenContext()
  const year = useMemo(
    () => usualYearAt(view.climate, view.garden.latitude),
    [view.climate, view.garden.latitude],
  )
  return useMemo(() => {
    const pots = standing
      .filter((f) => f.kind === 'container')
      .map((f): RowPot => {
        const vessel = vesselOf(f)
        const plants = pottedOf(view.plantings, f.id)
        return {
          id: f.id,
          name: f.name,
          vessel,
          plants,
          fullest: portraitOf(vessel, plants, { on: fullestFor(plants, year), year }),
        }
      })
    return { pots, frame: frameFor(pots.map((p) => p.fullest)), year }
  }, [standing, view.plantings, year])
}

/** In full growth, and after all of it was planted. */
export function fullestFor(plants: readonly PottedPlant[], year: Year): IsoDate {
  const latest = plants.reduce<IsoDate>((day, p) => (p.plantedOn > day ? p.plantedOn : day), '2000-01-01')
  const usual = inFullGrowth(year)
  const inYear = `${latest.slice(0, 4)}${usual.slice(4)}`
  return inYear >= latest ? inYear : `${Number(latest.slice(0, 4)) + 1}${usual.slice(4)}`
}

/** As large as lets the tallest of them be seen whole. */
export function frameFor(portraits: readonly Portrait[]): PortraitFrame {
  const tallest = Math.max(0.6, ...portraits.map((p) => p.topM))
  const pxPerM = Math.min(MOST_PX_PER_M, (ROW_HEIGHT - FLOOR - ABOVE) / tallest)
  return { pxPerM, height: ROW_HEIGHT, floor: ROW_HEIGHT - FLOOR }
}
