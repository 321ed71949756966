import { pictureEndpoints, type PictureView } from '@border/contract'
import { useState } from 'react'
import { Link, useLocation } from 'react-router'
import { useGardenWrite } from '../api/writes.ts'
import { Answered } from '../frame/Answered.tsx'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { ScreenHead } from '../frame/ScreenHead.tsx'
import '../draw/draw.css'
import { BringIn } from './BringIn.tsx'
import { LayPicture } from './LayPicture.tsx'
import './pictures.css'
import { usePictures } from './queries.ts'

/** Scans and photos under the plan: brought in, laid by points and lengths, faded, taken away. */
export function PicturesScreen() {
  const { view, isHead } = useGardenContext()
  const { search } = useLocation()
  const pictures = usePictures(view.garden.id)
  const [inHand, setInHand] = useState<string>()
  return (
    <Answered of={[pictures]}>
      {(pictures) => {
        const picture = pictures.find((p) => p.id === inHand)
        return (
          <>
            <ScreenHead
              title="From a picture"
              lead={
                picture
                  ? picture.name
                  : 'A scan, a photo from above, a page of a PDF, or a slanting photo of a bed: laid under the plan, to draw over.'
              }
            >
              {picture ? (
                <Button onClick={() => setInHand(undefined)}>All pictures</Button>
              ) : (
                <Link to={{ pathname: '../plan', search }}>To the plan</Link>
              )}
            </ScreenHead>
            {picture && isHead ? (
              <LayPicture key={picture.id} picture={picture} onDone={() => setInHand(undefined)} />
            ) : (
              <div className="screen-body stack">
                {isHead && <BringIn onIn={setInHand} />}
                <List pictures={pictures} onLay={setInHand} />
              </div>
            )}
          </>
        )
      }}
    </Answered>
  )
}

interface ListProps {
  pictures: readonly PictureView[]
  onLay: (id: string) => void
}

function List({ pictures, onLay }: ListProps) {
  const { view, isHead } = useGardenContext()
  const { id: gardenId } = view.garden
  const [away, setAway] = useState<PictureView>()
  const withdraw = useGardenWrite(
    pictureEndpoints.withdraw,
    (p: PictureView) => ({ gardenId, pictureId: p.id }),
    'Taken away.',
  )
  const restore = useGardenWrite(
    pictureEndpoints.restore,
    (p: PictureView) => ({ gardenId, pictureId: p.id }),
    'It is back.',
  )
  return (
    <>
      {pictures.length === 0 && !away && (
        <p className="soft">
          None yet. With two points and the length between them a scan lies to scale; a photo taken from
          beside the bed needs four.
        </p>
      )}
      <ul className="changes" aria-label="Pictures">
        {pictures.map((p) => (
          <li key={p.id}>
            <b>{p.name}</b>{' '}
            <small>
              {p.laying ? 'laid' : 'not laid yet'}
              {p.by && `, brought in by ${p.by}`}
            </small>
            {isHead && (
              <>
                <Faded picture={p} />
                <div className="row">
                  <Button size="small" look={p.laying ? 'default' : 'primary'} onClick={() => onLay(p.id)}>
                    {p.laying ? 'Lay it otherwise' : 'Lay it'}
                  </Button>
                  <Button
                    size="small"
                    look="text"
                    danger
                    onClick={() => withdraw.mutate(p, { onSuccess: () => setAway(p) })}
                  >
                    Take away
                  </Button>
                </div>
              </>
            )}
          </li>
        ))}
      </ul>
      {away && (
        <p>
          “{away.name}” is taken away.{' '}
          <Button size="small" onClick={() => restore.mutate(away, { onSuccess: () => setAway(undefined) })}>
            Bring it back
          </Button>
        </p>
      )}
    </>
  )
}

/** Whether it is shown under the plan, and how strongly. */
function Faded({ picture }: { picture: PictureView }) {
  const { view } = useGardenContext()
  const amend = useGardenWrite(
    pictureEndpoints.amend,
    { gardenId: view.garden.id, pictureId: picture.id },
    'Kept.',
    () => picture,
  )
  const [strength, setStrength] = useState(picture.strength)
  const keep = () => strength !== picture.strength && amend.mutate({ strength })
  return (
    <div className="picture-faded">
      <label>
        <input
          type="checkbox"
          checked={picture.isShown}
          onChange={(e) => amend.mutate({ isShown: e.target.checked })}
        />{' '}
        Shown
      </label>
      <span>faint</span>
      <input
        type="range"
        aria-label={`How strongly ${picture.name} shows`}
        min={0.05}
        max={1}
        step={0.05}
        value={strength}
        onChange={(e) => setStrength(Number(e.target.value))}
        onPointerUp={keep}
        onBlur={keep}
      />
      <span>strong</span>
    </div>
  )
}
