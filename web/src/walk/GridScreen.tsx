import type { ObservationEntry, WalkPlanting, WalkView } from '@border/contract'
import { bloomStages, counted, dayMonthYear, isSign, signs, stageWords, type BloomStage } from '@border/core'
import { Input, Select } from 'antd'
import dayjs from 'dayjs'
import { memo, useState } from 'react'
import { Link, useLocation } from 'react-router'
import { useSignedIn } from '../api/session.ts'
import { useGardenContext } from '../frame/gardenContext.ts'
import { Waiting } from '../frame/Answered.tsx'
import { ScreenHead } from '../frame/ScreenHead.tsx'
import type { QueuedEntry } from '../offline/queued.ts'
import { ForWalkers } from './ForWalkers.tsx'
import { useNotes, type PlantingPatch } from './useNotes.ts'
import './sheet.css'
import { KindName } from '../frame/KindName.tsx'
import { DayPicker } from '../units/DayPicker.tsx'
import { QuantityInput } from '../units/QuantityInput.tsx'

const signOptions = signs.map((s) => ({ value: s.id, label: s.says }))
const stageOptions = bloomStages.map((s) => ({ value: s, label: stageWords[s] }))

/** A walk that was noted on paper, typed in: a row a planting, in the order of the sheet, Tab from cell to cell. */
export const GridScreen = () => (
  <ForWalkers title="Type a sheet in">{(walk) => <Grid walk={walk} />}</ForWalkers>
)

function Grid({ walk }: { walk: WalkView }) {
  const { view, today } = useGardenContext()
  const { search } = useLocation()
  const session = useSignedIn()
  const [day, setDay] = useState(today)
  const notes = useNotes(view.garden.id, session, day)
  if (!notes.noted) return <Waiting />
  const { noted } = notes
  const typed = [...noted.values()].filter((q) => q.entry.kind === 'planting').length
  return (
    <>
      <ScreenHead
        title="Type a sheet in"
        lead={
          <>
            <b>{counted(typed, 'planting')} typed in</b> for {dayMonthYear(day)}. Each cell is kept as you
            leave it; leave empty what the sheet leaves empty.
          </>
        }
      >
        <DayPicker
          aria-label="Day of the walk"
          allowClear={false}
          maxDate={dayjs(today)}
          value={dayjs(day)}
          onChange={(d) => d && setDay(d.format('YYYY-MM-DD'))}
        />
        <Link to={{ pathname: '../walk', search }}>Back to the walk</Link>
      </ScreenHead>
      <div className="screen-body">
        {walk.places
          .filter((p) => p.plantings.length > 0)
          .map((p) => (
            <PlaceTable key={p.id} place={p} noted={noted} day={day} onChange={notes.planting} />
          ))}
      </div>
    </>
  )
}

interface PlaceTableProps {
  place: WalkView['places'][number]
  noted: ReadonlyMap<string, QueuedEntry>
  day: string
  onChange: RowProps['onChange']
}

function PlaceTable({ place, noted, day, onChange }: PlaceTableProps) {
  return (
    <table className="grid">
      <caption>
        <h2>{place.name}</h2>
      </caption>
      <thead>
        <tr>
          <th>Planting</th>
          <th>Rating</th>
          <th>Bloom</th>
          <th>Living</th>
          <th>Signs</th>
          <th>Note</th>
        </tr>
      </thead>
      <tbody>
        {place.plantings.map((x) => {
          const entry = noted.get(`planting ${x.id}`)?.entry
          return (
            <Row
              // Another day is another row: what is half typed does not move along.
              key={`${x.id} ${day}`}
              planting={x}
              entry={entry?.kind === 'planting' ? entry : undefined}
              onChange={onChange}
            />
          )
        })}
      </tbody>
    </table>
  )
}

interface RowProps {
  planting: WalkPlanting
  entry: ObservationEntry | undefined
  onChange: (plantingId: string, patch: PlantingPatch) => void
}

const Row = memo(function Row({ planting, entry, onChange }: RowProps) {
  const [note, setNote] = useState<string>()
  const set = (patch: PlantingPatch) => onChange(planting.id, patch)
  const of = `${planting.tag}, ${planting.botanical}`
  return (
    <tr>
      <th scope="row">
        {planting.tag} <KindName of={planting} isShort />
      </th>
      <td>
        <Input
          aria-label={`Rating of ${of}; 0 when nothing shows`}
          className="grid-rating"
          maxLength={1}
          inputMode="numeric"
          value={entry?.absent ? '0' : (entry?.rating?.toString() ?? '')}
          onChange={(e) => {
            const typed = e.target.value
            if (typed === '') set({ rating: undefined, absent: false })
            else if (typed === '0')
              set({ absent: true, rating: undefined, stage: undefined, living: undefined })
            else if (/^[1-5]$/.test(typed)) set({ rating: Number(typed), absent: false })
          }}
        />
      </td>
      <td>
        <Select<BloomStage | undefined>
          aria-label={`Bloom of ${of}`}
          allowClear
          showSearch
          popupMatchSelectWidth={false}
          value={entry?.stage}
          options={stageOptions}
          onChange={(stage) => set({ stage, absent: false })}
        />
      </td>
      <td>
        <QuantityInput
          aria-label={`Living of ${of}, ${planting.plantedCount} planted`}
          min={1}
          max={10_000}
          precision={0}
          value={entry?.living ?? null}
          placeholder={String(planting.livingCount)}
          onChange={(v) => set({ living: v ?? undefined, absent: false })}
        />
      </td>
      <td>
        <Select
          aria-label={`Signs of ${of}`}
          mode="multiple"
          optionFilterProp="label"
          popupMatchSelectWidth={false}
          maxTagCount={2}
          value={(entry?.signs ?? []).filter(isSign)}
          options={signOptions}
          onChange={(chosen) => set({ signs: chosen })}
        />
      </td>
      <td>
        <Input
          aria-label={`Note on ${of}`}
          maxLength={2000}
          value={note ?? entry?.note ?? ''}
          onChange={(e) => setNote(e.target.value)}
          onBlur={() => {
            if (note !== undefined && note !== (entry?.note ?? '')) set({ note: note.trim() || undefined })
            setNote(undefined)
          }}
        />
      </td>
    </tr>
  )
})
