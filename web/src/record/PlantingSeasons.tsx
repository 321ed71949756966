import { recordEndpoints, type RecordView, type Stay, type BodyOf } from '@border/contract'
import { cannotTell, counted, dayMonthYear, likelyRange, listed, tenths, Z90 } from '@border/core'
import { useState } from 'react'
import { Link, useLocation } from 'react-router'
import { useGardenWrite } from '../api/writes.ts'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { useDiagnosis } from './queries.ts'
import { DiagnosisPanel } from './DiagnosisPanel.tsx'
import { useRecordNames } from './recordNames.ts'
import { SeasonCell } from './SeasonCell.tsx'
import { KindName } from '../frame/KindName.tsx'

/** Plantings by season: how each did for its age and time of year, with the walks behind it. */
export function PlantingSeasons({ record }: { record: RecordView }) {
  const { view } = useGardenContext()
  const [chosen, setChosen] = useState<string>()
  const declining = new Map(record.declines.map((d) => [d.plantingId, d]))
  const places = view.features.filter((f) => record.stays.some((s) => s.placeId === f.id))
  const stay = record.stays.find((s) => s.id === chosen)
  return (
    <div className="screen-split">
      <div className="screen-body record-seasons">
        <Absences record={record} />
        {places.map((place) => (
          <section key={place.id}>
            <table className="record-table">
              <caption>
                <h2>{place.name}</h2>
                <BestHere record={record} placeId={place.id} />
              </caption>
              <thead>
                <tr>
                  <th scope="col">Planting</th>
                  {record.seasons.map((y) => (
                    <th scope="col" key={y}>
                      {y}
                    </th>
                  ))}
                  <th scope="col">Trend</th>
                </tr>
              </thead>
              <tbody>
                {record.stays
                  .filter((s) => s.placeId === place.id)
                  .map((s) => (
                    <tr key={s.id} className={s.id === chosen ? 'is-chosen' : undefined}>
                      <th scope="row">
                        <button type="button" aria-pressed={s.id === chosen} onClick={() => setChosen(s.id)}>
                          <KindName of={s} isShort /> <small>{s.tag}</small>
                          {gone(s) && <small> {gone(s)}</small>}
                        </button>
                      </th>
                      {record.seasons.map((y) => (
                        <SeasonCell key={y} figures={s.scores.find(([season]) => season === y)} />
                      ))}
                      <td className="record-trend">
                        {declining.has(s.id) && (
                          <span className="is-falling">
                            ▼ {tenths(declining.get(s.id)!.perSeason)} a season
                          </span>
                        )}
                      </td>
                    </tr>
                  ))}
              </tbody>
            </table>
          </section>
        ))}
        {places.length === 0 && (
          <p className="empty-words">
            No planting has been looked at yet. <Link to="../walk">Walk the garden</Link>, and come back.
          </p>
        )}
      </div>
      <aside className="stack" aria-label="About what is chosen" tabIndex={0}>
        {stay ? <StayPanel key={stay.id} stay={stay} record={record} /> : <HowToRead record={record} />}
      </aside>
    </div>
  )
}

const gone = (s: Stay) => (s.livingCount === 0 ? 'lost' : s.to !== null ? `until ${s.to.slice(0, 4)}` : '')

const BEST = 3
/** Below this nothing is called the best of anywhere. */
const GOOD = 3.5

/** The plantings of a place that do best there, what is not known of them taken off. */
function BestHere({ record, placeId }: { record: RecordView; placeId: string }) {
  const best = (record.best.find((b) => b.placeId === placeId)?.ranks ?? [])
    .slice(0, BEST)
    .filter((s) => s.score >= GOOD)
  if (best.length === 0) return null
  return <small>Best here: {listed(best.map((s) => `${s.taxon} ${tenths(s.score)}`))}</small>
}

function HowToRead({ record }: { record: RecordView }) {
  return (
    <section>
      <h2>How to read it</h2>
      <p>
        Each figure is the season’s rating of 5, looks in a plant’s own time of rest counting for next to
        nothing and first seasons given back what a young plant lacks. Dots are the walks behind it; a dashed
        edge is a plant still settling in. Of a share, what stands in brackets is where it lies eight times in
        ten.
      </p>
      <p>
        Choose a planting for what its signs say.{' '}
        {record.declines.length > 0
          ? `${counted(record.declines.length, 'planting')} ${record.declines.length === 1 ? 'falls' : 'fall'} by more than age, stage and the year explain.`
          : 'None falls by more than age, stage and the year explain.'}
      </p>
      {record.model && <ModelFacts model={record.model} />}
    </section>
  )
}

