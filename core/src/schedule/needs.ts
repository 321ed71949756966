import type { ForbiddenState, Operation } from '../care/index.ts'
import type { WeatherNeed } from '../climate/index.ts'

const byOperation: Partial<Record<Operation, WeatherNeed>> = {
  divide: 'plant',
  move: 'plant',
  plant: 'plant',
  swap: 'plant',
  prepare: 'dig',
  lift: 'dig',
  soil: 'dig',
  weed: 'dig',
  remove: 'dig',
  prune: 'cut',
  'cut back': 'cut',
  mulch: 'lay',
  protect: 'lay',
}

/** The weather that work needs: by what is done, or by what it forbids. */
export function weatherNeedOf(operation: Operation, forbids: readonly ForbiddenState[] = []): WeatherNeed {
  if (forbids.includes('rain') && forbids.includes('wind')) return 'spray'
  return byOperation[operation] ?? (forbids.includes('rain') ? 'cut' : 'none')
}
