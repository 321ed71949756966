import { Button } from './Button.tsx'

/** Steps taken back and done again, as far as there are any. */
export const UndoRedo = ({
  undo,
  redo,
}: {
  undo: (() => void) | undefined
  redo: (() => void) | undefined
}) => (
  <>
    <Button size="small" disabled={!undo} onClick={undo}>
      Undo
    </Button>
    <Button size="small" disabled={!redo} onClick={redo}>
      Redo
    </Button>
  </>
)
