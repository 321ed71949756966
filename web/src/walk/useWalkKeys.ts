import { useLayoutEffect } from 'react'
import { useStable } from '../frame/useStable.ts'
import type { Notes } from './useNotes.ts'
import type { Standing, WalkAction } from './walkState.ts'

interface Keys {
  standing: Standing
  openId: string | undefined
  notes: Notes
  dispatch: (action: WalkAction) => void
  go: (placeId: string | undefined) => void
}

/** Everything unremarkable by one key a planting. */
export function useWalkKeys(keys: Keys): void {
  // Keys act from the moment that they are told of on the screen.
  const onKey = useStable((e: KeyboardEvent) => {
    const target = e.target as HTMLElement
    if (e.ctrlKey || e.metaKey || e.altKey || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName)) return
    if (target.closest('[role="slider"], [role="dialog"], [role="combobox"]')) return
    if (act(e.key, keys, target)) e.preventDefault()
  })
  useLayoutEffect(() => {
    document.addEventListener('keydown', onKey)
    return () => document.removeEventListener('keydown', onKey)
  }, [onKey])
}

/** @returns true when the key was one of the walk's */
function act(key: string, keys: Keys, target: HTMLElement): boolean {
  const { standing, openId, notes, dispatch, go } = keys
  if (key === ',' || key === '.') {
    go((key === ',' ? standing.before : standing.next)?.id)
    return true
  }
  const { planting } = standing
  if (!planting) return false
  if (/^[1-5]$/.test(key)) {
    notes.planting(planting.id, { rating: Number(key), absent: false })
    if (openId !== planting.id) step(1, keys)
    return true
  }
  switch (key) {
    case 'ArrowDown':
    case 'ArrowUp':
      step(key === 'ArrowDown' ? 1 : -1, keys)
      return true
    case 'b':
      notes.planting(planting.id, { stage: planting.usualStage, absent: false })
      return true
    case 'x':
      notes.planting(planting.id, { absent: true, stage: undefined, living: undefined, rating: undefined })
      step(1, keys)
      return true
    case 'Enter':
      // A button under the focus means itself.
      if (target.closest('button, a, label')) return false
      dispatch({ do: 'open', plantingId: planting.id, opens: openId !== planting.id })
      return true
    default:
      return false
  }
}

/** To the planting before or after, over the end of a place into the next. */
function step(by: 1 | -1, { standing, dispatch, go }: Keys): void {
  const { place, planting, before, next } = standing
  const to = place.plantings[place.plantings.findIndex((p) => p === planting) + by]
  if (!to) return go((by > 0 ? next : before)?.id)
  dispatch({ do: 'stand at', plantingId: to.id })
  document.getElementById(`walk-${to.id}`)?.scrollIntoView({ block: 'nearest' })
}
