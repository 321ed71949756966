import { daysBetween, type IsoDate } from '@border/core'
import { Choose } from '../frame/Choose.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { shortDate } from '../frame/words.ts'
import { photoAddress, usePhotos, useStandpoints } from '../record/queries.ts'
import { weekOf } from '../frame/WeekSlider.tsx'
import './rework.css'

interface Props {
  placeId: string
  photoId: string | undefined
  /** Years of growth that can be drawn. */
  years: readonly number[]
  /** The day on which the first of it was planted. */
  plantedOn: IsoDate | undefined
  onChoose: (at: { photo: string; week: string; growth: string }) => void
}

/** What came of a scheme: a photo from its standpoint beside what was drawn, for the same week and the same year. */
export function PhotoBeside({ placeId, photoId, years, plantedOn, onChoose }: Props) {
  const { view } = useGardenContext()
  const { id: gardenId } = view.garden
  const photos = usePhotos(gardenId)
  const standpoints = useStandpoints(gardenId)
  const ofPlace = (standpoints.data ?? []).filter((s) => s.placeId === placeId)
  const taken = (photos.data ?? [])
    .filter((p) => ofPlace.some((s) => s.id === p.standpointId) || p.placeId === placeId)
    .toSorted((a, b) => (a.takenOn < b.takenOn ? 1 : -1))
  if (taken.length === 0) return null
  const shown = taken.find((p) => p.id === photoId)
  const nameOf = (standpointId: string | null) => ofPlace.find((s) => s.id === standpointId)?.name
  return (
    <div className="photo-beside">
      <Choose
        label="Photo beside it"
        value={shown?.id ?? ''}
        options={[
          { value: '', label: 'no photo beside it' },
          ...taken.map((p) => ({ value: p.id, label: `photo of ${shortDate(p.takenOn)}` })),
        ]}
        onChange={(id) => {
          const photo = taken.find((p) => p.id === id)
          onChoose(
            photo
              ? { photo: id, ...drawnAs(photo.takenOn, plantedOn, years) }
              : { photo: '', week: '', growth: '' },
          )
        }}
      />
      {shown && (
        <figure>
          <img
            src={photoAddress(gardenId, shown.id)}
            alt={`${nameOf(shown.standpointId) ?? 'The place'}, ${shortDate(shown.takenOn)}`}
          />
          <figcaption className="soft">
            {nameOf(shown.standpointId) ?? 'A photo of the place'}, {shortDate(shown.takenOn)}
          </figcaption>
        </figure>
      )}
    </div>
  )
}

/** The week of a photo, and of the years that are drawn the nearest to the age that the planting had. */
function drawnAs(takenOn: IsoDate, plantedOn: IsoDate | undefined, years: readonly number[]) {
  const age = plantedOn ? daysBetween(plantedOn, takenOn) / 365.25 : 3
  const nearest = years.reduce((a, b) => (Math.abs(b - age) < Math.abs(a - age) ? b : a))
  return { week: String(weekOf(takenOn)), growth: String(nearest) }
}
