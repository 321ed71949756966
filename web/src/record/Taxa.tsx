import { recordEndpoints, type RecordView, type TrialOutcome } from '@border/contract'
import { counted, dayMonthYear, likelyRange, tenths, type TaxonRecord } from '@border/core'
import { Input } from 'antd'
import { scaleLinear } from 'd3-scale'
import { useState } from 'react'
import { Link } from 'react-router'
import { useGardenWrite } from '../api/writes.ts'
import { Button } from '../frame/Button.tsx'
import { Segments } from '../frame/Segments.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { usePlaceName } from '../frame/usePlaceName.ts'
import { KindName } from '../frame/KindName.tsx'

const filters = ['All', 'Plant again', 'Not again', 'Open'] as const
type Filter = (typeof filters)[number]
const filterOf: Record<TaxonRecord['again'], Filter> = {
  again: 'Plant again',
  'not again': 'Not again',
  open: 'Open',
}

/** Each taxon across its spots and years, and whether to plant it again. */
export function Taxa({ record }: { record: RecordView }) {
  const [filter, setFilter] = useState<Filter>('All')
  const shown = record.taxa.filter((t) => filter === 'All' || filterOf[t.again] === filter)
  return (
    <div className="screen-body record-taxa">
      <Trials record={record} />
      <section>
        <div className="spread">
          <h2>Taxa, best expected first</h2>
          <Segments<Filter> label="Show" options={[...filters]} value={filter} onChange={setFilter} />
        </div>
        <p className="soft">
          The bar is what it is expected to score of 5 in an average spot of this garden, eight times in ten;
          diamonds are the spots it stands in, crosses those that lie well below the rest.
        </p>
        <ul className="taxa">
          {shown.map((t) => (
            <TaxonLine key={t.taxon} taxon={t} record={record} />
          ))}
        </ul>
        {shown.length === 0 && <p className="soft">None.</p>}
      </section>
    </div>
  )
}

const WIDTH = 240
const HEIGHT = 44
const x = scaleLinear([1, 5], [10, WIDTH - 10])

/** What a taxon is expected to score, and what its spots scored. */
export function TaxonFigure({ taxon }: { taxon: TaxonRecord }) {
  const range = taxon.expected && likelyRange(taxon.expected)
  const nameOf = usePlaceName()
  return (
    <svg
      className="taxon-figure"
      width={WIDTH}
      height={HEIGHT}
      role="img"
      aria-label={`Spots: ${taxon.spots.map((s) => `${nameOf(s.placeId, 'a place that is gone')} ${tenths(s.score)}`).join(', ')}`}
    >
      {[1, 2, 3, 4, 5].map((n) => (
        <g key={n}>
          <line x1={x(n)} x2={x(n)} y1={4} y2={30} className="taxon-rule" />
          <text x={x(n)} y={42} textAnchor="middle">
            {n}
          </text>
        </g>
      ))}
      {range && (
        <rect
          className="taxon-bar"
          x={x(Math.max(1, range.low))}
          width={x(Math.min(5, range.high)) - x(Math.max(1, range.low))}
          y={10}
          height={14}
        />
      )}
      {taxon.spots.map((s) => (
        <g
          key={s.placeId}
          transform={`translate(${x(Math.max(1, Math.min(5, s.score)))},17)`}
          className={taxon.outliers.includes(s.placeId) ? 'taxon-spot is-outlier' : 'taxon-spot'}
        >
          <title>{`${nameOf(s.placeId, 'a place that is gone')}: ${tenths(s.score)} of 5, ${counted(s.seasons, 'season')}, ${counted(s.walks, 'walk')}`}</title>
          <path d={taxon.outliers.includes(s.placeId) ? 'M-6,-6L6,6M-6,6L6,-6' : 'M0,-7L7,0L0,7L-7,0Z'} />
        </g>
      ))}
    </svg>
  )
}

