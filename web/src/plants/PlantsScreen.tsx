import { taxonEndpoints, type FeatureView, type KnownTaxon, type PlantingView } from '@border/contract'
import {
  capitalised,
  counted,
  dayMonthYear,
  driftRadiusM,
  fitOf,
  isPlace,
  lightRange,
  middleOf,
  placeOf,
  sceneOf,
  sunHours,
  surfaceHeightM,
  taxonSearch,
  winterHere,
  type Fit,
  type Taxon,
} from '@border/core'
import { Input, Select, Table } from 'antd'
import { useMemo, useState } from 'react'
import { Link, useLocation, useNavigate } from 'react-router'
import { hrefOf } from '../api/client.ts'
import { useSignedIn } from '../api/session.ts'
import { usePracticeWrite } from '../api/writes.ts'
import { Button } from '../frame/Button.tsx'
import { useAssessment } from '../verdicts/queries.ts'
import { Answered } from '../frame/Answered.tsx'
import { Segments } from '../frame/Segments.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { ScreenHead } from '../frame/ScreenHead.tsx'
import { useTaxa } from './queries.ts'
import { PlantingForm } from './PlantingForm.tsx'
import { BringCsv } from '../setup/BringCsv.tsx'
import { TaxonForm } from './TaxonForm.tsx'
import './plants.css'

/** What grows in the garden, by tag, with how each stands in its light; and the library. */
export function PlantsScreen() {
  const { view, on, isHead } = useGardenContext()
  const [shown, setShown] = useState<'plantings' | 'library'>('plantings')
  const [text, setText] = useState('')
  const [adding, setAdding] = useState(false)
  return (
    <>
      <ScreenHead
        title="Plants"
        lead={
          <>
            <b>{counted(view.plantings.length, 'planting')}</b> of{' '}
            {counted(new Set(view.plantings.map((p) => p.taxon.botanical)).size, 'taxon', 'taxa')} on{' '}
            {dayMonthYear(on)}.
          </>
        }
      >
        <Segments
          label="List"
          value={shown}
          onChange={setShown}
          options={[
            { value: 'plantings', label: 'Plantings' },
            { value: 'library', label: 'Library' },
          ]}
        />
        <Input.Search
          aria-label="Search"
          placeholder="Name, tag or place"
          allowClear
          style={{ width: 210 }}
          onChange={(e) => setText(e.target.value)}
        />
        {isHead && (
          <Button look="primary" onClick={() => setAdding(true)}>
            Add a planting
          </Button>
        )}
      </ScreenHead>
      <div className="screen-body">
        {shown === 'plantings' ? <Plantings text={text} /> : <Library text={text} />}
      </div>
      {adding && <PlantingForm onClose={() => setAdding(false)} />}
    </>
  )
}

const matches = (text: string, ...values: (string | undefined | null)[]) =>
  values.some((v) => v?.toLowerCase().includes(text.trim().toLowerCase()))

const byText = (pick: (p: PlantingView) => string) => (a: PlantingView, b: PlantingView) =>
  pick(a).localeCompare(pick(b))

function Plantings({ text }: { text: string }) {
  const { view, asOf } = useGardenContext()
  const { search } = useLocation()
  const assessment = useAssessment(view.garden.id, asOf)
  const { data } = assessment
  const verdicts = useMemo(() => new Map(data?.assessments.map((a) => [a.plantingId, a])), [data])
  const placeName = useMemo(() => new Map(view.features.map((f) => [f.id, f.name])), [view.features])
  const rows = view.plantings.filter((p) =>
    matches(text, p.tag, p.taxon.botanical, p.taxon.common, placeName.get(p.placeId), p.role),
  )
  const nameOf = (p: PlantingView) => placeName.get(p.placeId) ?? ''
  return (
    <>
      <Answered of={[assessment]} quiet>
        {() => null}
      </Answered>
      <Table<PlantingView>
        className="wide-table"
        size="small"
        rowKey="id"
        dataSource={rows}
        pagination={rows.length > 200 ? { pageSize: 200 } : false}
        locale={{
          emptyText:
            view.plantings.length === 0
              ? 'No plantings yet. Add one, or bring a garden in from files.'
              : 'Nothing matches.',
        }}
        columns={[
          {
            title: 'Tag',
            dataIndex: 'tag',
            width: 82,
            sorter: byText((p) => p.tag),
            render: (tag, p) => <Link to={{ pathname: p.id, search }}>{tag}</Link>,
          },
          {
            title: 'Taxon',
            sorter: byText((p) => p.taxon.botanical),
            render: (_, p) => (
              <>
                <span className="taxon">{p.taxon.botanical}</span> <small>{p.taxon.common}</small>
              </>
            ),
          },
          { title: 'Place', width: 170, sorter: byText(nameOf), render: (_, p) => nameOf(p) },
          {
            title: 'Living',
            width: 76,
            align: 'right',
            sorter: (a, b) => a.livingCount - b.livingCount,
            render: (_, p) => `${p.livingCount} of ${p.plantedCount}`,
          },
          {
            title: 'Planted',
            width: 140,
            sorter: byText((p) => p.plantedOn),
            render: (_, p) => dayMonthYear(p.plantedOn),
          },
          {
            title: 'Sun, h',
            width: 130,
            align: 'right',
            sorter: (a, b) => (verdicts.get(a.id)?.now.total ?? 0) - (verdicts.get(b.id)?.now.total ?? 0),
            render: (_, p) => {
              const a = verdicts.get(p.id)
              return a
                ? `${a.now.total.toFixed(1)}${a.outside ? (a.fit.hoursOutside < 0 ? ' too little' : a.fit.hoursOutside > 0 ? ' too much' : ' too hot') : ''}`
                : '…'
            },
          },
        ]}
      />
    </>
  )
}

/** The library, found by any name of a taxon, with a letter wrong here and there, and by how it fits a place. */
function Library({ text }: { text: string }) {
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
            <Button onClick={() => setAdding(true)}>A taxon of your own</Button>
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
          title: 'Taxon',
          render: (_, t) => (
            <>
              <Link to={{ pathname: `taxon/${encodeURIComponent(t.botanical)}`, search }} className="taxon">
                {t.botanical}
              </Link>{' '}
              <small>
                {t.common}
                {t.own && ', your own'}
                {fits && `. ${capitalised(fits(t).reason)}.`}
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
          render: (_, t) => `${(2 * driftRadiusM(5, t.spacingM)).toFixed(1)} m`,
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
    const [hours] = sunHours(
      sceneOf(view.garden, view.features),
      [point],
      { kind: 'season', on },
      place.ground ?? undefined,
    )
    const spot = { hours: hours!, moisture: place.moisture }
    return (taxon) => {
      const winter = view.climate ? winterHere(taxon, view.climate, place.kind) : 'hardy'
      const fit = fitOf(taxon, spot)
      if (winter === 'hardy' || taxon.annualSeason !== null) return fit
      const score = Math.min(fit.score, winter === 'tender' ? 0 : AT_RISK_SCORE)
      return score < fit.score
        ? { score, limiting: 'none', reason: 'at the limit of its hardiness here' }
        : fit
    }
  }, [feature, view, on])
}

const AT_RISK_SCORE = 0.75
