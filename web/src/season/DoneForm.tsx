import type { JobDone, JobView } from '@border/contract'
import { Form, Input } from 'antd'
import dayjs, { type Dayjs } from 'dayjs'
import { useState } from 'react'
import { useSignedIn } from '../api/session.ts'
import { announce } from '../frame/Announced.tsx'
import { Button } from '../frame/Button.tsx'
import { FileInput } from '../frame/FileInput.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { noteDone } from '../offline/queue.ts'
import { countWaiting, syncNow } from '../offline/sync.ts'
import { takePhoto } from '../walk/takePhoto.ts'
import { DayPicker } from '../units/DayPicker.tsx'
import { QuantityInput } from '../units/QuantityInput.tsx'

interface Filled {
  on: Dayjs
  minutes: number
  lived?: number
  amounts?: (number | null)[]
  left?: (number | null)[]
  note?: string
}

/** What was really done: the day, how long it took, how many live, a word, a photo. Kept on the device until it is sent. */
export function DoneForm({ job, onClose }: { job: JobView; onClose: () => void }) {
  const { view, today } = useGardenContext()
  const planting = view.plantings.find((p) => p.id === job.plantingIds[0])
  const [photo, setPhoto] = useState<File>()
  const keep = useKeeping(job, onClose)
  return (
    <Form
      name={`done-${job.id}`}
      layout="vertical"
      className="done-form"
      requiredMark={false}
      initialValues={{
        on: dayjs(today),
        minutes: job.minutes,
        lived: job.sets?.count ?? planting?.livingCount,
        left: job.spare === null ? [] : [job.spare],
        amounts: job.materials.map((m) => m.amount),
      }}
      onFinish={(filled: Filled) => keep(doneOf(job, filled), photo)}
    >
      <DoneFields job={job} />
      <Form.Item name="note" label="Note">
        <Input.TextArea rows={2} maxLength={2000} />
      </Form.Item>
      {(job.plantingIds.length > 0 || job.placeId) && (
        <label className="done-photo">
          <span>Photo of it</span>
          <FileInput accept="image/*" capture="environment" onFiles={([file]) => setPhoto(file)} />
          {photo && <small>{photo.name}</small>}
        </label>
      )}
      <div className="row">
        <Button look="primary" type="submit">
          Record
        </Button>
        <Button onClick={onClose}>Not yet</Button>
      </div>
    </Form>
  )
}

/** Keeps it on the device, with its photo, and sends it when there is a connection. */
function useKeeping(job: JobView, onKept: () => void) {
  const { view } = useGardenContext()
  const { person, clockAheadMs } = useSignedIn()
  const owner = { gardenId: view.garden.id, personId: person.id }
  return async (done: JobDone, photo: File | undefined) => {
    const [plantingId] = job.plantingIds
    const about = plantingId ? { plantingId } : job.placeId ? { placeId: job.placeId } : null
    try {
      if (photo && about) await takePhoto(owner, about, done.on, photo, false, clockAheadMs)
      await noteDone({
        ...owner,
        id: crypto.randomUUID(),
        notedAt: Date.now(),
        jobId: job.id,
        title: job.title,
        done: { ...done, at: new Date().toISOString(), serverAheadMs: clockAheadMs },
      })
    } catch {
      announce.failed('This browser would not keep it. Nothing was recorded.')
      return
    }
    onKept()
    await countWaiting()
    await syncNow(true)
  }
}

function doneOf(job: JobView, { amounts = [], left = [], ...values }: Filled): JobDone {
  return {
    ...values,
    on: values.on.format('YYYY-MM-DD'),
    ...(left.some((n) => n) && {
      leftOver: job.plantingIds.flatMap((plantingId, i) => (left[i] ? [{ plantingId, count: left[i] }] : [])),
    }),
    ...(job.materials.length > 0 && {
      used: job.materials.map(({ name, unit }, i) => ({ name, unit, amount: amounts[i] ?? 0 })),
    }),
  }
}

/** What is counted, by what is done. */
const livedWords: Partial<Record<JobView['kind'], string>> = {
  move: 'Replanted alive',
  lift: 'Lifted alive',
  plant: 'Planted',
  aftercare: 'Living now',
}

/** When, how long, and what of living and dead it changed. */
function DoneFields({ job }: { job: JobView }) {
  const { view, today } = useGardenContext()
  const planting = view.plantings.find((p) => p.id === job.plantingIds[0])
  const isOfOne = job.sets !== null || job.plantingIds.length === 1
  const asked = job.ruleId === null && isOfOne ? livedWords[job.kind] : undefined
  return (
    <>
      <div className="row">
        <Form.Item name="on" label="Day" rules={[{ required: true, message: 'Which day?' }]}>
          <DayPicker maxDate={dayjs(today)} allowClear={false} />
        </Form.Item>
        <Form.Item name="minutes" label="Minutes" rules={[{ required: true, message: 'How long?' }]}>
          <QuantityInput min={1} max={10_000} style={{ width: 90 }} />
        </Form.Item>
      </div>
      {asked && (
        <Form.Item
          name="lived"
          label={asked}
          rules={[{ required: job.kind !== 'aftercare', message: 'How many?' }]}
        >
          <QuantityInput
            min={0}
            max={job.sets ? 10_000 : planting?.livingCount}
            precision={0}
            style={{ width: 90 }}
          />
        </Form.Item>
      )}
      {job.materials.length > 0 && (
        <div className="done-used">
          {job.materials.map((m, i) => (
            <Form.Item key={m.name} name={['amounts', i]} label={`${m.name}, used`}>
              <QuantityInput min={0} max={100_000} suffix={m.unit} style={{ width: 130 }} />
            </Form.Item>
          ))}
        </div>
      )}
      {job.kind === 'divide' && job.plantingIds.length > 0 && (
        <div className="done-used">
          {job.plantingIds.map((id, i) => (
            <Form.Item
              key={id}
              name={['left', i]}
              label={`Left over of ${job.tags[i] ?? 'it'}, to the bench`}
            >
              <QuantityInput min={0} max={10_000} precision={0} placeholder="0" style={{ width: 90 }} />
            </Form.Item>
          ))}
        </div>
      )}
    </>
  )
}
