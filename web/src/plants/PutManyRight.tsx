import { plantingEndpoints, plantingSeen, type PlantingAmendment, type PlantingView } from '@border/contract'
import { compareTags, counted, isPlace, readPlanted, writtenPlanted } from '@border/core'
import { Alert, Input } from 'antd'
import { useState } from 'react'
import { useGardenWrite } from '../api/writes.ts'
import { Button } from '../frame/Button.tsx'
import { Choose } from '../frame/Choose.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { TaxonSelect } from './TaxonSelect.tsx'
import '../draw/draw.css'
import './plants.css'
import { QuantityInput } from '../units/QuantityInput.tsx'

/** What somebody has written otherwise of one planting. */
interface Written {
  tag?: string
  botanical?: string
  placeId?: string
  count?: number
  planted?: string
  x?: number
  y?: number
  role?: string
}

/** Plantings corrected in a table, many at once: what is written otherwise is marked, and kept all together or not at all. */
export function PutManyRight({ rows, onDone }: { rows: readonly PlantingView[]; onDone: () => void }) {
  const { view, today, standing } = useGardenContext()
  const [written, setWritten] = useState<ReadonlyMap<string, Written>>(new Map())
  const [seen] = useState(() => new Map(view.plantings.map((p) => [p.id, p])))
  const amend = useGardenWrite(
    plantingEndpoints.amend,
    { gardenId: view.garden.id },
    ({ plantings }) => `${counted(plantings.length, 'planting')} put right.`,
    ({ plantings }) => plantings.flatMap((p) => seen.get(p.plantingId) ?? []).map(plantingSeen),
  )
  const places = standing.filter(isPlace).map((p) => ({ value: p.id, label: p.name }))
  const write = (p: PlantingView, change: Written) =>
    setWritten(new Map(written).set(p.id, { ...written.get(p.id), ...change }))
  const changes = [...written].flatMap(([id, w]) => {
    const amendment = amendmentOf(seen.get(id)!, w, today)
    return amendment === undefined ? [] : [amendment]
  })
  const wrong = [...written].flatMap(([id, w]) =>
    w.planted !== undefined && !readPlanted(w.planted, today) ? [seen.get(id)!.tag] : [],
  )
  return (
    <section aria-label="Put many right" className="stack">
      <p className="soft">
        Write over what is wrong. It was always so: looks, work and light go by it from the start. The day may
        be a year, “before 2015” or “unknown”.
      </p>
      <div className="table-scroll">
        <table className="plain-table many-table">
          <thead>
            <tr>
              {['Tag', 'Taxon', 'Place', 'Planted', 'When', 'East', 'North', 'What for'].map((h) => (
                <th key={h}>{h}</th>
              ))}
            </tr>
          </thead>
          <tbody>
            {[...rows]
              .sort((a, b) => compareTags(a.tag, b.tag))
              .map((p) => (
                <ManyRow
                  key={p.id}
                  planting={p}
                  written={written.get(p.id) ?? NOTHING}
                  places={places}
                  isWrong={wrong.includes(p.tag)}
                  onWrite={(change) => write(p, change)}
                />
              ))}
          </tbody>
        </table>
      </div>
      {wrong.length > 0 && (
        <Alert
          type="error"
          title={`When ${wrong.join(', ')} was planted cannot be read: write 2024-05-01, 2019, before 2015 or unknown.`}
        />
      )}
      <div className="row keep-bar many-keep">
        <Button
          look="primary"
          disabled={changes.length === 0 || wrong.length > 0}
          loading={amend.isPending}
          onClick={() => amend.mutate({ plantings: changes }, { onSuccess: onDone })}
        >
          Put {counted(changes.length, 'planting')} right
        </Button>
        <Button onClick={onDone}>{changes.length > 0 ? 'Cancel' : 'Close'}</Button>
      </div>
    </section>
  )
}

const NOTHING: Written = {}

interface RowProps {
  planting: PlantingView
  written: Written
  places: readonly { value: string; label: string }[]
  isWrong: boolean
  onWrite: (change: Written) => void
}

function ManyRow({ planting: p, written: w, places, isWrong, onWrite }: RowProps) {
  const is = (key: keyof Written) => (w[key] === undefined ? undefined : 'changed')
  const of = (what: string) => `${what} of ${p.tag}`
  return (
    <tr>
      <td className={is('tag')}>
        <Input
          aria-label={of('Tag')}
          size="small"
          value={w.tag ?? p.tag}
          maxLength={40}
          onChange={(e) => onWrite({ tag: e.target.value })}
        />
      </td>
      <td className={is('botanical')}>
        <TaxonSelect
          orUnknown
          size="small"
          label={of('Taxon')}
          value={w.botanical ?? p.taxon.botanical}
          style={{ width: 210 }}
          onChange={(botanical) => onWrite({ botanical })}
        />
      </td>
      <td className={is('placeId')}>
        <Choose
          label={of('Place')}
          value={w.placeId ?? p.placeId}
          options={places}
          onChange={(placeId) => onWrite({ placeId })}
        />
      </td>
      <td className={is('count')}>
        <QuantityInput
          aria-label={of('How many')}
          size="small"
          min={1}
          max={10_000}
          precision={0}
          style={{ width: 70 }}
          value={w.count ?? p.plantedCount}
          onChange={(count) => count && onWrite({ count })}
        />
      </td>
      <td className={is('planted')}>
        <Input
          aria-label={of('When')}
          size="small"
          status={isWrong ? 'error' : ''}
          style={{ width: 110 }}
          value={w.planted ?? writtenPlanted(p)}
          onChange={(e) => onWrite({ planted: e.target.value })}
        />
      </td>
      {(['x', 'y'] as const).map((axis) => (
        <td key={axis} className={is(axis)}>
          <QuantityInput
            aria-label={of(axis === 'x' ? 'Metres east' : 'Metres north')}
            size="small"
            step={0.1}
            precision={2}
            style={{ width: 80 }}
            value={w[axis] ?? p[axis]}
            onChange={(v) => v !== null && onWrite({ [axis]: v })}
          />
        </td>
      ))}
      <td className={is('role')}>
        <Input
          aria-label={of('What for')}
          size="small"
          maxLength={120}
          style={{ width: 120 }}
          value={w.role ?? p.role ?? ''}
          onChange={(e) => onWrite({ role: e.target.value })}
        />
      </td>
    </tr>
  )
}

/** What is otherwise than it was; undefined where nothing is. */
export function amendmentOf(p: PlantingView, w: Written, today: string): PlantingAmendment | undefined {
  const planted = w.planted === undefined ? undefined : readPlanted(w.planted, today)
  const said: PlantingAmendment = { plantingId: p.id }
  if (w.tag !== undefined && w.tag.trim() !== p.tag) said.tag = w.tag.trim()
  if (w.botanical !== undefined && w.botanical !== p.taxon.botanical) said.taxonBotanical = w.botanical
  if (w.placeId !== undefined && w.placeId !== p.placeId) said.placeId = w.placeId
  if (w.count !== undefined && w.count !== p.plantedCount) said.count = w.count
  if (planted && writtenPlanted(planted) !== writtenPlanted(p)) Object.assign(said, planted)
  if (w.x !== undefined && w.x !== p.x) said.x = w.x
  if (w.y !== undefined && w.y !== p.y) said.y = w.y
  if (w.role !== undefined && w.role.trim() !== (p.role ?? '')) said.role = w.role.trim()
  return Object.keys(said).length > 1 ? said : undefined
}
