import {
  reworkEndpoints,
  type AssessmentView,
  type ReworkView,
  type SaidScheme,
  type SaidWishes,
} from '@border/contract'
import { counted, followed, type IsoDate, isPlace, kindsOf } from '@border/core'
import { useState } from 'react'
import { Link, useLocation, useNavigate } from 'react-router'
import { useGardenWrite } from '../api/writes.ts'
import { searchWith, useParam } from '../frame/address.ts'
import { Answered, Empty } from '../frame/Answered.tsx'
import { Button } from '../frame/Button.tsx'
import { Choose } from '../frame/Choose.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { ScreenHead } from '../frame/ScreenHead.tsx'
import { Segments } from '../frame/Segments.tsx'
import { usePlaceName } from '../frame/usePlaceName.ts'
import { momentText } from '../frame/words.ts'
import { useAssessment } from '../verdicts/queries.ts'
import { FitPlan } from './FitPlan.tsx'
import { useReworks } from './queries.ts'
import { leavingWords, progressWords } from './reworkWords.ts'
import { leavingByVerdicts, newScheme, usualWishes } from './schemeDraft.ts'
import './rework.css'

const VIEWS = [
  { value: 'places', label: 'Places' },
  { value: 'fit', label: 'Where could it go?' },
] as const

/** Places decided anew; and where in the garden a kind would do well. */
export function ReworkScreen() {
  const { view } = useGardenContext()
  const reworks = useReworks(view.garden.id)
  const [said, choose] = useParam('show')
  const shown = said === 'fit' ? 'fit' : 'places'
  return (
    <>
      <ScreenHead
        title="Rework"
        lead={
          shown === 'fit'
            ? 'A kind in the hand: the plan shows where it would do well.'
            : 'A place thought of as a whole: what leaves, what comes in, where it stands and what it takes.'
        }
      >
        <Segments
          label="What is shown"
          value={shown}
          options={VIEWS}
          onChange={(v) => choose(v === 'fit' ? v : undefined)}
        />
      </ScreenHead>
      {shown === 'fit' ? (
        <FitPlan />
      ) : (
        <Answered of={[reworks]}>{(reworks) => <Places reworks={reworks} />}</Answered>
      )}
    </>
  )
}

function Places({ reworks }: { reworks: readonly ReworkView[] }) {
  const { view, standing, isHead } = useGardenContext()
  const [away, setAway] = useState<ReworkView>()
  const { id: gardenId } = view.garden
  const placeName = usePlaceName()
  const restore = useGardenWrite(
    reworkEndpoints.restore,
    ({ reworkId }: { reworkId: string }) => ({ gardenId, reworkId }),
    'It is back.',
  )
  if (!standing.some(isPlace))
    return <Empty>There is no bed or pot in this garden yet. Draw one on the Plan first.</Empty>
  return (
    <div className="screen-body stack">
      {isHead && <Begin />}
      {away && (
        <p>
          The rework of {placeName(away.placeId)} is taken away.{' '}
          <Button
            size="small"
            onClick={() => restore.mutate({ reworkId: away.id }, { onSuccess: () => setAway(undefined) })}
          >
            Bring it back
          </Button>
        </p>
      )}
      {reworks.length === 0 ? (
        <p className="soft">No place is being decided anew.</p>
      ) : (
        <div className="rework-cards">
          {reworks.map((r) => (
            <Card key={r.id} rework={r} onAway={() => setAway(r)} />
          ))}
        </div>
      )}
    </div>
  )
}

