import {
  reworkEndpoints,
  type RelocatedView,
  type ReworkView,
  type SaidScheme,
  type SchemeView,
} from '@border/contract'
import {
  type Drift,
  isLaidOut,
  type KindOf,
  opposite,
  type Place,
  placesOn,
  type Point,
  staysOf,
  viewsOf,
  withDrift,
  withMoved,
} from '@border/core'
import { heard } from '../api/answers.ts'
import { ask } from '../api/client.ts'
import type { GardenContext } from '../frame/gardenContext.ts'
import { leavesIn } from './queries.ts'
import { arrangementOf, bedGround, withArrangement, withKind } from './schemeDraft.ts'

/**
 * A scheme of another place with a drift repeated in it: where it is laid out already, opposite to where it stands here; else to be laid
 * out with the rest.
 *
 * @param from the place that it stands in, and the middle of its ground; undefined where it has none yet
 */
export async function repeatedIn(
  { view, today }: Pick<GardenContext, 'view' | 'today'>,
  { rework, scheme }: { rework: ReworkView; scheme: SchemeView },
  drift: Drift,
  from: { place: Place; middle: Point | undefined },
  kindOf: KindOf,
): Promise<{ said: SaidScheme; isPlaced: boolean }> {
  const { said } = scheme
  const place = placesOn(view.features, today).find((p) => p.id === rework.placeId)
  if (!place || !from.middle || !isLaidOut(said))
    return { said: withKind(said, drift.taxon, drift.count, 'library'), isPlaced: false }
  const params = { gardenId: view.garden.id }
  const leaving = leavesIn(said)
  const [ground, relocated] = await Promise.all([
    heard(ask(reworkEndpoints.ground, { params: { ...params, featureId: place.id } })),
    leaving.length > 0
      ? heard(ask(reworkEndpoints.relocate, { params, body: { leaving } }))
      : Promise.resolve<RelocatedView | undefined>(undefined),
  ])
  const stays = staysOf(view.plantings, place.id, said, relocated)
  const bed = bedGround(place, ground, viewsOf(view.features, place.id, said), stays)
  const { arranged } = arrangementOf(bed, said, kindOf)
  const copy: Drift = { id: crypto.randomUUID(), taxon: drift.taxon, count: drift.count }
  const at = opposite(from.place, from.middle, place)
  // It goes where it is put, as by hand: the others make room.
  const next = withMoved(bed, withDrift(bed, arranged, copy, at), copy.id, at)
  return { said: withArrangement(said, bed, next, kindOf), isPlaced: true }
}
