import type { PlantingView } from '@border/contract'
import {
  compareTags,
  counted,
  dayMonthYear,
  isUnknown,
  plantedWords,
  taxonSearch,
  type Assessment,
} from '@border/core'
import { Input, Table, type TableColumnsType } from 'antd'
import { useMemo, useState } from 'react'
import { Link, useLocation } from 'react-router'
import { Button } from '../frame/Button.tsx'
import { useAssessment } from '../verdicts/queries.ts'
import { Answered } from '../frame/Answered.tsx'
import { Segments } from '../frame/Segments.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { ScreenHead } from '../frame/ScreenHead.tsx'
import { Library } from './Library.tsx'
import { AddPlants } from './AddPlants.tsx'
import { PlantingForm } from './PlantingForm.tsx'
import { ToBeNamed } from './ToBeNamed.tsx'
import { PutManyRight } from './PutManyRight.tsx'
import './plants.css'
import { KindName } from '../frame/KindName.tsx'

/** What grows in the garden, by tag, with how each stands in its light; and the library. */
export function PlantsScreen() {
  const { view, on, isHead } = useGardenContext()
  const { search } = useLocation()
  const [shown, setShown] = useState<'plantings' | 'library'>('plantings')
  const [text, setText] = useState('')
  const [adding, setAdding] = useState<'many' | 'one'>()
  const [correcting, setCorrecting] = useState(false)
  return (
    <>
      <ScreenHead
        title="Plants"
        lead={
          <>
            <b>{counted(view.plantings.length, 'planting')}</b> of{' '}
            {counted(taxaOf(view.plantings).size, 'taxon', 'taxa')} on {dayMonthYear(on)}.
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
        {shown === 'plantings' && view.plantings.length > 0 && (
          <Link to={{ pathname: 'labels', search }}>Labels</Link>
        )}
        {isHead && (
          <>
            {shown === 'plantings' && view.plantings.length > 0 && (
              <Button onClick={() => setCorrecting(!correcting)}>
                {correcting ? 'Back to the list' : 'Put many right'}
              </Button>
            )}
            <Button look="primary" onClick={() => setAdding('many')}>
              Add plants
            </Button>
          </>
        )}
      </ScreenHead>
      <div className="screen-body">
        {shown === 'library' ? (
          <Library text={text} />
        ) : correcting ? (
          <Correcting text={text} onDone={() => setCorrecting(false)} />
        ) : (
          <>
            <ToBeNamed />
            <Plantings text={text} />
          </>
        )}
      </div>
      {adding === 'many' && <AddPlants onClose={() => setAdding(undefined)} onOne={() => setAdding('one')} />}
      {adding === 'one' && <PlantingForm onClose={() => setAdding(undefined)} />}
    </>
  )
}

/** Kinds among plantings; what nobody has named is none. */
const taxaOf = (plantings: readonly PlantingView[]) =>
  new Set(plantings.filter((p) => !isUnknown(p.taxon)).map((p) => p.taxon.botanical))

const matches = (text: string, ...values: (string | undefined | null)[]) =>
  values.some((v) => v?.toLowerCase().includes(text.trim().toLowerCase()))

const byText = (pick: (p: PlantingView) => string) => (a: PlantingView, b: PlantingView) =>
  pick(a).localeCompare(pick(b))

/** Plantings that a text finds, by tag, name, place or what they are for. */
function useFound(text: string): PlantingView[] {
  const { view } = useGardenContext()
  const placeName = new Map(view.features.map((f) => [f.id, f.name]))
  const isAsked = text.trim() !== ''
  const search = useMemo(
    () => (isAsked ? taxonSearch(view.plantings.map((p) => p.taxon)) : undefined),
    [isAsked, view.plantings],
  )
  // By any name, with a letter wrong too, as everywhere that a plant is named.
  const named = new Set(search?.find(text).map((t) => t.botanical))
  return view.plantings.filter(
    (p) =>
      named.has(p.taxon.botanical) ||
      matches(text, p.tag, p.taxon.botanical, p.taxon.common, placeName.get(p.placeId), p.role),
  )
}

const Correcting = ({ text, onDone }: { text: string; onDone: () => void }) => (
  <PutManyRight rows={useFound(text)} onDone={onDone} />
)

function Plantings({ text }: { text: string }) {
  const { view, asOf } = useGardenContext()
  const { search } = useLocation()
  const assessment = useAssessment(view.garden.id, asOf)
  const { data } = assessment
  const verdicts = useMemo(() => new Map(data?.assessments.map((a) => [a.plantingId, a])), [data])
  const placeName = useMemo(() => new Map(view.features.map((f) => [f.id, f.name])), [view.features])
  const rows = useFound(text)
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
        columns={plantingColumns(nameOf, (p) => verdicts.get(p.id), search)}
      />
    </>
  )
}

const plantingColumns = (
  nameOf: (p: PlantingView) => string,
  assessmentOf: (p: PlantingView) => Assessment | undefined,
  search: string,
): TableColumnsType<PlantingView> => [
  {
    title: 'Tag',
    dataIndex: 'tag',
    width: 82,
    sorter: (a, b) => compareTags(a.tag, b.tag),
    render: (tag, p) => <Link to={{ pathname: p.id, search }}>{tag}</Link>,
  },
  {
    title: 'Taxon',
    sorter: byText((p) => p.taxon.botanical),
    render: (_, p) => <KindName of={p.taxon} />,
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
    render: (_, p) => <>{plantedWords(p).replace(/^on /, '')}</>,
  },
  {
    title: 'Sun, h',
    width: 130,
    align: 'right',
    sorter: (a, b) => (assessmentOf(a)?.now.total ?? 0) - (assessmentOf(b)?.now.total ?? 0),
    render: (_, p) => {
      const a = assessmentOf(p)
      return a
        ? `${a.now.total.toFixed(1)}${a.outside ? (a.fit.hoursOutside < 0 ? ' too little' : a.fit.hoursOutside > 0 ? ' too much' : ' too hot') : ''}`
        : '…'
    },
  },
]
