import type { RecordView } from '@border/contract'
import { cannotTell, counted, sharesSaid } from '@border/core'
import { lazy, Suspense } from 'react'
import { useSearchParams } from 'react-router'
import { withParam } from '../frame/address.ts'
import { Segments } from '../frame/Segments.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { Answered, Waiting } from '../frame/Answered.tsx'
import { ScreenHead } from '../frame/ScreenHead.tsx'
import { useRecord } from './queries.ts'
import { useRecordNames } from './recordNames.ts'
import { Taxa } from './Taxa.tsx'
import { PlantingSeasons } from './PlantingSeasons.tsx'
import './record.css'

const Bloom = lazy(() => import('./Bloom.tsx').then((m) => ({ default: m.Bloom })))
const Signs = lazy(() => import('./Signs.tsx').then((m) => ({ default: m.Signs })))
const Photos = lazy(() => import('./Photos.tsx').then((m) => ({ default: m.Photos })))

const tabs = ['Plantings', 'Taxa', 'Bloom', 'Signs', 'Photos'] as const
type Tab = (typeof tabs)[number]

/** How plants have done, season by season, and what is plant, what is spot and what is year. */
export function RecordScreen() {
  const { view, on, today } = useGardenContext()
  const [params, setParams] = useSearchParams()
  const record = useRecord(view.garden.id)
  const tab = tabs.find((t) => t.toLowerCase() === params.get('tab')) ?? 'Plantings'
  const ofRecord = tab !== 'Signs' && tab !== 'Photos'
  const choose = (next: Tab) => setParams((before) => withParam(before, 'tab', next.toLowerCase()))
  return (
    <>
      <ScreenHead
        title="Record"
        lead={
          <>
            {record.data ? (
              <RecordSentence record={record.data} />
            ) : ofRecord && record.isLoading ? (
              'Working the record out.'
            ) : (
              ''
            )}
            {on !== today && ' The record is as of today, whatever date the ribbon shows.'}
          </>
        }
      >
        <Segments<Tab> label="What of the record" options={[...tabs]} value={tab} onChange={choose} />
      </ScreenHead>
      <Suspense fallback={<Waiting />}>
        {tab === 'Signs' && <Signs />}
        {tab === 'Photos' && <Photos />}
        {ofRecord && (
          <Answered of={[record]}>
            {(record) =>
              tab === 'Plantings' ? (
                <PlantingSeasons record={record} />
              ) : tab === 'Taxa' ? (
                <Taxa record={record} />
              ) : (
                <Bloom seasons={record.seasons} />
              )
            }
          </Answered>
        )}
      </Suspense>
    </>
  )
}

/** What of all differences is plant, spot and year, in one sentence. */
function RecordSentence({ record }: { record: RecordView }) {
  const names = useRecordNames()
  const { model, stays, seasons } = record
  const scores = stays.reduce((n, s) => n + s.scores.length, 0)
  if (scores === 0)
    return 'Nothing is on record yet. Walk the garden a few times a season, and this page tells plant from spot from year.'
  const base = `${counted(scores, 'planting-season')} over ${counted(seasons.length, 'season')}.`
  if (!model) return `${base} Too little yet to tell plant from spot from year.`
  const said = sharesSaid(model) || cannotTell(model, names)[0]!.says
  return (
    <>
      {base} {said}
    </>
  )
}
