import type { RecordNames } from '@border/core'
import { usePlaceName } from '../frame/usePlaceName.ts'

/** How places and taxa are called where the record speaks of them. */
export function useRecordNames(): RecordNames {
  const place = usePlaceName()
  return { place: (id) => place(id), taxon: (botanical) => botanical }
}
