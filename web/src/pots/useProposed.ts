import { useState } from 'react'
import type { Remote } from 'comlink'
import type { ProposalAsked } from '@border/core'
import { workers } from '../frame/workers.ts'
import type { ProposalWorker } from './proposalWorker.ts'

const proposing = workers<ProposalWorker, string>(
  () => new Worker(new URL('./proposalWorker.ts', import.meta.url), { type: 'module' }),
  'The proposals could not be worked out.',
)

/**
 * Something proposed by the worker once it is asked for.
 *
 * @param use what it is of: each has a worker of its own
 * @param asked what was found for anything else says nothing of this
 */
export function useProposed<T>(
  use: string,
  asked: Pick<ProposalAsked, 'have'>,
  ask: (worker: Remote<ProposalWorker>) => Promise<T>,
): { found: T | undefined; failed: boolean; isWaiting: boolean; ask: () => void } {
  const [state, setState] = useState<{ of: string; found?: T; failed?: true }>()
  const of = JSON.stringify({ ...asked, have: [...asked.have] })
  const now = state?.of === of ? state : undefined
  return {
    found: now?.found,
    failed: now?.failed ?? false,
    isWaiting: now !== undefined && now.found === undefined && !now.failed,
    ask: () => {
      setState({ of })
      proposing(use, ask)
        .then((found) => setState({ of, found }))
        .catch(() => setState({ of, failed: true }))
    },
  }
}
