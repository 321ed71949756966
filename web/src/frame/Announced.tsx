import { useEffect, useSyncExternalStore } from 'react'
import './announced.css'

interface Notice {
  id: number
  how: 'done' | 'told' | 'failed'
  words: React.ReactNode
}

const AT_ONCE = 3
const SECONDS = { done: 4, told: 10, failed: 8 }

let notices: readonly Notice[] = []
let last = 0
const listeners = new Set<() => void>()
function show(next: readonly Notice[]): void {
  notices = next
  listeners.forEach((tell) => tell())
}
const take = (id: number) => show(notices.filter((n) => n.id !== id))

function put(how: Notice['how'], words: React.ReactNode, seconds = SECONDS[how]): void {
  // An application that is gone has nobody to say it to; the next one says nothing of it.
  if (listeners.size === 0) return
  const id = ++last
  show([...notices, { id, how, words }].slice(-AT_ONCE))
  if (Number.isFinite(seconds)) setTimeout(() => take(id), seconds * 1000)
}

/** Says over whatever screen is open what has come of something; it goes by itself, or is put away. */
export const announce = {
  done: (words: React.ReactNode): void => put('done', words),
  /** Something worth knowing that came with it. */
  told: (words: React.ReactNode): void => put('told', words),
  failed: (words: React.ReactNode): void => put('failed', words),
  /** Stays until it is put away. */
  untilRead: (words: React.ReactNode): void => put('failed', words, Infinity),
}

/** Where it is said. Read aloud as it comes, a failure at once. */
export function Announced() {
  const shown = useSyncExternalStore(
    (tell) => {
      listeners.add(tell)
      return () => listeners.delete(tell)
    },
    () => notices,
  )
  // What is said of an application that is gone is gone with it.
  useEffect(() => () => show([]), [])
  return (
    <div className="announced" aria-live="polite">
      {shown.map(({ id, how, words }) => (
        <div key={id} className={`notice ${how}`} role={how === 'failed' ? 'alert' : undefined}>
          <div>{words}</div>
          <button type="button" aria-label="Put this message away" onClick={() => take(id)}>
            ×
          </button>
        </div>
      ))}
    </div>
  )
}
