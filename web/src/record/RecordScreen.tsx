import type { RecordView } from '@border/contract'
import { capitalised, counted, listed, type Untold } from '@border/core'
import { lazy, Suspense } from 'react'
import { useSearchParams } from 'react-router'
import { withParam } from '../frame/address.ts'
import { Segments } from '../frame/Segments.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { Answered, Waiting } from '../frame/Answered.tsx'
import { ScreenHead } from '../frame/ScreenHead.tsx'
import { useRecord } from './queries.ts'
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

const percent = (share: number) => `${Math.round(100 * share)} %`

/** What of all differences is plant, spot and year, in one sentence. */
function RecordSentence({ record }: { record: RecordView }) {
  const { model, stays, seasons } = record
  const scores = stays.reduce((n, s) => n + s.scores.length, 0)
  if (scores === 0)
    return 'Nothing is on record yet. Walk the garden a few times a season, and this page tells plant from spot from year.'
  const base = `${counted(scores, 'planting-season')} over ${counted(seasons.length, 'season')}.`
  if (!model) return `${base} Too little yet to tell plant from spot from year.`
  return (
    <>
      {base} {sharesWords(model)}
    </>
  )
}

/** What is place, taxon, planting and year, as far as the record tells them apart. */
function sharesWords({ shares, untold }: NonNullable<RecordView['model']>): string {
  const cannot = (what: Untold) => untold.includes(what)
  const taxon = shares.taxon + shares.light
  const told = [
    ...(cannot('place') ? [] : [`${percent(shares.place)} is the place`]),
    ...(cannot('taxon from planting')
      ? [`${percent(taxon + shares.planting)} the plant, its taxon and its own growth together`]
      : [`${percent(taxon)} the taxon`, `${percent(shares.planting)} the single planting`]),
    ...(cannot('year') ? [] : [`${percent(shares.year)} the year`]),
  ]
  const why = [
    ...(cannot('place') ? ['one place alone cannot show what places do'] : []),
    ...(cannot('year') ? ['one season alone cannot show what years do'] : []),
    ...(cannot('taxon from planting')
      ? [
          'each taxon stands here once, so the taxon and the planting cannot be told apart; a second clump of one would tell',
        ]
      : []),
    ...(cannot('planting from chance')
      ? ['each planting has one season on record, so its own part cannot be told from chance']
      : []),
  ]
  return `Of what differs, ${listed(told)}; the rest is chance and the eye.${why.length > 0 ? ` ${capitalised(listed(why))}.` : ''}`
}
