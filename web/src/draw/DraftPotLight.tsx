import { placeOf } from '@border/core'
import { useGardenContext } from '../frame/gardenContext.ts'
import { LightAt } from '../pots/LightAt.tsx'
import { inHand, pointNow, type Draft } from './draft.ts'

/** The light of a pot where it is put, following it while it is dragged, and how what grows in it would like that. */
export function DraftPotLight({ draft }: { draft: Draft }) {
  const { view } = useGardenContext()
  const { id, now } = inHand(draft)
  const at = pointNow(draft)
  const place = now && at && placeOf({ ...now, id })
  if (place?.kind !== 'container') return null
  const taxa = view.plantings.filter((p) => p.placeId === id).map((p) => p.taxon)
  return <LightAt at={at!} rimHeightM={place.rimHeightM} taxa={taxa} />
}
