import { plantingEndpoints, plantingSeen, type PhotoView, type PlantingView } from '@border/contract'
import { isUnknown, plantedWords } from '@border/core'
import { Link, useLocation } from 'react-router'
import { useGardenWrite } from '../api/writes.ts'
import { shortDate } from '../frame/words.ts'
import { useGardenContext } from '../frame/gardenContext.ts'
import { photoAddress, usePhotos } from '../record/queries.ts'
import { PhotoButton } from '../walk/fields.tsx'
import { TaxonSelect } from './TaxonSelect.tsx'
import { usePlantingPhoto } from './usePlantingPhoto.ts'
import './plants.css'
import '../walk/walk.css'

/** Plants that nobody has named yet, each with its photos, to be named. */
export function ToBeNamed() {
  const { view } = useGardenContext()
  const unknown = view.plantings.filter((p) => isUnknown(p.taxon))
  return unknown.length > 0 && <Waiting unknown={unknown} />
}

function Waiting({ unknown }: { unknown: readonly PlantingView[] }) {
  const { view } = useGardenContext()
  const { data: photos } = usePhotos(view.garden.id)
  return (
    <section aria-label="To be named" className="to-be-named">
      <h2>To be named</h2>
      <p className="soft">
        Nobody knows these by name. Each keeps its ground and its story; nothing is judged of it, and no work
        follows, before somebody says what it is.
      </p>
      <ul>
        {unknown.map((p) => (
          <li key={p.id}>
            <Unnamed planting={p} photos={(photos ?? []).filter((f) => f.plantingId === p.id)} />
          </li>
        ))}
      </ul>
    </section>
  )
}

function Unnamed({ planting, photos }: { planting: PlantingView; photos: readonly PhotoView[] }) {
  const { view, isCrew } = useGardenContext()
  const { search } = useLocation()
  const take = usePlantingPhoto()
  const place = view.features.find((f) => f.id === planting.placeId)
  const last = photos.at(-1)
  return (
    <>
      {last ? (
        <a href={photoAddress(view.garden.id, last.id)} target="_blank" rel="noreferrer">
          <img
            src={photoAddress(view.garden.id, last.id, 'small')}
            alt={`Tag ${planting.tag}, ${shortDate(last.takenOn)}`}
            loading="lazy"
          />
        </a>
      ) : (
        <span className="no-photo">No photo yet</span>
      )}
      <div>
        <p>
          <Link to={{ pathname: planting.id, search }}>{planting.tag}</Link>, {planting.livingCount} in{' '}
          {place?.name}, planted {plantedWords(planting)}
        </p>
        <NameIt planting={planting} />
        {isCrew && (
          <PhotoButton
            label={last ? 'Another photo' : 'Take a photo'}
            onFile={(file) => void take(planting.id, file)}
          />
        )}
      </div>
    </>
  )
}

/** Says what an unknown planting turned out to be. */
export function NameIt({ planting }: { planting: PlantingView }) {
  const { view, isHead } = useGardenContext()
  const name = useGardenWrite(
    plantingEndpoints.amend,
    { gardenId: view.garden.id },
    ({ plantings }) =>
      `${planting.tag} is ${plantings[0]!.taxonBotanical}. What follows from that is worked out.`,
    () => [plantingSeen(planting)],
  )
  if (!isHead) return null
  return (
    <TaxonSelect
      label={`What ${planting.tag} is`}
      placeholder="It turned out to be …"
      style={{ width: '100%' }}
      onChange={(taxonBotanical) => name.mutate({ plantings: [{ plantingId: planting.id, taxonBotanical }] })}
    />
  )
}
