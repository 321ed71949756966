import type { Arrangement, BedGround } from '@border/core'
import { proxy, wrap } from 'comlink'
import { useCallback, useEffect, useRef, useState } from 'react'
import { announce } from '../frame/Announced.tsx'
import type { LayoutWorker } from './layoutWorker.ts'

/** Drifts are laid out by a worker of their own: told how far it is, and ended where nobody wants it any more. */
export function useLayingOut(done: (arranged: Arrangement) => void) {
  const [progress, setProgress] = useState<number>()
  const worker = useRef<Worker>(undefined)
  const end = useCallback(() => {
    worker.current?.terminate()
    worker.current = undefined
    setProgress(undefined)
  }, [])
  useEffect(() => end, [end])
  const begin = async (ground: BedGround, arranged: Arrangement, seed: number) => {
    end()
    const own = new Worker(new URL('./layoutWorker.ts', import.meta.url), { type: 'module' })
    worker.current = own
    setProgress(0)
    const isOwn = () => worker.current === own
    const failed = new Promise<never>((_, reject) => {
      own.addEventListener('error', (e) => reject(new Error(e.message || 'The worker failed')))
    })
    try {
      const tell = proxy((share: number) => {
        if (isOwn()) setProgress(share)
      })
      const found = await Promise.race([
        wrap<LayoutWorker>(own).arrange(ground, arranged, seed, tell),
        failed,
      ])
      if (!isOwn()) return
      end()
      done(found)
    } catch {
      if (!isOwn()) return
      end()
      announce.failed('It could not be laid out. Nothing was changed.')
    }
  }
  return { progress, begin, stop: end }
}