function ModelFacts({ model }: { model: NonNullable<RecordView['model']> }) {
  const cannot = cannotTell(model, useRecordNames())
  return (
    <>
      {cannot.length > 0 && (
        <>
          <h2>What it cannot tell yet</h2>
          <ul>
            {cannot.map(({ says, wouldTell }) => (
              <li key={says}>
                {says} {wouldTell}
              </li>
            ))}
          </ul>
        </>
      )}
      {model.years.length > 0 && (
        <>
          <h2>The years themselves</h2>
          <dl className="facts">
            {[...model.years]
              .sort((a, b) => a.key - b.key)
              .map((y) => (
                <div key={y.key}>
                  <dt>{y.key}</dt>
                  <dd>
                    {y.estimate >= 0 ? '+' : ''}
                    {tenths(y.estimate)} <small>± {tenths(Z90 * y.se)}, everywhere in the garden</small>
                  </dd>
                </div>
              ))}
          </dl>
        </>
      )}
    </>
  )
}

function StayPanel({ stay, record }: { stay: Stay; record: RecordView }) {
  const { view } = useGardenContext()
  const { search } = useLocation()
  const { data } = useDiagnosis(view.garden.id)
  const decline = record.declines.find((d) => d.plantingId === stay.id)
  const ranks = record.best.find((b) => b.placeId === stay.placeId)?.ranks ?? []
  const rank = ranks.findIndex((s) => s.plantingId === stay.id)
  const expected = ranks[rank]
  const taxon = record.taxa.find((t) => t.taxon === stay.botanical)
  const diagnosis = data?.diagnoses.find((d) => d.plantingId === stay.plantingId)
  const searchOf = new URLSearchParams(search)
  searchOf.delete('tab')
  return (
    <>
      <section>
        <h2>
          <KindName of={stay} isShort />
        </h2>
        <p className="soft">
          {stay.tag}, here since {dayMonthYear(stay.from)}.{' '}
          <Link to={{ pathname: `../plants/${stay.plantingId}`, search: searchOf.toString() }}>
            Its story
          </Link>
        </p>
        {decline && (
          <p>
            Falls {tenths(decline.perSeason)} a season from {decline.from} to {decline.to}, with its age, its
            time of year and the year taken out ({counted(decline.seasons, 'season')};{' '}
            {decline.p < 0.1 ? 'hardly chance' : 'chance could do it'}).
          </p>
        )}
        {expected && !decline && (
          <p>
            Over all its seasons here about {tenths(expected.score)} of 5, between{' '}
            {tenths(likelyRange(expected).low)} and {tenths(Math.min(5, likelyRange(expected).high))}
            {rank < BEST && ', among the best of this place'}.
          </p>
        )}
        {taxon && <p>{taxon.says}</p>}
      </section>
      {diagnosis && <DiagnosisPanel diagnosis={diagnosis} />}
    </>
  )
}

function Absences({ record }: { record: RecordView }) {
  const { view, isCrew, today } = useGardenContext()
  const strike = useGardenWrite(
    recordEndpoints.strikeOff,
    ({ plantingId }: { plantingId: string } & BodyOf<typeof recordEndpoints.strikeOff>) => ({
      gardenId: view.garden.id,
      plantingId,
    }),
    'Struck off. Its place is free; its record stays.',
  )
  const shown = record.unseen.filter((a) => a.unseen.state !== 'resting')
  if (shown.length === 0) return null
  return (
    <section className="record-absent">
      <h2>Not to be seen</h2>
      <ul className="plain-list">
        {shown.map(({ plantingId, unseen }) => {
          const stay = record.stays.findLast((s) => s.plantingId === plantingId)
          return (
            <li key={plantingId}>
              {stay && <KindName of={stay} isShort />} <small>{stay?.tag}</small> {unseen.says}{' '}
              {isCrew && unseen.state === 'due' && (
                <Button size="small" onClick={() => strike.mutate({ plantingId, on: today })}>
                  Strike it off
                </Button>
              )}
            </li>
          )
        })}
      </ul>
    </section>
  )
}
