import type { Extent } from '@border/core'
import { capitalised } from '@border/core'
import { Button } from '../frame/Button.tsx'
import { useSize, type Size } from '../frame/useSize.ts'
import { useViewport, ZOOM_STEP, type Viewport } from '../plan/useViewport.ts'
import './pictures.css'

export interface Staged {
  viewport: Viewport
  size: Size
}

interface Props {
  /** What is looked about on, in a word. */
  what: string
  whole: Extent
  /** Drawn once there is room. */
  draw: (staged: Staged) => React.ReactNode
  tools?: (staged: Staged) => React.ReactNode
  className?: string
}

/** Something to look about on, with the buttons for it. */
export function Stage({ what, whole, draw, tools, className }: Props) {
  const [ref, size] = useSize()
  const viewport = useViewport(whole, size)
  return (
    <div className="marked-picture">
      <div className="row">
        <Button
          size="small"
          aria-label={`${capitalised(what)} closer`}
          onClick={() => viewport.zoom(ZOOM_STEP)}
        >
          +
        </Button>
        <Button
          size="small"
          aria-label={`${capitalised(what)} further away`}
          onClick={() => viewport.zoom(1 / ZOOM_STEP)}
        >
          −
        </Button>
        <Button size="small" onClick={() => viewport.fit()}>
          Whole {what}
        </Button>
        <Within viewport={viewport} size={size} draw={tools} />
      </div>
      <div className="marked-stage" ref={ref}>
        {size.width > 0 && (
          <div className={`marked-canvas${className ? ` ${className}` : ''}`} {...viewport.hands}>
            <Within viewport={viewport} size={size} draw={draw} />
          </div>
        )}
      </div>
    </div>
  )
}

const Within = ({ draw, ...staged }: Staged & { draw: Props['tools'] }) => draw?.(staged)
