import type { RecordView } from '@border/contract'
import { counted } from '@border/core'
import { Segmented } from 'antd'
import { lazy, Suspense } from 'react'
import { useSearchParams } from 'react-router'
import { errorText, useRecord } from '../api/queries.ts'
import { useGardenContext } from '../frame/GardenFrame.tsx'
import { Waiting } from '../frame/Shell.tsx'
import { Kinds } from './Kinds.tsx'
import { PlantingSeasons } from './PlantingSeasons.tsx'
import './record.css'

const Bloom = lazy(() => import('./Bloom.tsx').then((m) => ({ default: m.Bloom })))
const Signs = lazy(() => import('./Signs.tsx').then((m) => ({ default: m.Signs })))
const Photos = lazy(() => import('./Photos.tsx').then((m) => ({ default: m.Photos })))

const tabs = ['Plantings', 'Kinds', 'Bloom', 'Signs', 'Photos'] as const
type Tab = (typeof tabs)[number]

/** How plants have done, season by season, and what is plant, what is spot and what is year. */
export function Screen() {
  const { view, on, today } = useGardenContext()
  const [params, setParams] = useSearchParams()
  const { data, error } = useRecord(view.garden.id)
  const tab = tabs.find((t) => t.toLowerCase() === params.get('tab')) ?? 'Plantings'
  const ofRecord = tab !== 'Signs' && tab !== 'Photos'
  const choose = (next: Tab) =>
    setParams((before) => {
      const after = new URLSearchParams(before)
      after.set('tab', next.toLowerCase())
      return after
    })
  return (
    <>
      <header className="screen-head">
        <div>
          <h1>Record</h1>
          <p>
            {data ? <RecordSentence record={data} /> : ofRecord ? 'Working the record out.' : ''}
            {on !== today && ' The record is as of today, whatever date the ribbon shows.'}
          </p>
        </div>
        <div className="screen-tools">
          <Segmented<Tab> aria-label="What of the record" options={[...tabs]} value={tab} onChange={choose} />
        </div>
      </header>
      <Suspense fallback={<Waiting />}>
        {tab === 'Signs' && <Signs />}
        {tab === 'Photos' && <Photos />}
        {ofRecord && error && <p className="empty-words">{errorText(error)}</p>}
        {ofRecord && !error && !data && <Waiting />}
        {data && tab === 'Plantings' && <PlantingSeasons record={data} />}
        {data && tab === 'Kinds' && <Kinds record={data} />}
        {data && tab === 'Bloom' && <Bloom seasons={data.seasons} />}
      </Suspense>
    </>
  )
}

const percent = (share: number) => `${Math.round(100 * share)} %`

/** What of all differences is plant, spot and year, in one sentence. */
function RecordSentence({ record }: { record: RecordView }) {
  const { model, stays, seasons } = record
  const scores = stays.reduce((n, s) => n + s.scores.length, 0)
  if (scores === 0)
    return 'Nothing is on record yet. Walk the garden a few times a season, and this page tells plant from spot from year.'
  const base = `${counted(scores, 'planting-season')} over ${counted(seasons.length, 'season')}.`
  if (!model) return `${base} Too little yet to tell plant from spot from year.`
  const { shares } = model
  return (
    <>
      {base} Of what differs, <b>{percent(shares.place)} is the place</b>,{' '}
      {percent(shares.taxon + shares.light)} the kind of plant, {percent(shares.planting)} the single
      planting, {percent(shares.year)} the year; the rest is chance and the eye.
    </>
  )
}
