import { walkEndpoints, type PlantingView } from '@border/contract'
import { ratingWords, signs, type SignId } from '@border/core'
import { Input, Select } from 'antd'
import { useState } from 'react'
import { useGardenWrite } from '../api/writes.ts'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { Choose } from '../frame/Choose.tsx'
import { PastDay } from '../frame/PastDay.tsx'
import '../draw/draw.css'
import { QuantityInput } from '../units/QuantityInput.tsx'

/** A look of a day that is past, from a notebook: how it did, how many lived, what was wrong with it. */
export function PastLook({ planting }: { planting: PlantingView }) {
  const { view } = useGardenContext()
  const [on, setOn] = useState<string>()
  const [rating, setRating] = useState('')
  const [living, setLiving] = useState<number | null>(null)
  const [seen, setSeen] = useState<readonly SignId[]>([])
  const [note, setNote] = useState('')
  const [why, setWhy] = useState<string>()
  const says = rating !== '' || living !== null || seen.length > 0 || note.trim() !== ''
  const send = useGardenWrite(walkEndpoints.note, { gardenId: view.garden.id }, (_, { refused }) =>
    refused.length > 0 ? 'Not kept: see below the form.' : 'Kept as a look of that day.',
  )
  const keep = () => {
    const entry = {
      kind: 'planting' as const,
      id: crypto.randomUUID(),
      plantingId: planting.id,
      on: on!,
      // Of a day in the garden's past: when in it nobody knows.
      at: `${on}T12:00:00.000Z`,
      ...(rating && { rating: Number(rating) }),
      ...(living !== null && { living }),
      ...(note.trim() && { note: note.trim() }),
      signs: [...seen],
    }
    send.mutate(
      { entries: [entry] },
      {
        onSuccess: ({ refused }) => {
          setWhy(refused[0]?.why)
          if (refused.length > 0) return
          setRating('')
          setLiving(null)
          setSeen([])
          setNote('')
        },
      },
    )
  }
  return (
    <details>
      <summary>
        <h2>A past look</h2>
      </summary>
      <div className="stack">
        <div className="draw-sizes">
          <div className="draw-field">
            <span>Day</span>
            <PastDay label="Day of the look" value={on} onChange={setOn} />
          </div>
          <label className="draw-field">
            <span>How it did</span>
            <Choose
              label="How it did"
              value={rating}
              onChange={setRating}
              options={[
                { value: '', label: 'not said' },
                ...ratingWords.map((w, i) => ({ value: String(i + 1), label: `${i + 1}, ${w}` })),
              ]}
            />
          </label>
          <label className="draw-field">
            <span>How many lived</span>
            <QuantityInput
              aria-label="How many lived"
              min={1}
              max={10_000}
              precision={0}
              suffix={`of ${planting.plantedCount}`}
              value={living}
              onChange={setLiving}
            />
          </label>
          <div className="draw-field">
            <span>Signs</span>
            <Select
              mode="multiple"
              aria-label="Signs"
              placeholder="none"
              value={[...seen]}
              onChange={setSeen}
              optionFilterProp="label"
              options={signs.map((s) => ({ value: s.id, label: s.says }))}
            />
          </div>
          <label className="draw-field wide">
            <span>In words</span>
            <Input value={note} maxLength={2000} onChange={(e) => setNote(e.target.value)} />
          </label>
        </div>
        {why && <p role="alert">{why}</p>}
        <div>
          <Button loading={send.isPending} disabled={!on || !says} onClick={keep}>
            Keep the look
          </Button>
        </div>
      </div>
    </details>
  )
}
