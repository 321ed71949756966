import { planEndpoints } from '@border/contract'
import { useGardenWrite } from '../api/writes.ts'
import { Button } from '../frame/Button.tsx'

/** A fill is one change: taken back as one. */
export function TakeBack({ gardenId, editId }: { gardenId: string; editId: string }) {
  const undo = useGardenWrite(planEndpoints.undo, { gardenId, editId }, 'Taken back.')
  return (
    <Button size="small" onClick={() => undo.mutate({})}>
      Take it back
    </Button>
  )
}
