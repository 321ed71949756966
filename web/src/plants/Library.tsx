import { taxonEndpoints, type FeatureView, type KnownTaxon } from '@border/contract'
import {
  capitalised,
  counted,
  driftRadiusM,
  fitOf,
  isPlace,
  lightRange,
  middleOf,
  placeOf,
  rootsAt,
  rootZones,
  sceneOf,
  summerOf,
  sunHours,
  surfaceHeightM,
  taxonSearch,
  winterHere,
  type Fit,
  type Taxon,
} from '@border/core'
import { Select, Table } from 'antd'
import { useMemo, useState } from 'react'
import { Link, useLocation, useNavigate } from 'react-router'
import { hrefOf } from '../api/client.ts'
import { useSignedIn } from '../api/session.ts'
import { usePracticeWrite } from '../api/writes.ts'
import { Answered } from '../frame/Answered.tsx'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { BringCsv } from '../setup/BringCsv.tsx'
import { useTaxa } from './queries.ts'
import { TaxonForm } from './TaxonForm.tsx'
import { KindName } from '../frame/KindName.tsx'

/** The library, found by any name of a taxon, with a letter wrong here and there, and by how it fits a place. */
export function Library({ text }: { text: string }) {
  return <Answered of={[useTaxa()]}>{(taxa) => <Taxa taxa={taxa} text={text} />}</Answered>
}

function Taxa({ taxa, text }: { taxa: readonly KnownTaxon[]; text: string }) {
  const { standing } = useGardenContext()
  const { person } = useSignedIn()
  const { search } = useLocation()
  const navigate = useNavigate()
  const [placeId, setPlaceId] = useState<string | null>(null)
  const [adding, setAdding] = useState(false)
  const bring = usePracticeWrite(
    taxonEndpoints.bring,
    ({ changed, same }) => `${counted(changed, 'taxon', 'taxa')} kept, ${same} as they were.`,
  )
  const index = useMemo(() => taxonSearch(taxa), [taxa])
  const place = standing.find((f) => f.id === placeId)
  const fits = usePlaceFit(place)
  const named = text.trim() === '' ? taxa : (index.find(text) as KnownTaxon[])
  const found = fits ? named.filter((t) => fits(t).score >= LEAST_FIT) : named
  return (
    <>
      <div className="row library-tools">
        <Select
          aria-label="Fits a place"
          placeholder="Fits a place…"
          allowClear
          value={placeId}
          onChange={(id: string | undefined) => setPlaceId(id ?? null)}
          popupMatchSelectWidth={false}
          options={standing.filter(isPlace).map((f) => ({ value: f.id, label: f.name }))}
          style={{ minWidth: 180 }}
        />
        <a href={hrefOf(taxonEndpoints.csv, {})} download>
          taxa.csv
        </a>
        {person.leads && (
          <>
            <BringCsv loading={bring.isPending} onText={(csv) => bring.mutate({ csv })}>
              Bring in taxa.csv
            </BringCsv>
            <Button onClick={() => setAdding(true)}>A kind of your own</Button>
          </>
        )}
        <small>
          {counted(found.length, 'taxon', 'taxa')}
          {fits &&
            place &&
            `, those that stand the light, the ground and the winters of ${place.name}, best first`}
        </small>
      </div>
      {adding && taxa[0] && (
        <TaxonForm
          isCopy
          from={taxa.find((t) => t.botanical === 'Geranium Cranesbill group') ?? taxa[0]}
          onClose={(made) => {
            setAdding(false)
            if (made) void navigate({ pathname: `taxon/${encodeURIComponent(made)}`, search })
          }}
        />
      )}
      <TaxonTable taxa={found} fits={fits} />
    </>
  )
}

/** The library as a table; what fits a place, best first. */
function TaxonTable({
  taxa,
  fits,
}: {
  taxa: readonly KnownTaxon[]
  fits: ((taxon: Taxon) => Fit) | undefined
}) {
  const { search } = useLocation()
  return (
    <Table<KnownTaxon>
      className="wide-table"
      size="small"
      rowKey="botanical"
      dataSource={fits ? [...taxa].sort((a, b) => fits(b).score - fits(a).score) : taxa}
      pagination={false}
      columns={[
        {
          title: 'Kind',
          render: (_, t) => (
            <>
              <Link to={{ pathname: `taxon/${encodeURIComponent(t.botanical)}`, search }}>
                <KindName of={t} />
              </Link>{' '}
              <small>
                {t.own && 'your own. '}
                {fits && `${capitalised(fits(t).reason)}.`}
              </small>
            </>
          ),
        },
        { title: 'Form', dataIndex: 'lifeForm', width: 140 },
        {
          title: 'Height, m',
          dataIndex: 'heightM',
          width: 92,
          align: 'right',
          sorter: (a, b) => a.heightM - b.heightM,
        },
        {
          title: 'Spread, m',
          dataIndex: 'spreadM',
          width: 92,
          align: 'right',
          sorter: (a, b) => a.spreadM - b.spreadM,
        },
        {
          title: 'Sun it likes',
          width: 140,
          render: (_, t) => lightRange(t),
          sorter: (a, b) => a.lightMinHours - b.lightMinHours,
        },
        { title: 'Afternoon heat', dataIndex: 'hotAfternoon', width: 120 },
        { title: 'Moved', dataIndex: 'moveWhen', width: 110 },
        {
          title: 'Drift of 5 spans',
          width: 120,
          align: 'right',
          render: (_, t) => <>{(2 * driftRadiusM(5, t.spacingM)).toFixed(1)} m</>,
        },
      ]}
    />
  )
}

/** Taxa that fit a place less well are not shown. */
const LEAST_FIT = 0.7

/** How well a taxon would stand in the middle of a place: its light, its ground, its winters. */
function usePlaceFit(feature: FeatureView | undefined): ((taxon: Taxon) => Fit) | undefined {
  const { view, on } = useGardenContext()
  return useMemo(() => {
    const place = feature && placeOf(feature)
    if (!place) return undefined
    const [x, y] = middleOf(feature.geometry)
    const point = { x, y, z: surfaceHeightM(place) }
    const scene = sceneOf(view.garden, view.features)
    const [hours] = sunHours(scene, [point], { kind: 'season', on }, place.ground ?? undefined)
    const spot = {
      hours: hours!,
      moisture: place.moisture,
      wind: place.wind,
      summer: summerOf(view.climate),
      rootsOf: rootsAt(rootZones(scene, on), x, y),
    }
    return (taxon) => {
      const winter = view.climate ? winterHere(taxon, view.climate, place.kind) : 'hardy'
      const fit = fitOf(taxon, spot)
      if (winter === 'hardy' || taxon.annualSeason !== null) return fit
      const score = Math.min(fit.score, winter === 'at risk' ? AT_RISK_SCORE : 0)
      const reason =
        winter === 'no winter' ? 'it wants a winter, and has none here' : 'at the limit of its hardiness here'
      return score < fit.score ? { score, limiting: 'none', reason } : fit
    }
  }, [feature, view, on])
}

const AT_RISK_SCORE = 0.75