function Card({ rework, onAway }: { rework: ReworkView; onAway: () => void }) {
  const { view, isHead } = useGardenContext()
  const { search } = useLocation()
  const placeName = usePlaceName()
  const withdraw = useGardenWrite(
    reworkEndpoints.withdraw,
    { gardenId: view.garden.id, reworkId: rework.id },
    'Taken away.',
  )
  return (
    <section className="rework-card" aria-label={placeName(rework.placeId)}>
      <h2>
        <Link to={{ pathname: rework.id, search: withoutShow(search) }}>{placeName(rework.placeId)}</Link>
      </h2>
      <ul className="rework-list">
        {rework.schemes.map((s) => {
          const kinds = kindsOf(s.said)
          return (
            <li key={s.id}>
              <b>{s.said.name}</b>:{' '}
              {kinds.length === 0
                ? 'no kinds yet'
                : `${counted(
                    kinds.reduce((sum, k) => sum + k.count, 0),
                    'plant',
                  )} of ${counted(kinds.length, 'kind')}`}
              , {leaveWords(s.said)}
              {s.accepted && `; ${progressWords(s)}`}
            </li>
          )
        })}
      </ul>
      <div className="spread">
        <small className="soft">
          begun {momentText(rework.at)}
          {rework.by && `, by ${rework.by}`}
        </small>
        {isHead && (
          <Button size="small" look="text" danger onClick={() => withdraw.mutate({}, { onSuccess: onAway })}>
            Take away
          </Button>
        )}
      </div>
    </section>
  )
}

const leaveWords = ({ leaving }: Pick<SaidScheme, 'leaving'>): string => {
  const leave = leaving.filter((l) => l.how === 'leaves').length
  return leave === 0 ? 'nothing leaves' : `${leave} ${leave === 1 ? 'leaves' : 'leave'}`
}

const withoutShow = (search: string): string => searchWith(search, { show: undefined, place: undefined })

/** A rework begun, from the verdicts of a place or from nothing. */
function Begin() {
  const { view, asOf, on } = useGardenContext()
  return (
    <Answered of={[useAssessment(view.garden.id, asOf)]} waiting="The plants are judged…">
      {(assessed) => <BeginForm assessed={assessed} on={on} />}
    </Answered>
  )
}

/** Beds are planned to the height of what a person sees over, unless somebody says otherwise, metres. */
const USUAL_TALLEST_M = 2

function BeginForm({ assessed, on }: { assessed: AssessmentView; on: IsoDate }) {
  const { view, standing } = useGardenContext()
  const { search } = useLocation()
  const navigate = useNavigate()
  const [asked] = useParam('place')
  const places = standing.filter(isPlace)
  const leavingOf = (placeId: string) => leavingByVerdicts(placeId, view.plantings, assessed, on)
  const most = places.toSorted((a, b) => leavingOf(b.id).length - leavingOf(a.id).length)[0]!
  const [chosen, choose] = useState(places.find((p) => p.id === asked)?.id ?? most.id)
  const leaving = leavingOf(chosen)
  const begin = useGardenWrite(
    reworkEndpoints.begin,
    { gardenId: view.garden.id },
    'Begun: nothing in the garden is changed by it.',
  )
  const start = (from: 'verdicts' | 'nothing') => {
    const id = crypto.randomUUID()
    const wishes = usualWishes(followed(view.schools, 'drifts') as SaidWishes['drifts'], USUAL_TALLEST_M)
    const said = { ...newScheme('Scheme A', wishes), leaving: from === 'verdicts' ? leaving : [] }
    begin.mutate(
      { id, placeId: chosen, schemes: [{ id: crypto.randomUUID(), said }] },
      { onSuccess: () => void navigate({ pathname: id, search: withoutShow(search) }) },
    )
  }
  return (
    <section className="rework-card" aria-label="Begin a rework">
      <h2>Decide a place anew</h2>
      <div className="row">
        <Choose
          label="Which place"
          value={chosen}
          options={places.map((p) => ({ value: p.id, label: p.name }))}
          onChange={choose}
        />
        {leaving.length > 0 && (
          <Button look="primary" loading={begin.isPending} onClick={() => start('verdicts')}>
            From its verdicts
          </Button>
        )}
        <Button
          look={leaving.length > 0 ? 'default' : 'primary'}
          loading={begin.isPending}
          onClick={() => start('nothing')}
        >
          {leaving.length > 0 ? 'With everything staying' : 'Begin'}
        </Button>
      </div>
      <p>
        <small>
          {leaving.length === 0
            ? 'By its verdicts everything here stays as it is.'
            : `By its verdicts, of ${view.plantings.filter((p) => p.placeId === chosen).length} there, ${leavingWords(leaving)}.`}
        </small>
      </p>
    </section>
  )
}
