import type { PictureView } from '@border/contract'
import { finestM, groundShown, lieOf, type Extent, type Lie } from '@border/core'
import { useEffect, useMemo, useState } from 'react'
import { workers } from '../frame/workers.ts'
import { FieldPicture } from '../plan/Ground.tsx'
import type { PlanScale } from '../plan/scale.ts'
import { pictureAddress } from './queries.ts'
import type { WarpWorker } from './warpWorker.ts'

type Shown = Pick<PictureView, 'id' | 'width' | 'height' | 'strength'>
/** A picture with how it lies. */
export type Lying = Shown & { lie: Lie }

interface Props {
  gardenId: string
  pictures: readonly PictureView[]
  scale: PlanScale
}

/** Pictures where they lie under the plan, the first lowest. */
export const PicturesUnder = ({ gardenId, pictures, scale }: Props) =>
  pictures.map((p) => <Laid key={p.id} gardenId={gardenId} picture={p} scale={scale} />)

interface OneProps<Picture> {
  gardenId: string
  picture: Picture
  scale: PlanScale
}

function Laid({ picture, ...rest }: OneProps<PictureView>) {
  const { laying } = picture
  const lies = useMemo(() => laying && lieOf(laying), [laying])
  return lies?.ok && <PictureLying picture={{ ...picture, lie: lies.lie }} {...rest} />
}

/** One picture where it lies. */
export function PictureLying({ gardenId, picture, scale }: OneProps<Lying>) {
  const address = pictureAddress(gardenId, picture)
  const [a, b, c, d, e, f, g, h] = picture.lie.homography
  const k = scale.pxPerM
  return (
    <g className="plan-picture" opacity={picture.strength}>
      {g !== 0 || h !== 0 ? (
        <Slanting {...{ address, picture, scale }} />
      ) : (
        <image
          href={address}
          width={picture.width}
          height={picture.height}
          transform={`matrix(${k * a} ${-k * d} ${k * b} ${-k * e} ${scale.x(c)} ${scale.y(f)})`}
        />
      )}
    </g>
  )
}

const askWarp = workers<WarpWorker, 'straighten'>(
  () => new Worker(new URL('./warpWorker.ts', import.meta.url), { type: 'module' }),
  'Straightening the picture failed',
)

/** Longest side of a straightened picture, points. */
const LONGEST = 2200

function Slanting({ address, picture, scale }: { address: string; picture: Lying; scale: PlanScale }) {
  const { lie, width, height } = picture
  const ground = useMemo(() => groundShown(lie, width, height), [lie, width, height])
  const made = useStraightened(address, lie, ground)
  return made && <FieldPicture field={made} scale={scale} />
}

/** The picture from straight above, made by a worker; while its points move, as it last was. */
function useStraightened(address: string, lie: Lie, ground: Extent) {
  const [made, setMade] = useState<Extent & { href: string }>()
  useEffect(() => {
    let isWanted = true
    const [w, h] = [ground.maxX - ground.minX, ground.maxY - ground.minY]
    const most = Math.round((LONGEST * w) / Math.max(w, h))
    const width = Math.max(1, Math.min(most, Math.ceil(w / finestM(lie))))
    askWarp('straighten', (worker) => worker.straighten(address, lie.homography, ground, width)).then(
      (blob) => isWanted && setMade({ href: URL.createObjectURL(blob), ...ground }),
      // A picture that cannot be had is not shown; nothing else hangs on it.
      () => {},
    )
    return () => {
      isWanted = false
    }
  }, [address, lie, ground])
  const href = made?.href
  useEffect(() => () => void (href && URL.revokeObjectURL(href)), [href])
  return made
}
