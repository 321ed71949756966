import type { PlantingRecord } from '@border/contract'
import { counted, dayMonthYear, driftRadiusM, lightRange, taxonSearch } from '@border/core'
import { Button, Input, Segmented, Table } from 'antd'
import { useMemo, useState } from 'react'
import { Link, useLocation } from 'react-router'
import { useAssessment, useTaxa } from '../api/queries.ts'
import { useGardenContext } from '../frame/GardenFrame.tsx'
import { AddPlanting } from './AddPlanting.tsx'
import './plants.css'

/** What grows in the garden, by tag, with how each stands in its light; and the library. */
export function Screen() {
  const { view, on, isHead } = useGardenContext()
  const [shown, setShown] = useState<'plantings' | 'library'>('plantings')
  const [text, setText] = useState('')
  const [adding, setAdding] = useState(false)
  return (
    <>
      <header className="screen-head">
        <div>
          <h1>Plants</h1>
          <p>
            <b>{counted(view.plantings.length, 'planting')}</b> of{' '}
            {counted(new Set(view.plantings.map((p) => p.taxon.botanical)).size, 'taxon', 'taxa')} on{' '}
            {dayMonthYear(on)}.
          </p>
        </div>
        <div className="screen-tools">
          <Segmented
            aria-label="List"
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
            <Button type="primary" onClick={() => setAdding(true)}>
              Add a planting
            </Button>
          )}
        </div>
      </header>
      <div className="screen-body">
        {shown === 'plantings' ? <Plantings text={text} /> : <Library text={text} />}
      </div>
      {adding && <AddPlanting onClose={() => setAdding(false)} />}
    </>
  )
}

const matches = (text: string, ...values: (string | undefined | null)[]) =>
  values.some((v) => v?.toLowerCase().includes(text.trim().toLowerCase()))

const byText = (pick: (p: PlantingRecord) => string) => (a: PlantingRecord, b: PlantingRecord) =>
  pick(a).localeCompare(pick(b))

function Plantings({ text }: { text: string }) {
  const { view, on } = useGardenContext()
  const { search } = useLocation()
  const { data } = useAssessment(view.garden.id, on)
  const verdicts = useMemo(() => new Map(data?.assessments.map((a) => [a.plantingId, a])), [data])
  const placeName = useMemo(() => new Map(view.features.map((f) => [f.id, f.name])), [view.features])
  const rows = view.plantings.filter((p) =>
    matches(text, p.tag, p.taxon.botanical, p.taxon.common, placeName.get(p.placeId), p.role),
  )
  const nameOf = (p: PlantingRecord) => placeName.get(p.placeId) ?? ''
  return (
    <Table<PlantingRecord>
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
  )
}

/** The library, found by any name of a kind, with a letter wrong here and there. */
function Library({ text }: { text: string }) {
  const { data, isPending } = useTaxa()
  const { search } = useLocation()
  const index = useMemo(() => taxonSearch(data ?? []), [data])
  const found = text.trim() === '' ? data : index.find(text)
  return (
    <Table
      className="wide-table"
      size="small"
      rowKey="botanical"
      loading={isPending}
      dataSource={found}
      pagination={false}
      columns={[
        {
          title: 'Taxon',
          render: (_, t) => (
            <>
              <Link to={{ pathname: `kind/${encodeURIComponent(t.botanical)}`, search }} className="taxon">
                {t.botanical}
              </Link>{' '}
              <small>{t.common}</small>
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
