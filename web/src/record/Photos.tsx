import { photoEndpoints, type PhotoView, type StandpointView } from '@border/contract'
import { Form, Input, Select } from 'antd'
import { useState } from 'react'
import { useGardenWrite } from '../api/writes.ts'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { Answered } from '../frame/Answered.tsx'
import { shortDate } from '../frame/words.ts'
import { photoAddress, usePhotos, useStandpoints } from './queries.ts'

/** Photos by standpoint across years: any two side by side. */
export function Photos() {
  const { view } = useGardenContext()
  const photos = usePhotos(view.garden.id)
  const standpoints = useStandpoints(view.garden.id)
  return (
    <Answered of={[photos, standpoints]}>
      {(photos, standpoints) => <PhotosBy photos={photos} standpoints={standpoints} />}
    </Answered>
  )
}

function PhotosBy({ photos, standpoints }: { photos: PhotoView[]; standpoints: StandpointView[] }) {
  const { isHead } = useGardenContext()
  const [pair, setPair] = useState<string[]>([])
  const choose = (id: string) =>
    setPair((before) => (before.includes(id) ? before.filter((p) => p !== id) : [...before.slice(-1), id]))
  const others = photos.filter((p) => !p.standpointId)
  const chosen = pair.flatMap((id) => photos.find((p) => p.id === id) ?? [])
  return (
    <div className="screen-body stack">
      {chosen.length > 0 && (
        <Compared photos={[...chosen].sort((a, b) => (a.takenOn < b.takenOn ? -1 : 1))} />
      )}
      <p className="soft">
        Choose two to see them side by side. Photos are taken on the walk, from standpoints that stay the
        same.
      </p>
      {standpoints.map((s) => (
        <Strip
          key={s.id}
          title={s.name}
          framing={s.framing}
          photos={photos.filter((p) => p.standpointId === s.id)}
          pair={pair}
          onChoose={choose}
        />
      ))}
      {others.length > 0 && (
        <Strip title="Plantings and places" framing="" photos={others} pair={pair} onChoose={choose} />
      )}
      {isHead && <NewStandpoint known={standpoints} />}
    </div>
  )
}

function useAbout() {
  const { view } = useGardenContext()
  return (p: PhotoView): string => {
    const planting = view.plantings.find((x) => x.id === p.plantingId)
    const place = view.features.find((f) => f.id === p.placeId)
    return planting
      ? `${planting.taxon.botanical}, ${planting.tag}`
      : (place?.name ?? 'a planting that is gone')
  }
}

function Compared({ photos }: { photos: PhotoView[] }) {
  const { view } = useGardenContext()
  const about = useAbout()
  return (
    <section className="photo-pair" aria-label="Side by side">
      {photos.map((p) => (
        <figure key={p.id}>
          <img src={photoAddress(view.garden.id, p.id)} alt={`${about(p)}, ${shortDate(p.takenOn)}`} />
          <figcaption>
            {shortDate(p.takenOn)} <small>{p.by}</small>
          </figcaption>
        </figure>
      ))}
    </section>
  )
}

interface StripProps {
  title: string
  framing: string
  photos: PhotoView[]
  pair: readonly string[]
  onChoose: (id: string) => void
}

function Strip({ title, framing, photos, pair, onChoose }: StripProps) {
  const { view } = useGardenContext()
  const about = useAbout()
  return (
    <section>
      <h2>{title}</h2>
      {framing && <p className="soft">{framing}</p>}
      {photos.length === 0 && <p className="soft">No photo from here yet.</p>}
      <ul className="photo-strip">
        {photos.map((p) => (
          <li key={p.id}>
            <button
              type="button"
              aria-pressed={pair.includes(p.id)}
              aria-label={`${about(p)}, ${shortDate(p.takenOn)}`}
              onClick={() => onChoose(p.id)}
            >
              <img src={photoAddress(view.garden.id, p.id, 'small')} alt="" loading="lazy" />
              <span>{shortDate(p.takenOn)}</span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  )
}

function NewStandpoint({ known }: { known: readonly StandpointView[] }) {
  const { view, standing } = useGardenContext()
  const [form] = Form.useForm<{ name: string; placeId?: string; framing?: string }>()
  const add = useGardenWrite(
    photoEndpoints.addStandpoint,
    { gardenId: view.garden.id },
    'A standpoint: the walk asks for its photo.',
  )
  const places = standing.filter((f) => f.kind === 'bed' || f.kind === 'container')
  return (
    <section className="new-standpoint">
      <h2>{known.length === 0 ? 'The first standpoint' : 'Another standpoint'}</h2>
      <Form
        name="standpoint"
        form={form}
        layout="vertical"
        requiredMark={false}
        onFinish={(values) => add.mutate(values, { onSuccess: () => form.resetFields() })}
      >
        <Form.Item name="name" label="Name" rules={[{ required: true, message: 'Give it a name' }]}>
          <Input maxLength={120} placeholder="Long border from the gate post" />
        </Form.Item>
        <Form.Item
          name="placeId"
          label="Place it shows"
          rules={[{ required: true, message: 'Choose a place' }]}
        >
          <Select options={places.map((f) => ({ value: f.id, label: f.name }))} />
        </Form.Item>
        <Form.Item name="framing" label="Where to stand, what to put in the middle">
          <Input maxLength={300} />
        </Form.Item>
        <Button type="submit" loading={add.isPending}>
          Add it
        </Button>
      </Form>
    </section>
  )
}
