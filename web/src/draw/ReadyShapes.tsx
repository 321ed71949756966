import { readyShape, readyShapes, type ReadyShape } from '@border/core'
import { useState } from 'react'
import { Button } from '../frame/Button.tsx'
import { Choose } from '../frame/Choose.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { gardenExtent } from '../plan/scale.ts'
import { drawnAs, type Draft } from './draft.ts'
import type { Editor } from './useEditor.ts'
import { QuantityInput } from '../units/QuantityInput.tsx'

/** Shapes that come ready: two sizes typed, then moved to where it lies. */
export function ReadyShapes({ editor, draft }: { editor: Editor; draft: Draft }) {
  const { view } = useGardenContext()
  const [shape, setShape] = useState<ReadyShape>('rectangle')
  const [lengthM, setLength] = useState(4)
  const [widthM, setWidth] = useState(2)
  const put = () => {
    const { minX, maxX, minY, maxY } = gardenExtent(view.features)
    const handles = readyShape(shape, [(minX + maxX) / 2, (minY + maxY) / 2], lengthM, widthM)
    editor.step(drawnAs(draft, { handles, closed: true }))
  }
  const isCircle = shape === 'circle'
  return (
    <section className="draw-corners" aria-label="Ready shapes">
      <h3>A ready shape</h3>
      <div className="row">
        <Choose<ReadyShape>
          label="Ready shape"
          value={shape}
          onChange={setShape}
          options={readyShapes.map((s) => ({ value: s, label: s }))}
        />
        <QuantityInput
          aria-label={isCircle ? 'Across' : 'Length of the shape'}
          value={lengthM}
          min={0.2}
          max={200}
          step={0.1}
          suffix="m"
          onChange={(v) => v && setLength(v)}
        />
        {!isCircle && (
          <QuantityInput
            aria-label="Width of the shape"
            value={widthM}
            min={0.2}
            max={200}
            step={0.1}
            suffix="m"
            onChange={(v) => v && setWidth(v)}
          />
        )}
        <Button size="small" onClick={put}>
          Draw it
        </Button>
      </div>
      <small>Then drag it where it lies, or draw it by its corners below.</small>
    </section>
  )
}
