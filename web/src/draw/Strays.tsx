import type { PlantingView } from '@border/contract'
import { counted, type Strayed } from '@border/core'
import { Button } from '../frame/Button.tsx'
import { metresText } from '../frame/words.ts'
import { setInside, type Draft } from './draft.ts'
import type { Editor } from './useEditor.ts'
import { KindName } from '../frame/KindName.tsx'

/** Plantings that the new outline leaves outside: shown first, and said where they stand. */
export function Strays({
  editor,
  draft,
  strays,
}: {
  editor: Editor
  draft: Draft
  strays: readonly Strayed<PlantingView>[]
}) {
  return (
    <section className="draw-corners" aria-label="Plants outside">
      <h3>{counted(strays.length, 'planting')} would stand outside</h3>
      <ul className="plain-list">
        {strays.map(({ planting, inside }) => (
          <li key={planting.id}>
            {planting.tag} <KindName of={planting.taxon} isShort />,{' '}
            {metresText(Math.hypot(inside[0] - planting.x, inside[1] - planting.y))} from inside
          </li>
        ))}
      </ul>
      <div className="row">
        <Button size="small" onClick={() => editor.step(setInside(draft, strays))}>
          Put them just inside
        </Button>
        {editor.undo && (
          <Button size="small" onClick={editor.undo}>
            Take the last step back
          </Button>
        )}
      </div>
      <small>Or move a corner until they are in, or move them under Plants first.</small>
    </section>
  )
}