function TaxonLine({ taxon, record }: { taxon: TaxonRecord; record: RecordView }) {
  const survival = record.survival.find((s) => s.taxon === taxon.taxon)
  const last = survival?.steps.at(-1)
  return (
    <li className="taxon-line">
      <div>
        <h3>
          <Link to={`../plants/taxon/${encodeURIComponent(taxon.taxon)}`}>
            <KindName of={{ botanical: taxon.taxon }} isShort />
          </Link>
        </h3>
        <p>{taxon.says}</p>
        <p className="soft">
          {taxon.surer}
          {last &&
            ` Of ${counted(survival!.plants, 'plant')} followed, ${Math.round(100 * last.share)} in 100 live ${tenths(last.years)} years.`}
        </p>
      </div>
      <TaxonFigure taxon={taxon} />
      <div className="taxon-again">
        <b className={`again-${taxon.again.replace(' ', '-')}`}>
          {{ again: '✓ Plant again', 'not again': '✕ Not again', open: 'Open' }[taxon.again]}
        </b>
        <p className="soft">{taxon.againSays}</p>
      </div>
    </li>
  )
}

const outcomeWords: Record<Exclude<TrialOutcome, 'trial'>, string> = {
  expand: 'Grow to a drift',
  'retry elsewhere': 'Try elsewhere',
  'strike off': 'Not again',
  'go on': 'Another season',
}

function Trials({ record }: { record: RecordView }) {
  if (record.trials.length === 0) return null
  return (
    <section>
      <h2>On trial</h2>
      {record.trials.map((t) => (
        <Trial key={t.plantingId} trial={t} record={record} />
      ))}
    </section>
  )
}

function Trial({ trial, record }: { trial: RecordView['trials'][number]; record: RecordView }) {
  const { view, isHead, today } = useGardenContext()
  const [reason, setReason] = useState('')
  const stay = record.stays.findLast((s) => s.plantingId === trial.plantingId)!
  const placeName = usePlaceName()
  const say = useGardenWrite(
    recordEndpoints.judgeTrial,
    { gardenId: view.garden.id, plantingId: trial.plantingId },
    'Kept in its story.',
    () => ({ outcome: trial.outcomes.at(-1) ?? null }),
  )
  const { proposal } = trial
  const words = outcomeWords[proposal.outcome] + (proposal.count ? ` of ${proposal.count}` : '')
  return (
    <article className="trial">
      <div>
        <h3>
          <KindName of={stay} isShort /> <small>{stay.tag}</small>
        </h3>
        <p>
          In {placeName(stay.placeId)}, on trial since {dayMonthYear(trial.since)}. {proposal.says}{' '}
          <b>Proposed: {words.charAt(0).toLowerCase() + words.slice(1)}.</b>
        </p>
        {trial.outcomes[0]?.reason && <p className="soft">Asked then: {trial.outcomes[0].reason}</p>}
      </div>
      {isHead && (
        <div className="stack">
          <Input
            aria-label={`Reason, for ${stay.tag}`}
            placeholder="Reason, if you like"
            maxLength={2000}
            value={reason}
            onChange={(e) => setReason(e.target.value)}
          />
          <div className="row trial-row">
            {(Object.keys(outcomeWords) as (keyof typeof outcomeWords)[]).map((outcome) => (
              <Button
                key={outcome}
                size="small"
                look={outcome === proposal.outcome ? 'primary' : 'default'}
                loading={say.isPending}
                onClick={() =>
                  say.mutate({
                    on: today,
                    outcome,
                    ...(outcome === 'expand' ? { driftCount: proposal.count ?? 3 } : {}),
                    ...(reason.trim() ? { reason: reason.trim() } : {}),
                  })
                }
              >
                {outcomeWords[outcome]}
                {outcome === 'expand' ? ` of ${proposal.count ?? 3}` : ''}
              </Button>
            ))}
          </div>
        </div>
      )}
    </article>
  )
}
