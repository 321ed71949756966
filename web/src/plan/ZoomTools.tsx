import { capitalised } from '@border/core'
import { Button } from '../frame/Button.tsx'
import { ZOOM_STEP, type Viewport } from './useViewport.ts'

interface Props {
  viewport: Viewport
  /** What is looked about on, where there is more than one such thing. */
  of?: string
  /** All of it, in words. */
  whole: string
}

/** Closer, further away, and all of it. */
export function ZoomTools({ viewport, of, whole }: Props) {
  const named = (what: string) => capitalised(of ? `${of} ${what}` : what)
  return (
    <>
      <Button size="small" aria-label={named('closer')} onClick={() => viewport.zoom(ZOOM_STEP)}>
        +
      </Button>
      <Button size="small" aria-label={named('further away')} onClick={() => viewport.zoom(1 / ZOOM_STEP)}>
        −
      </Button>
      <Button size="small" onClick={viewport.fit}>
        {whole}
      </Button>
    </>
  )
}
