import {
  listed,
  portraitOf,
  type FillSeason,
  type IsoDate,
  type Potted,
  type ProposalAsked,
} from '@border/core'
import type { Sprites } from '../frontView/sprites.ts'
import { PotPortrait } from './PotPortrait.tsx'
import { bestAfter, frameFor } from './usePotRow.ts'

const SMALL = 0.55

/** What is to go into a container, in words: `1 sweet box and 3 primrose`. */
export const namesOf = (potted: readonly Potted[]): string =>
  listed(potted.map((p) => `${p.count} ${p.taxon.common}`))

/** A filling that is proposed, small, as it would be at its best. */
export function SmallPortrait({
  potted,
  on,
  season,
  label,
  asked: { vessel, year },
  sprites,
}: {
  potted: readonly Potted[]
  /** The day it is filled. */
  on: IsoDate
  season: FillSeason
  label: string
  asked: Pick<ProposalAsked, 'vessel' | 'year'>
  sprites: Sprites
}) {
  const plants = potted.map((p) => ({ ...p, id: p.taxon.botanical, plantedOn: on }))
  const portrait = portraitOf(vessel, plants, { on: bestAfter(on, season, year), year })
  const { height, floor, pxPerM } = frameFor([portrait])
  return (
    <PotPortrait
      {...{ portrait, sprites, label }}
      wideM={portrait.wideM}
      frame={{ height: SMALL * height, floor: SMALL * floor, pxPerM: SMALL * pxPerM }}
    />
  )
}
