import type { UseQueryResult } from '@tanstack/react-query'
import { useEffect, useEffectEvent, useState } from 'react'
import { ApiError, isRefusal, nobodyAnswered } from '../api/client.ts'
import { errorText } from '../api/writes.ts'
import { useSyncState } from '../offline/useSync.ts'
import { Button } from './Button.tsx'
import { ScreenHead } from './ScreenHead.tsx'
import { momentText } from './words.ts'

type Answers<Q extends readonly UseQueryResult<unknown>[]> = {
  [I in keyof Q]: Q[I] extends UseQueryResult<infer T> ? T : never
}

/**
 * What is shown of answers of the server, in whatever state they are: being asked for, refused, there, or kept from before while
 * nobody can say whether they still hold.
 *
 * @param title of a whole screen: its head stays while there is nothing to show under it
 * @param around of a whole page: what a failure is shown in
 * @param waiting said while they are being worked out, where that may take long
 * @param quiet of a part that is nothing until it has something to say: only a failure shows
 */
export function Answered<const Q extends readonly UseQueryResult<unknown>[]>({
  of,
  title,
  around = (failed) => failed,
  waiting,
  quiet = false,
  children,
}: {
  of: Q
  title?: string
  around?: (failed: React.ReactNode) => React.ReactNode
  waiting?: React.ReactNode
  quiet?: boolean
  children: (...answers: Answers<Q>) => React.ReactNode
}) {
  const { offline } = useSyncState()
  const head = title && <ScreenHead title={title} />
  const again = () => of.forEach((q) => q.error && void q.refetch())
  const isThere = of.every((q) => q.data !== undefined)
  const failed = of.find((q) => q.error && (q.data === undefined || isRefusal(q.error)))
  const error = useLasting(failed?.error, isThere)
  if (error)
    return around(
      <>
        {head}
        <Failed error={error} onAgain={again} />
      </>,
    )
  if (!isThere)
    return quiet ? null : (
      <>
        {head}
        <Waiting>{waiting}</Waiting>
      </>
    )
  const stale = of.find((q) => q.error)
  return (
    <>
      {stale && !offline && <Stale error={stale.error} since={stale.dataUpdatedAt} onAgain={again} />}
      {children(...(of.map((q) => q.data) as Answers<Q>))}
    </>
  )
}

/** What failed, and while it is asked for again that nobody answered before: a screen does not flicker for as long as nobody does. */
function useLasting(error: Error | null | undefined, isThere: boolean): Error | undefined {
  const [last, setLast] = useState<Error>()
  const lasts = error ?? (isThere || !nobodyAnswered(last) ? undefined : last)
  if (lasts !== last) setLast(lasts)
  return lasts
}

/** Something is being asked for. */
export function Waiting({ children }: { children?: React.ReactNode }) {
  return (
    <div className="waiting" role="status">
      {children ? <p className="soft">{children}</p> : <i className="turning" aria-hidden />}
      <span className="visually-hidden">Loading</span>
    </div>
  )
}

/** Where nobody answers it is asked again so often. */
const AGAIN_MS = 4_000

/** Something was asked for and cannot be shown. */
export function Failed({ error, onAgain }: { error: unknown; onAgain?: () => void }) {
  const goesOn = onAgain !== undefined && nobodyAnswered(error)
  const ask = useEffectEvent(() => onAgain?.())
  useEffect(() => {
    if (!goesOn) return
    const timer = setInterval(() => ask(), AGAIN_MS)
    return () => clearInterval(timer)
  }, [goesOn])
  return (
    <div className="state-failed" role="alert">
      <p>{askedText(error)}</p>
      {goesOn && <p className="soft">This page goes on by itself as soon as somebody answers.</p>}
      {onAgain && !isRefusal(error) && <Button onClick={onAgain}>Try again</Button>}
    </div>
  )
}

/** There is nothing to show yet: said with what would change that. */
export const Empty = ({ children }: { children: React.ReactNode }) => (
  <div className="empty-words">{children}</div>
)

/** What is shown is from before, and asking again has failed. */
function Stale({ error, since, onAgain }: { error: unknown; since: number; onAgain: () => void }) {
  return (
    <p className="state-stale" role="status">
      This is as of {momentText(new Date(since).toISOString())}. {askedText(error)}{' '}
      <Button size="small" onClick={onAgain}>
        Try again
      </Button>
    </p>
  )
}

/** Shown over every screen while nobody answers: what is seen is what the device was told last. */
export function Offline({ since }: { since: number }) {
  const { offline } = useSyncState()
  if (!offline) return null
  return (
    <p className="state-stale" role="status">
      The record cannot be reached. What you see was read {momentText(new Date(since).toISOString())}.
    </p>
  )
}

/** Of something that was only asked for, nothing could be saved or lost. */
const askedText = (error: unknown): string =>
  error instanceof ApiError ? errorText(error) : 'Something went wrong here.'
