import { planEndpoints, plantingEndpoints, type EditView } from '@border/contract'
import { dayMonthYear } from '@border/core'
import { useAnswer } from '../api/answers.ts'
import { useGardenWrite } from '../api/writes.ts'
import { Answered } from '../frame/Answered.tsx'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { momentText } from '../frame/words.ts'
import { KindName } from '../frame/KindName.tsx'

/** Every change of the plan and of plantings, by whom and when; and what was taken out, to be found again. */
export function Changes() {
  const { view, isHead } = useGardenContext()
  const gardenId = view.garden.id
  const edits = useAnswer(planEndpoints.edits, { params: { gardenId } })
  return (
    <div className="stack">
      {isHead && <Removed />}
      <section aria-label="Changes">
        <h3>Changes</h3>
        <Answered of={[edits]}>
          {(list) =>
            list.length === 0 ? (
              <p className="soft">Nothing has been changed yet.</p>
            ) : (
              <ol className="changes">
                {list.map((edit) => (
                  <Change key={edit.id} edit={edit} />
                ))}
              </ol>
            )
          }
        </Answered>
      </section>
    </div>
  )
}

function Change({ edit }: { edit: EditView }) {
  const { view, isHead } = useGardenContext()
  const undo = useGardenWrite(
    planEndpoints.undo,
    { gardenId: view.garden.id, editId: edit.id },
    'Taken back.',
  )
  return (
    <li className={edit.isUndone ? 'undone' : undefined}>
      {edit.says.map((says) => (
        <p key={says}>{says}</p>
      ))}
      <small>
        {edit.isUndoing && 'Taken back: '}
        {edit.by}, {momentText(edit.at)}
        {edit.from && `; so from ${dayMonthYear(edit.from)}`}
        {edit.isUndone && '; taken back since'}
      </small>
      {isHead && edit.canUndo && (
        <Button size="small" look="text" loading={undo.isPending} onClick={() => undo.mutate({})}>
          Take back
        </Button>
      )}
    </li>
  )
}

/** What was taken out as entered by mistake, and its way back. */
function Removed() {
  const { view } = useGardenContext()
  const gardenId = view.garden.id
  const removed = useAnswer(planEndpoints.removed, { params: { gardenId } })
  const part = useGardenWrite(
    planEndpoints.restore,
    ({ id }: { id: string }) => ({ gardenId, featureId: id }),
    'It is on the plan again.',
  )
  const planting = useGardenWrite(
    plantingEndpoints.restore,
    ({ id }: { id: string }) => ({ gardenId, plantingId: id }),
    'It is in the garden again.',
  )
  return (
    <Answered of={[removed]} quiet>
      {({ parts, plantings }) =>
        parts.length + plantings.length === 0 ? null : (
          <section aria-label="Taken out">
            <h3>Taken out</h3>
            <ul className="changes">
              {parts.map((p) => (
                <li key={p.id}>
                  {p.name}, a {p.kind}
                  <Button size="small" look="text" onClick={() => part.mutate({ id: p.id })}>
                    Bring back
                  </Button>
                </li>
              ))}
              {plantings.map((p) => (
                <li key={p.id}>
                  {p.tag} <KindName of={p} isShort />, {p.place}
                  <Button size="small" look="text" onClick={() => planting.mutate({ id: p.id })}>
                    Bring back
                  </Button>
                </li>
              ))}
            </ul>
          </section>
        )
      }
    </Answered>
  )
}
