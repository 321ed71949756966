import type { Meanwhile } from '@border/contract'
import { useEffect, useRef, useSyncExternalStore } from 'react'
import { Button } from './Button.tsx'
import './meanwhile.css'
import { momentText } from './words.ts'

interface Asked {
  id: number
  meanwhile: Meanwhile
  answer: (mine: boolean) => void
}

let waiting: readonly Asked[] = []
let last = 0
const listeners = new Set<() => void>()
function show(next: readonly Asked[]): void {
  waiting = next
  listeners.forEach((tell) => tell())
}

/**
 * Shows what somebody else has changed since it was seen, and asks what is to stand.
 *
 * @returns whether one's own change is made all the same
 */
export const askMeanwhile = (meanwhile: Meanwhile): Promise<boolean> =>
  new Promise((resolve) => {
    const asked: Asked = {
      id: ++last,
      meanwhile,
      answer: (mine) => {
        show(waiting.filter((w) => w !== asked))
        resolve(mine)
      },
    }
    show([...waiting, asked])
  })

/** Where it is asked, one at a time, over whatever screen is open. */
export function MeanwhileAsked() {
  const [asked] = useSyncExternalStore(
    (tell) => {
      listeners.add(tell)
      return () => listeners.delete(tell)
    },
    () => waiting,
  )
  // What is asked by an application that is gone is answered by nobody: nothing more is changed.
  useEffect(() => () => waiting.forEach((w) => w.answer(false)), [])
  return asked && <Question key={asked.id} {...asked} />
}

function Question({ meanwhile: { by, at, says }, answer }: Asked) {
  const dialog = useRef<HTMLDialogElement>(null)
  useEffect(() => dialog.current?.showModal(), [])
  return (
    <dialog
      ref={dialog}
      className="meanwhile"
      aria-labelledby="meanwhile-title"
      onCancel={(e) => {
        e.preventDefault()
        answer(false)
      }}
    >
      <h2 id="meanwhile-title">Changed meanwhile</h2>
      <p>
        Since you looked at it {by ?? 'somebody'} has changed this{at && ` (${momentText(at)})`}:
      </p>
      <ul>
        {says.map((s) => (
          <li key={s}>{s}</li>
        ))}
      </ul>
      <p className="soft">Your own change is not made yet.</p>
      <div className="row">
        <Button onClick={() => answer(false)}>Leave it as it stands</Button>
        <Button onClick={() => answer(true)}>Make my change all the same</Button>
      </div>
    </dialog>
  )
}
