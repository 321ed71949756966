import type { WalkView } from '@border/contract'
import { Answered, Empty } from '../frame/Answered.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { useWalk } from './queries.ts'

/** A screen of the walk, for those who may note one. */
export function ForWalkers({
  title,
  children,
}: {
  title: string
  children: (walk: WalkView) => React.ReactNode
}) {
  const { view, isCrew } = useGardenContext()
  const walk = useWalk(view.garden.id)
  if (!isCrew) return <Empty>Walks are noted by the crew and the head gardener of this garden.</Empty>
  return (
    <Answered of={[walk]} title={title}>
      {children}
    </Answered>
  )
}
