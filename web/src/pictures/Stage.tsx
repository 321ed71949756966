import type { Extent } from '@border/core'
import { useSize, type Size } from '../frame/useSize.ts'
import { useViewport, type Viewport } from '../plan/useViewport.ts'
import { ZoomTools } from '../plan/ZoomTools.tsx'
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
        <ZoomTools viewport={viewport} of={what} whole={`Whole ${what}`} />
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
