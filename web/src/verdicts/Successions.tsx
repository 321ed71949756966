import { verdictEndpoints, type SuccessionView } from '@border/contract'
import { Select } from 'antd'
import { useState } from 'react'
import { Link } from 'react-router'
import { useGardenWrite } from '../api/writes.ts'
import { Answered } from '../frame/Answered.tsx'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { usePlaceName } from '../frame/usePlaceName.ts'
import { useSuccessions } from './queries.ts'
import { KindName } from '../frame/KindName.tsx'

/** Failing trees and shrubs of consequence: what to plant now, to stand when they go. */
export function Successions() {
  const { view } = useGardenContext()
  return (
    <Answered of={[useSuccessions(view.garden.id)]} waiting="Looking for what fails.">
      {(successions) => successions.length > 0 && <Failing successions={successions} />}
    </Answered>
  )
}

function Failing({ successions }: { successions: readonly SuccessionView[] }) {
  const open = successions.filter((s) => s.word === null)
  return (
    <details className="successions" open={open.length > 0}>
      <summary>Successors {open.length > 0 ? `to think of: ${open.length}` : 'are settled'}</summary>
      {successions.map((s) => (
        <Successor key={s.subjectId} succession={s} />
      ))}
    </details>
  )
}

function Successor({ succession: s }: { succession: SuccessionView }) {
  const { isHead } = useGardenContext()
  const nameOf = usePlaceName()
  return (
    <article>
      <h3>
        {s.name} {s.placeId && <small>in {nameOf(s.placeId, 'a place')}</small>}
      </h3>
      <p>{s.says}</p>
      {s.word ? <Settled of={s} word={s.word} /> : isHead && <Choosing of={s} />}
    </article>
  )
}

/** Keeps a head gardener's word on who is to follow. */
function useSay({ subjectId, word }: SuccessionView) {
  const { view } = useGardenContext()
  return useGardenWrite(
    verdictEndpoints.saySuccessor,
    { gardenId: view.garden.id, subjectId },
    ({ state }) =>
      ({
        planned: 'Planting it is a job now, in the next window of its kind.',
        dismissed: 'It will not be proposed again for this one.',
        open: 'Taken back: it is proposed again.',
      })[state],
    () => ({ word }),
  )
}

function Settled({ of, word }: { of: SuccessionView; word: NonNullable<SuccessionView['word']> }) {
  const { isHead } = useGardenContext()
  const say = useSay(of)
  return (
    <p className="row">
      {word.state === 'planned' ? (
        <span>
          ✓ <KindName of={{ botanical: word.botanical! }} isShort /> is to be planted.{' '}
          {word.jobId && <Link to={`../season?job=${word.jobId}`}>See the job</Link>}
        </span>
      ) : (
        <span>✓ No successor wanted.</span>
      )}
      {isHead && (
        <Button size="small" loading={say.isPending} onClick={() => say.mutate({ state: 'open' })}>
          Take it back
        </Button>
      )}
    </p>
  )
}

function Choosing({ of }: { of: SuccessionView }) {
  const say = useSay(of)
  const [chosen, setChosen] = useState(of.choices[0]?.botanical)
  const choice = of.choices.find((c) => c.botanical === chosen)
  return (
    <>
      <div className="row">
        <Select
          aria-label={`Successor of ${of.name}`}
          value={chosen}
          onChange={setChosen}
          popupMatchSelectWidth={false}
          options={of.choices.map((c) => ({
            value: c.botanical,
            label: `${c.botanical}, ${c.heightM} m in ${c.yearsToSize} years`,
          }))}
        />
        <Button
          look="primary"
          size="small"
          loading={say.isPending}
          disabled={!chosen}
          onClick={() => chosen && say.mutate({ state: 'planned', botanical: chosen })}
        >
          Plant it
        </Button>
        <Button size="small" onClick={() => say.mutate({ state: 'dismissed' })}>
          None wanted
        </Button>
      </div>
      {choice && (
        <small>
          {choice.common}: {choice.reason}.
        </small>
      )}
    </>
  )
}
