import { useEffect, useSyncExternalStore } from 'react'
import { onSync, startSync, syncState } from './sync.ts'

/** How the sending of what waits stands. */
export const useSyncState = () => useSyncExternalStore(onSync, syncState)

/** Sends what a person has waiting for as long as the application is open. */
export function useSending(personId: string | undefined): void {
  useEffect(() => (personId ? startSync(personId) : undefined), [personId])
}
