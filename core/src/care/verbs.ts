import type { CareRule, Operation } from './rule.ts'

const verbs: Record<Operation, string> = {
  divide: 'divide',
  move: 'move',
  plant: 'plant',
  prune: 'prune',
  'cut back': 'cut back',
  deadhead: 'deadhead',
  swap: 'swap',
  lift: 'lift',
  protect: 'protect',
  'bring in': 'bring in',
  stake: 'stake',
  'tie in': 'tie in',
  feed: 'feed',
  mulch: 'mulch',
  soil: 'improve',
  weed: 'weed',
  'refresh mix': 'refresh the mix of',
  'pot on': 'pot on',
  upkeep: 'look over',
  prepare: 'prepare',
  remove: 'take out',
  aftercare: 'look after',
  propagate: 'propagate',
}

/** What a rule’s work is called: by its own word, else by its operation’s. */
export const verbOf = ({ verb, operation }: Pick<CareRule, 'verb' | 'operation'>): string =>
  verb ?? verbs[operation]
