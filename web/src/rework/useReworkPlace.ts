import type { GroundView, SchemeView } from '@border/contract'
import {
  type BedGround,
  type KindOf,
  type Place,
  placesOn,
  plantingM2,
  pocketsOfScheme,
  regionsAt,
  staysOf,
  viewsOf,
} from '@border/core'
import { sum } from 'd3-array'
import { useMemo } from 'react'
import { useGardenContext } from '../frame/gardenContext.ts'
import { useRelocation } from './queries.ts'
import { arrangementOf, bedGround } from './schemeDraft.ts'

/** A bed or pot of the garden as it stands today. */
export function usePlace(placeId: string): Place | undefined {
  const { view, today } = useGardenContext()
  return useMemo(
    () => placesOn(view.features, today).find((p) => p.id === placeId),
    [view.features, today, placeId],
  )
}

/** The ground of a scheme: what stays in it, where it is seen from, and how its drifts lie. */
export function useSchemeGround(
  place: Place,
  ground: GroundView,
  { said, plantedIds }: Pick<SchemeView, 'said' | 'plantedIds'>,
  kindOf: KindOf,
) {
  const { view } = useGardenContext()
  const { plantings, features } = view
  const { leaving, viewedFrom } = said
  const { data: relocated } = useRelocation(view.garden.id, said)
  const stays = useMemo(
    // What was planted by the scheme is drawn as its drifts.
    () => staysOf(plantings, place.id, { leaving }, relocated).filter((p) => !plantedIds.includes(p.id)),
    [plantings, place.id, leaving, relocated, plantedIds],
  )
  const views = useMemo(() => viewsOf(features, place.id, { viewedFrom }), [viewedFrom, features, place.id])
  const bed: BedGround = useMemo(() => bedGround(place, ground, views, stays), [place, ground, views, stays])
  const { arranged, unknown } = useMemo(
    () => arrangementOf(bed, { drifts: said.drifts }, kindOf),
    [bed, said.drifts, kindOf],
  )
  const pockets = useMemo(() => pocketsOfScheme(bed, arranged, said, kindOf), [bed, arranged, said, kindOf])
  const garden = useMemo(
    () => ({ climate: view.climate ?? undefined, regions: regionsAt(view.garden) }),
    [view.climate, view.garden],
  )
  return { bed, arranged, pockets, unknown, garden, staysM2: sum(stays, plantingM2) }
}
