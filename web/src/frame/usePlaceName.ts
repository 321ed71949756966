import { useMemo } from 'react'
import { useGardenContext } from './gardenContext.ts'

/** The name of a place or anything else on the plan by its id, gone or not; other words where there is none. */
export function usePlaceName(): (id: string | null | undefined, otherwise?: string) => string {
  const { view } = useGardenContext()
  const names = useMemo(() => new Map(view.features.map((f) => [f.id, f.name])), [view.features])
  return (id, otherwise = 'a place') => (id ? names.get(id) : undefined) ?? otherwise
}
