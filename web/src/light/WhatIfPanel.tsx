import { lightEndpoints, type WhatIfView } from '@border/contract'
import { counted, dayMonthYear, quarterHours, type Supposition } from '@border/core'
import { Input } from 'antd'
import { useState } from 'react'
import { useGardenWrite } from '../api/writes.ts'
import { Answered } from '../frame/Answered.tsx'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { useWhatIfs } from './queries.ts'
import { suppositionClause } from './suppositionWords.ts'

/** What-ifs kept under a name, and compared by what they would do. */
export function WhatIfPanel({
  suppositions,
  onShow,
}: {
  suppositions: readonly Supposition[]
  onShow: (suppositions: readonly Supposition[]) => void
}) {
  const { view, asOf, isHead } = useGardenContext()
  const gardenId = view.garden.id
  const whatIfs = useWhatIfs(gardenId, asOf)
  const [name, setName] = useState('')
  const keep = useGardenWrite(lightEndpoints.keepWhatIf, { gardenId }, ({ name }) => `“${name}” is kept.`)
  const drop = useGardenWrite(
    lightEndpoints.withdrawWhatIf,
    ({ id }: { id: string }) => ({ gardenId, whatIfId: id }),
    'Dropped.',
  )
  return (
    <>
      {suppositions.length === 0 ? (
        <p className="soft">
          Choose a tree, hedge, wall or building on the plan and try it higher, lower, limbed up, thinned,
          older or gone. The light follows; keep what is worth comparing under a name.
        </p>
      ) : (
        isHead && (
          <form
            className="row"
            onSubmit={(e) => {
              e.preventDefault()
              if (name.trim())
                keep.mutate(
                  { name: name.trim(), suppositions: [...suppositions] },
                  { onSuccess: () => setName('') },
                )
            }}
          >
            <Input
              aria-label="Name of this what-if"
              placeholder="Name this what-if"
              maxLength={80}
              value={name}
              onChange={(e) => setName(e.target.value)}
            />
            <Button look="primary" type="submit" disabled={!name.trim()} loading={keep.isPending}>
              Keep
            </Button>
          </form>
        )
      )}
      <Answered of={[whatIfs]}>
        {(whatIfs) =>
          whatIfs.length > 0 && (
            <Compared
              whatIfs={whatIfs}
              onShow={onShow}
              {...(isHead && { onDrop: (id: string) => drop.mutate({ id }) })}
            />
          )
        }
      </Answered>
    </>
  )
}

function Compared({
  whatIfs,
  onShow,
  onDrop,
}: {
  whatIfs: readonly WhatIfView[]
  onShow: (suppositions: readonly Supposition[]) => void
  onDrop?: (id: string) => void
}) {
  const { view, on } = useGardenContext()
  const nameOf = (id: string) =>
    view.features.find((f) => f.id === id)?.name ?? 'something gone from the plan'
  return (
    <>
      <table className="what-ifs">
        <caption className="visually-hidden">What-ifs compared</caption>
        <thead>
          <tr>
            <th scope="col">What if</th>
            <th scope="col">outside</th>
            <th scope="col">mean sun</th>
          </tr>
        </thead>
        <tbody>
          {whatIfs.map((s) => (
            <Row
              key={s.id ?? 'as it stands'}
              whatIf={s}
              says={s.suppositions.map((t) => suppositionClause(t, nameOf(t.obstructionId))).join('; ')}
              onShow={() => onShow(s.suppositions)}
              onDrop={onDrop && s.id ? () => onDrop(s.id!) : undefined}
            />
          ))}
        </tbody>
      </table>
      {whatIfs.length > 1 && (
        <small className="light-note">
          Plantings outside the light they like, and mean hours over all beds, on the mean day of the growing
          season as the garden stands on {dayMonthYear(on)}.
        </small>
      )}
    </>
  )
}

function Row({
  whatIf: s,
  says,
  onShow,
  onDrop,
}: {
  whatIf: WhatIfView
  says: string
  onShow: () => void
  onDrop: (() => void) | undefined
}) {
  return (
    <tr>
      <th scope="row">
        <button type="button" className="plain" onClick={onShow}>
          {s.name}
        </button>
        <small>{says}</small>
        {onDrop && (
          <Button size="small" look="link" onClick={onDrop} aria-label={`Drop ${s.name}`}>
            Drop
          </Button>
        )}
      </th>
      <td>
        {counted(s.outside, 'planting')}
        {s.id && (s.leaving > 0 || s.returning > 0) && (
          <small>
            {s.leaving} leave, {s.returning} come back
          </small>
        )}
      </td>
      <td>{quarterHours(s.meanHours)}</td>
    </tr>
  )
}
