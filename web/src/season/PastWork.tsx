import { seasonEndpoints } from '@border/contract'
import { capitalised, compareTags, isPlace, pastOperations, type PastOperation } from '@border/core'
import { Input, Select } from 'antd'
import { useState } from 'react'
import { useGardenWrite } from '../api/writes.ts'
import { Button } from '../frame/Button.tsx'
import { Choose } from '../frame/Choose.tsx'
import { PastDay } from '../frame/PastDay.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import '../draw/draw.css'
import { QuantityInput } from '../units/QuantityInput.tsx'

interface Props {
  /** Of one planting; otherwise of whichever place and plantings are chosen. */
  plantingId?: string
  onKept?: () => void
}

/** Work that was done before, where nothing had asked for it: what, to what, when, and how long it took where that is known. */
export function PastWork({ plantingId, onKept }: Props) {
  const { view, today, standing } = useGardenContext()
  const one = view.plantings.find((p) => p.id === plantingId)
  const places = standing.filter(isPlace)
  const [operation, setOperation] = useState<PastOperation>('prune')
  const [chosenPlace, choosePlace] = useState(places[0]?.id ?? '')
  const [plantingIds, setPlantingIds] = useState<readonly string[]>([])
  const [on, setOn] = useState<string | undefined>(today)
  const [minutes, setMinutes] = useState<number | null>(null)
  const [note, setNote] = useState('')
  const placeId = one?.placeId ?? chosenPlace
  const record = useGardenWrite(
    seasonEndpoints.recordPast,
    { gardenId: view.garden.id },
    'In the record. What is due next is worked out from it.',
  )
  const keep = () =>
    record.mutate(
      {
        id: crypto.randomUUID(),
        on: on!,
        operation,
        placeId,
        plantingIds: one ? [one.id] : [...plantingIds],
        minutes,
        ...(note.trim() && { note: note.trim() }),
      },
      {
        onSuccess: () => {
          setNote('')
          setMinutes(null)
          onKept?.()
        },
      },
    )
  const there = view.plantings.filter((p) => p.placeId === placeId).sort((a, b) => compareTags(a.tag, b.tag))
  return (
    <div className="stack">
      <div className="draw-sizes">
        <label className="draw-field">
          <span>What was done</span>
          <Choose
            label="Work that was done"
            value={operation}
            onChange={setOperation}
            options={pastOperations.map((o) => ({ value: o, label: capitalised(o) }))}
          />
        </label>
        <div className="draw-field">
          <span>Day</span>
          <PastDay label="Day of the work" value={on} onChange={setOn} />
        </div>
        {!one && (
          <>
            <label className="draw-field">
              <span>In</span>
              <Choose
                label="In which place"
                value={placeId}
                onChange={(id) => {
                  choosePlace(id)
                  setPlantingIds([])
                }}
                options={places.map((p) => ({ value: p.id, label: p.name }))}
              />
            </label>
            <div className="draw-field">
              <span>To which plants</span>
              <Select
                mode="multiple"
                aria-label="To which plants"
                placeholder="the place as a whole"
                value={[...plantingIds]}
                onChange={setPlantingIds}
                optionFilterProp="label"
                options={there.map((p) => ({ value: p.id, label: `${p.tag} ${p.taxon.botanical}` }))}
              />
            </div>
          </>
        )}
        <label className="draw-field">
          <span>Took, if you know</span>
          <QuantityInput
            aria-label="Minutes it took"
            min={1}
            max={10_000}
            precision={0}
            suffix="min"
            value={minutes}
            onChange={setMinutes}
          />
        </label>
        <label className="draw-field">
          <span>Note</span>
          <Input value={note} maxLength={2000} onChange={(e) => setNote(e.target.value)} />
        </label>
      </div>
      <div>
        <Button loading={record.isPending} disabled={placeId === '' || on === undefined} onClick={keep}>
          Write it down
        </Button>
      </div>
    </div>
  )
}
